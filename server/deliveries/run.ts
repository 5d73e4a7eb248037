import type { Transaction } from "sequelize";
import { DeliveryFault, type Fault, isPassing, type SlotValues } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { MOST_ATTEMPTS, pauseAfter } from "#core/estate/attempts.ts";
import { record } from "../audit/audit.ts";
import { config } from "../config.ts";
import { inTransaction } from "../db/connection.ts";
import { Delivery, Place, Receipt, Release } from "../db/models/index.ts";
import { linkOf } from "../estate/estate.ts";
import { type DeliveryId, newId, type ReceiptId } from "../ids.ts";
import { enqueue } from "../jobs/queue.ts";
import { announce } from "../live/changes.ts";
import { sha256 } from "../releases/artefact.ts";
import { differingSlots, parcelOf } from "./deliveries.ts";

/**
 * The job of one delivery: deliver, read back, write the receipt. It may be killed at any point and
 * run again, since delivering twice has the effect of once and the receipt is written together
 * with the delivery's end. Faults end in the delivery's row; anything else is thrown for the queue.
 */
export async function runDelivery(id: DeliveryId): Promise<void> {
  const started = await start(id);
  if (!started) return;
  try {
    const target = await linkOf(started.placeId);
    const parcel = target && (await parcelOf(started.releaseId, target.platform));
    if (!target || !parcel)
      throw new DeliveryFault({ code: "no-such-place", key: started.placeId });
    const connector = CONNECTORS[target.platform];
    await connector.deliver(target.link, target.key, parcel);
    const found = await connector.readBack(target.link, target.key, parcel);
    await finish(id, connector.expected(parcel), found);
  } catch (error) {
    if (!(error instanceof DeliveryFault)) throw error;
    await fail(id, error.fault);
  }
}

async function start(id: DeliveryId): Promise<Delivery | null> {
  return inTransaction(async (transaction) => {
    const delivery = await openDelivery(id, transaction);
    if (!delivery) return null;
    await delivery.update(
      { state: "delivering", attempt: delivery.attempt + 1, retryAt: null },
      { transaction },
    );
    await announce(delivery.placeId, transaction);
    return delivery;
  });
}

/** The delivery's row, locked; null where it has ended, so that a late second run does nothing. */
async function openDelivery(id: DeliveryId, transaction: Transaction): Promise<Delivery | null> {
  const delivery = await Delivery.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
  return delivery && delivery.finishedAt === null ? delivery : null;
}

async function finish(id: DeliveryId, sent: SlotValues, found: SlotValues): Promise<void> {
  const differing = differingSlots(sent, found);
  await inTransaction(async (transaction) => {
    const delivery = await openDelivery(id, transaction);
    if (!delivery) return;
    const now = new Date();
    await Receipt.create(
      {
        id: newId<ReceiptId>(),
        deliveryId: id,
        placeId: delivery.placeId,
        sent,
        sentSha256: digest(sent),
        found,
        foundSha256: digest(found),
        readAt: now,
      },
      { transaction },
    );
    const fault: Fault | null =
      differing.length > 0 ? { code: "read-back-differs", slots: differing } : null;
    await end(delivery, fault, now, transaction);
  });
}

/** SHA-256 of a platform's state, slots in the order of their names. */
function digest(values: SlotValues): string {
  const ordered = Object.entries(values).sort(([a], [b]) => (a < b ? -1 : 1));
  return sha256(JSON.stringify(ordered));
}

async function fail(id: DeliveryId, fault: Fault): Promise<void> {
  await inTransaction(async (transaction) => {
    const delivery = await openDelivery(id, transaction);
    if (!delivery) return;
    if (!isPassing(fault) || delivery.attempt >= MOST_ATTEMPTS)
      return end(delivery, fault, new Date(), transaction);
    const retryAt = new Date(Date.now() + pauseAfter(delivery.attempt, config().LIVERY_RETRY_MS));
    await delivery.update({ state: "queued", failure: fault, retryAt }, { transaction });
    await enqueue("deliver", { delivery: id }, transaction, retryAt);
    await announce(delivery.placeId, transaction);
  });
}

async function end(
  delivery: Delivery,
  fault: Fault | null,
  now: Date,
  transaction: Transaction,
): Promise<void> {
  await delivery.update(
    { state: fault ? "failed" : "delivered", failure: fault, retryAt: null, finishedAt: now },
    { transaction },
  );
  const place = await Place.findByPk(delivery.placeId, { transaction });
  const release = await Release.findByPk(delivery.releaseId, { attributes: ["name"], transaction });
  await record(
    {
      person: null,
      action: fault ? "delivery-failed" : "delivery-finished",
      subjectKind: "delivery",
      subjectId: delivery.id,
      detail: {
        place: place?.name,
        release: release?.name,
        ...(fault ? { fault: fault.code } : {}),
      },
    },
    transaction,
  );
  await announce(delivery.placeId, transaction);
}
