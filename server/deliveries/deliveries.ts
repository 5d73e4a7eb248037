import { UniqueConstraintError } from "sequelize";
import {
  DeliveryFault,
  type Fault,
  type PreflightCheck,
  type SlotValues,
} from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import type { DeliveryState } from "../db/models/delivery.ts";
import { Delivery, Person, Place, Receipt, Release } from "../db/models/index.ts";
import { targetOf } from "../estate/target.ts";
import { type DeliveryId, newId, type PersonId, type PlaceId, type ReleaseId } from "../ids.ts";
import { enqueue } from "../jobs/queue.ts";
import { announce } from "../live/changes.ts";
import { parcelOf } from "./parcel.ts";
import { differingSlots } from "./slots.ts";

/** Looks at everything that could stand in a delivery's way; null where place or release is none. */
export async function preflight(
  place: PlaceId,
  release: ReleaseId,
): Promise<PreflightCheck[] | null> {
  try {
    const target = await targetOf(place);
    const parcel = target && (await parcelOf(release, target.platform));
    if (!parcel) return null;
    return await CONNECTORS[target.platform].preflight(target, parcel);
  } catch (error) {
    if (!(error instanceof DeliveryFault)) throw error;
    return [{ subject: "right", outcome: "obstacle", fault: error.fault }];
  }
}

export type RequestResult =
  | { ok: true; id: DeliveryId }
  | { ok: false; code: "already-under-way" | "no-such-place" };

/** Queues the delivery of a release to a place, with its job, in one transaction. */
export async function requestDelivery(
  placeId: PlaceId,
  releaseId: ReleaseId,
  person: PersonId,
): Promise<RequestResult> {
  const [place, release] = await Promise.all([
    Place.findByPk(placeId),
    Release.findByPk(releaseId, { attributes: ["name"] }),
  ]);
  if (!place?.connectionId || !release) return { ok: false, code: "no-such-place" };
  const id = newId<DeliveryId>();
  try {
    await inTransaction(async (transaction) => {
      await Delivery.create(
        {
          id,
          placeId,
          releaseId,
          state: "queued",
          previousReleaseId: place.liveReleaseId,
          requestedBy: person,
        },
        { transaction },
      );
      await enqueue("deliver", { delivery: id }, transaction);
      const detail = { place: place.name, release: release.name };
      await record(
        { person, action: "delivery-requested", subjectKind: "delivery", subjectId: id, detail },
        transaction,
      );
      await announce(placeId, transaction);
    });
  } catch (error) {
    if (error instanceof UniqueConstraintError) return { ok: false, code: "already-under-way" };
    throw error;
  }
  return { ok: true, id };
}

export interface DeliveryLine {
  id: DeliveryId;
  /** Null: back to the look that the platform has by itself. */
  release: string | null;
  state: DeliveryState;
  attempt: number;
  failure: Fault | null;
  retryAt: Date | null;
  requestedBy: string;
  requestedAt: Date;
  finishedAt: Date | null;
  receipt: DeliveryReceipt | null;
}

export interface DeliveryReceipt {
  sentSha256: string;
  foundSha256: string;
  readAt: Date;
  slots: number;
  differing: string[];
  sent: SlotValues;
  found: SlotValues;
}

/** A place's newest deliveries, with their receipts. */
export async function listDeliveries(place: PlaceId, size: number): Promise<DeliveryLine[]> {
  const rows = await Delivery.findAll({
    where: { placeId: place },
    include: [
      { model: Release, as: "release", attributes: ["name"] },
      { model: Person, as: "requester", attributes: ["name"] },
      { model: Receipt, as: "receipt" },
    ],
    order: [["requestedAt", "DESC"]],
    limit: size,
  });
  type Joined = Delivery & { release: Release | null; requester: Person; receipt: Receipt | null };
  return (rows as Joined[]).map((row) => ({
    id: row.id,
    release: row.release?.name ?? null,
    state: row.state,
    attempt: row.attempt,
    failure: row.failure,
    retryAt: row.retryAt,
    requestedBy: row.requester.name,
    requestedAt: row.requestedAt,
    finishedAt: row.finishedAt,
    receipt: row.receipt && asReceipt(row.receipt),
  }));
}

const asReceipt = ({ sent, found, sentSha256, foundSha256, readAt }: Receipt): DeliveryReceipt => ({
  sentSha256,
  foundSha256,
  readAt,
  slots: Object.keys(sent).length,
  differing: differingSlots(sent, found),
  sent,
  found,
});
