import { QueryTypes } from "sequelize";
import type { Fault, Platform, SlotValues } from "#connectors/connector.ts";
import { database } from "../db/connection.ts";
import type { ConnectionId, DeliveryId, PlaceId, ReceiptId, ReleaseId, RolloutId } from "../ids.ts";
import { CHANNEL } from "../live/changes.ts";

/**
 * The steps of a delivery, each one statement: thousands of deliveries wait for little else than
 * the way to the database, and what is one statement is one transaction as well.
 */

/** A delivery that has begun, with all that is needed to reach its place. */
export interface Begun {
  id: DeliveryId;
  place: PlaceId;
  release: ReleaseId | null;
  attempt: number;
  failures: number;
  rollout: RolloutId | null;
  slug: string;
  key: string | null;
  connection: ConnectionId | null;
  platform: Platform | null;
  address: string | null;
  scope: string | null;
  account: string | null;
  secret: string | null;
  refused: boolean;
}

/** A rollout's state as it is when the statement runs; null for a delivery without one. */
const ROLLOUT = "(SELECT state FROM rollouts WHERE id = d.rollout_id)";

/**
 * Begins a delivery. Null where it has ended or is planned for later; one whose rollout was paused
 * or stopped meanwhile is planned again, or ends.
 */
export async function begin(id: DeliveryId): Promise<Begun | null> {
  const [row] = await database().query<Begun & { state: string }>(
    `WITH begun AS (
       UPDATE deliveries d SET
         state = CASE ${ROLLOUT} WHEN 'paused' THEN 'planned' WHEN 'stopped' THEN 'stopped' ELSE 'delivering' END,
         attempt = attempt + CASE WHEN ${ROLLOUT} IN ('paused', 'stopped') THEN 0 ELSE 1 END,
         finished_at = CASE ${ROLLOUT} WHEN 'stopped' THEN now() END,
         retry_at = NULL
       WHERE id = $1 AND finished_at IS NULL AND state <> 'planned'
       RETURNING d.*
     )
     SELECT b.id, b.place_id AS place, b.release_id AS release, b.attempt, b.failures, b.state,
            b.rollout_id AS rollout, p.slug, p.external_key AS key, c.id AS connection, c.platform,
            c.address, c.scope, c.account, c.secret, c.refused_at IS NOT NULL AS refused,
            pg_notify('${CHANNEL}', b.place_id::text)::text
     FROM begun b JOIN places p ON p.id = b.place_id LEFT JOIN connections c ON c.id = p.connection_id`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return row && row.state === "delivering" ? row : null;
}

/** Lets a place's hosted stylesheet show a release. */
export async function host(place: PlaceId, release: ReleaseId | null): Promise<void> {
  await database().query(
    `WITH hosted AS (
       UPDATE places SET hosted_release_id = $2
       WHERE id = $1 AND hosted_release_id IS DISTINCT FROM $2 RETURNING id
     )
     SELECT pg_notify('${CHANNEL}', id::text)::text FROM hosted`,
    { bind: [place, release], type: QueryTypes.SELECT },
  );
}

/** What a delivery's end writes beside itself: the log. */
const AFTER = `
  noted AS (
    INSERT INTO audit_entries (action, subject_kind, subject_id, detail)
    SELECT CASE WHEN $2::jsonb IS NULL THEN 'delivery-finished' ELSE 'delivery-failed' END,
           'delivery', o.id,
           jsonb_build_object('place', p.name, 'release', r.name)
             || CASE WHEN $2::jsonb IS NULL THEN '{}' ELSE jsonb_build_object('fault', $2::jsonb -> 'code') END
    FROM open o JOIN places p ON p.id = o.place_id LEFT JOIN releases r ON r.id = o.release_id
  )
  SELECT pg_notify('${CHANNEL}', o.place_id::text)::text FROM open o`;

const OPEN = "open AS (SELECT * FROM deliveries WHERE id = $1 AND finished_at IS NULL FOR UPDATE)";

const ENDED = `ended AS (
    UPDATE deliveries d SET
      state = CASE WHEN $2::jsonb IS NULL THEN 'delivered' ELSE 'failed' END,
      failure = $2::jsonb, retry_at = NULL, finished_at = now()
    FROM open o WHERE d.id = o.id
  )`;

export interface ReadBack {
  receipt: ReceiptId;
  sent: SlotValues;
  sentSha256: string;
  found: SlotValues;
  foundSha256: string;
}

/**
 * Ends a delivery with its receipt, and says what is live at the place; without a fault the receipt
 * is a true one. Does nothing where the delivery has ended already.
 */
export async function endWithReceipt(
  id: DeliveryId,
  { receipt, sent, sentSha256, found, foundSha256 }: ReadBack,
  fault: Fault | null,
): Promise<void> {
  await database().query(
    `WITH ${OPEN}, ${ENDED},
     written AS (
       INSERT INTO receipts (id, delivery_id, place_id, sent, sent_sha256, found, found_sha256, read_at)
       SELECT $3, o.id, o.place_id, $4::jsonb, $5, $6::jsonb, $7, now() FROM open o
     ),
     lives AS (
       UPDATE places p SET
         live_release_id = CASE WHEN $2::jsonb IS NULL THEN o.release_id END,
         live_receipt_id = CASE WHEN $2::jsonb IS NULL AND o.release_id IS NOT NULL THEN $3::uuid END,
         checked_at = now(), drift = NULL
       FROM open o WHERE p.id = o.place_id
     ),
     ${AFTER}`,
    {
      bind: [
        id,
        fault && JSON.stringify(fault),
        receipt,
        JSON.stringify(sent),
        sentSha256,
        JSON.stringify(found),
        foundSha256,
      ],
      type: QueryTypes.SELECT,
    },
  );
}

/** Ends a delivery with a fault that won't pass. */
export async function endWithFault(id: DeliveryId, fault: Fault): Promise<void> {
  await database().query(`WITH ${OPEN}, ${ENDED}, ${AFTER}`, {
    bind: [id, JSON.stringify(fault)],
    type: QueryTypes.SELECT,
  });
}

/**
 * The rollout whose wave ended with a delivery, null while others of it are open. It must be asked
 * after the delivery's end has landed: of those that end at the same moment, the last one then sees
 * that nothing is open.
 */
export async function waveEndedBy(id: DeliveryId): Promise<RolloutId | null> {
  const [row] = await database().query<{ rollout: RolloutId }>(
    `SELECT d.rollout_id AS rollout FROM deliveries d
     WHERE d.id = $1 AND d.rollout_id IS NOT NULL AND d.finished_at IS NOT NULL AND NOT EXISTS (
       SELECT 1 FROM deliveries x
       WHERE x.rollout_id = d.rollout_id AND x.wave <= d.wave
         AND x.state IN ('planned', 'queued', 'delivering')
     )`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return row?.rollout ?? null;
}

/** Puts a delivery back on the queue for a later attempt. */
export async function putOff(
  id: DeliveryId,
  fault: Fault,
  failures: number,
  retryAt: Date,
): Promise<void> {
  await database().query(
    `WITH ${OPEN},
     put_off AS (
       UPDATE deliveries d SET state = 'queued', failure = $2::jsonb, failures = $3, retry_at = $4
       FROM open o WHERE d.id = o.id
     )
     SELECT graphile_worker.add_job('deliver', json_build_object('delivery', o.id), run_at => $4)::text,
            pg_notify('${CHANNEL}', o.place_id::text)::text
     FROM open o`,
    {
      bind: [id, JSON.stringify(fault), failures, retryAt.toISOString()],
      type: QueryTypes.SELECT,
    },
  );
}
