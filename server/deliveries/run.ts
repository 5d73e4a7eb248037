import type { Transaction } from "sequelize";
import {
  DeliveryFault,
  type Fault,
  isPassing,
  type SlotValues,
  waitOf,
} from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { MOST_ATTEMPTS, pauseAfter, spreadWait } from "#core/estate/attempts.ts";
import { record } from "../audit/audit.ts";
import { config } from "../config.ts";
import { inTransaction } from "../db/connection.ts";
import { Delivery, Place, Receipt, Release, Rollout } from "../db/models/index.ts";
import { type PlaceTarget, targetOf } from "../estate/target.ts";
import { type DeliveryId, newId, type ReceiptId } from "../ids.ts";
import { advanceKey, enqueue } from "../jobs/queue.ts";
import { announce } from "../live/changes.ts";
import { markRefused } from "../platforms/connections.ts";
import { parcelOf } from "./parcel.ts";
import { differingSlots, digest } from "./slots.ts";

/**
 * The job of one delivery: deliver, read back, write the receipt. It may be killed at any point and
 * run again, since delivering twice has the effect of once and the receipt is written together
 * with the delivery's end. Faults end in the delivery's row; anything else is thrown for the queue.
 */
export async function runDelivery(id: DeliveryId): Promise<void> {
  const started = await start(id);
  if (!started) return;
  let target: PlaceTarget | null = null;
  try {
    target = await targetOf(started.placeId);
    if (!target) throw new DeliveryFault({ code: "no-such-place", key: started.placeId });
    const { account } = target.link;
    if (target.refused) throw new DeliveryFault({ code: "wrong-credential", account });
    const { sent, found } = await carry(started, target);
    await finish(id, sent, found);
  } catch (error) {
    if (!(error instanceof DeliveryFault)) throw error;
    if (target && error.fault.code === "wrong-credential") await markRefused(target.connection);
    await fail(id, error.fault);
  }
}

async function carry(
  { placeId, releaseId }: Delivery,
  target: PlaceTarget,
): Promise<{ sent: SlotValues; found: SlotValues }> {
  const connector = CONNECTORS[target.platform];
  const parcel = releaseId && (await parcelOf(releaseId, target.platform));
  await connector.deliver(target, parcel);
  await inTransaction(async (transaction) => {
    await Place.update({ hostedReleaseId: releaseId }, { where: { id: placeId }, transaction });
    await announce(placeId, transaction);
  });
  const found = await connector.readBack(target, parcel);
  return { sent: connector.expected(parcel, target), found };
}

/** Begins a delivery; null where it has ended, or where its rollout was paused or stopped meanwhile. */
async function start(id: DeliveryId): Promise<Delivery | null> {
  return inTransaction(async (transaction) => {
    const delivery = await openDelivery(id, transaction);
    if (!delivery || delivery.state === "planned") return null;
    const rollout =
      delivery.rolloutId && (await Rollout.findByPk(delivery.rolloutId, { transaction }));
    if (rollout && (rollout.state === "paused" || rollout.state === "stopped")) {
      const stopped = rollout.state === "stopped";
      await delivery.update(
        stopped
          ? { state: "stopped", retryAt: null, finishedAt: new Date() }
          : { state: "planned", retryAt: null },
        { transaction },
      );
      return null;
    }
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
    const receipt = newId<ReceiptId>();
    await Receipt.create(
      {
        id: receipt,
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
    const isTrue = differing.length === 0;
    const live = isTrue ? delivery.releaseId : null;
    await Place.update(
      {
        liveReleaseId: live,
        liveReceiptId: live ? receipt : null,
        checkedAt: now,
        drift: null,
      },
      { where: { id: delivery.placeId }, transaction },
    );
    await end(
      delivery,
      isTrue ? null : { code: "read-back-differs", slots: differing },
      now,
      transaction,
    );
  });
}

async function fail(id: DeliveryId, fault: Fault): Promise<void> {
  await inTransaction(async (transaction) => {
    const delivery = await openDelivery(id, transaction);
    if (!delivery) return;
    const asked = waitOf(fault);
    const failures = delivery.failures + (asked === null ? 1 : 0);
    if (!isPassing(fault) || failures >= MOST_ATTEMPTS) {
      await delivery.update({ failures }, { transaction });
      return end(delivery, fault, new Date(), transaction);
    }
    const pause =
      asked === null
        ? pauseAfter(failures, config().LIVERY_RETRY_MS)
        : spreadWait(asked, delivery.attempt, Math.random());
    const retryAt = new Date(Date.now() + pause);
    await delivery.update({ state: "queued", failure: fault, failures, retryAt }, { transaction });
    await enqueue("deliver", { delivery: id }, transaction, { runAt: retryAt });
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
  const { rolloutId } = delivery;
  if (rolloutId)
    await enqueue("advance", { rollout: rolloutId }, transaction, { key: advanceKey(rolloutId) });
  const place = await Place.findByPk(delivery.placeId, { attributes: ["name"], transaction });
  const release =
    delivery.releaseId &&
    (await Release.findByPk(delivery.releaseId, { attributes: ["name"], transaction }));
  await record(
    {
      person: null,
      action: fault ? "delivery-failed" : "delivery-finished",
      subjectKind: "delivery",
      subjectId: delivery.id,
      detail: {
        place: place?.name,
        release: release ? release.name : null,
        ...(fault ? { fault: fault.code } : {}),
      },
    },
    transaction,
  );
  await announce(delivery.placeId, transaction);
}
