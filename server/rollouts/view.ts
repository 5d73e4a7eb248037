import { QueryTypes } from "sequelize";
import type { Fault, Platform } from "#connectors/connector.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { database } from "../db/connection.ts";
import type { DeliveryState } from "../db/models/delivery.ts";
import { Person, Rollout } from "../db/models/index.ts";
import type { Gate, RolloutState } from "../db/models/rollout.ts";
import type { DeliveryId, PlaceId, RolloutId } from "../ids.ts";

export type Counts = Record<DeliveryState, number>;

export interface RolloutLine {
  id: RolloutId;
  name: string;
  state: RolloutState;
  gate: Gate;
  wave: number;
  waves: number;
  startsAt: Date | null;
  requestedBy: string;
  requestedAt: Date;
  finishedAt: Date | null;
  /** Places by the state of their newest delivery. */
  counts: Counts;
}

const NONE: Counts = {
  planned: 0,
  queued: 0,
  delivering: 0,
  delivered: 0,
  failed: 0,
  stopped: 0,
};

/** The newest delivery of each place of the rollouts `$1`. */
const NEWEST = `SELECT DISTINCT ON (d.rollout_id, d.place_id) d.*
  FROM deliveries d WHERE d.rollout_id = ANY($1)
  ORDER BY d.rollout_id, d.place_id, d.requested_at DESC`;

/** One page of rollouts, newest first. `page` counts from 1. */
export async function listRollouts(
  page: number,
  size: number,
): Promise<{ lines: RolloutLine[]; total: number }> {
  const { rows, count } = await Rollout.findAndCountAll({
    include: [{ model: Person, as: "requester" }],
    order: [["requestedAt", "DESC"]],
    limit: size,
    offset: (page - 1) * size,
  });
  return { lines: await counted(rows), total: count };
}

/** One rollout; null where there is none. */
export async function findRollout(id: RolloutId): Promise<RolloutLine | null> {
  const row = await Rollout.findByPk(id, { include: [{ model: Person, as: "requester" }] });
  return row ? ((await counted([row]))[0] ?? null) : null;
}

async function counted(rows: Rollout[]): Promise<RolloutLine[]> {
  const counts = await database().query<{ id: RolloutId; state: DeliveryState; n: number }>(
    `SELECT rollout_id AS id, state, count(*)::integer AS n FROM (${NEWEST}) newest GROUP BY 1, 2`,
    { bind: [rows.map((row) => row.id)], type: QueryTypes.SELECT },
  );
  return (rows as (Rollout & { requester: Person })[]).map((row) => {
    const { id, name, state, gate, wave, waves, startsAt, requestedAt, finishedAt } = row;
    const own = counts.filter((c) => c.id === id).map((c) => [c.state, c.n]);
    return {
      id,
      name,
      state,
      gate,
      wave,
      waves,
      startsAt,
      requestedAt,
      finishedAt,
      requestedBy: row.requester.name,
      counts: { ...NONE, ...Object.fromEntries(own) },
    };
  });
}

export interface LegLine {
  delivery: DeliveryId;
  place: PlaceId;
  name: string;
  platform: string;
  wave: number;
  state: DeliveryState;
  attempt: number;
  failure: Fault | null;
  retryAt: Date | null;
  release: string | null;
  document: ThemeDocument | null;
  previous: string | null;
  readAt: Date | null;
}

/** Why places of a rollout were not reached, together where the platform and the kind of fault are one. */
export interface FailureGroup {
  platform: Platform;
  places: number;
  /** The fault, or one of them where they differ from place to place. */
  fault: Fault;
  isOne: boolean;
}

/** The reasons for which places of a rollout failed, the commonest first. */
export async function listFailures(id: RolloutId): Promise<FailureGroup[]> {
  return database().query<FailureGroup>(
    `SELECT p.platform, count(*)::integer AS places, (array_agg(d.failure ORDER BY p.name))[1] AS fault,
            count(DISTINCT d.failure) = 1 AS "isOne"
     FROM (${NEWEST}) d JOIN places p ON p.id = d.place_id
     WHERE d.state = 'failed'
     GROUP BY p.platform, d.failure ->> 'code'
     ORDER BY count(*) DESC, p.platform`,
    { bind: [[id]], type: QueryTypes.SELECT },
  );
}

/** One page of a rollout's places, those that failed first, then by wave and name. */
export async function listLegs(id: RolloutId, page: number, size: number): Promise<LegLine[]> {
  return database().query<LegLine>(
    `SELECT d.id AS delivery, p.id AS place, p.name, p.platform, d.wave, d.state, d.attempt,
            d.failure, d.retry_at AS "retryAt", r.name AS release, r.document,
            before.name AS previous, receipts.read_at AS "readAt"
     FROM (${NEWEST}) d
     JOIN places p ON p.id = d.place_id
     LEFT JOIN releases r ON r.id = d.release_id
     LEFT JOIN releases before ON before.id = d.previous_release_id
     LEFT JOIN receipts ON receipts.delivery_id = d.id
     ORDER BY d.state = 'failed' DESC, d.wave, p.name, p.id
     LIMIT $2 OFFSET $3`,
    { bind: [[id], size, (page - 1) * size], type: QueryTypes.SELECT },
  );
}
