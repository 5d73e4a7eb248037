import { Op, type Transaction } from "sequelize";
import { planWaves } from "#core/estate/waves.ts";
import type { AuditAction } from "../audit/actions.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { Delivery, Place, Rollout } from "../db/models/index.ts";
import type { Gate, RolloutState } from "../db/models/rollout.ts";
import {
  type DeliveryId,
  newId,
  type PersonId,
  type PlaceId,
  type ReleaseId,
  type RolloutId,
} from "../ids.ts";
import { enqueue } from "../jobs/queue.ts";
import { announce } from "../live/changes.ts";

/** States in which a delivery has not ended. */
export const OPEN = ["planned", "queued", "delivering"] as const;

export interface Leg {
  place: PlaceId;
  /** Null: back to the look that the platform has by itself. */
  release: ReleaseId | null;
}

export interface NewRollout {
  name: string;
  legs: Leg[];
  gate: Gate;
  /** Null begins at once. */
  startsAt: Date | null;
}

export type RolloutResult =
  | { ok: true; id: RolloutId }
  | { ok: false; code: "no-places" }
  | { ok: false; code: "under-way"; places: string[] };

/** Plans a rollout in waves; it begins by itself at once, or at its time. */
export const createRollout = (wanted: NewRollout, person: PersonId): Promise<RolloutResult> =>
  inTransaction((transaction) => createRolloutIn(wanted, person, transaction));

/** Plans a rollout as part of a transaction. */
export async function createRolloutIn(
  { name, legs, gate, startsAt }: NewRollout,
  person: PersonId,
  transaction: Transaction,
): Promise<RolloutResult> {
  const places = await Place.findAll({
    where: {
      id: legs.map((leg) => leg.place),
      retiredAt: null,
      connectionId: { [Op.ne]: null },
    },
    order: ["id"],
    lock: transaction.LOCK.UPDATE,
    transaction,
  });
  if (places.length === 0) return { ok: false, code: "no-places" };
  const ids = places.map((place) => place.id);
  const open = await Delivery.findAll({ where: { placeId: ids, state: [...OPEN] }, transaction });
  if (open.length > 0) {
    const busy = new Set(open.map((delivery) => delivery.placeId));
    const named = places.filter((place) => busy.has(place.id)).map((place) => place.name);
    return { ok: false, code: "under-way", places: named };
  }
  const id = newId<RolloutId>();
  const waves = planWaves(places);
  const releases = new Map(legs.map((leg) => [leg.place, leg.release]));
  await Rollout.create(
    {
      id,
      name,
      gate,
      state: startsAt ? "scheduled" : "running",
      waves: waves.length,
      startsAt,
      requestedBy: person,
    },
    { transaction },
  );
  const live = new Map(places.map((place) => [place.id, place.liveReleaseId]));
  await Delivery.bulkCreate(
    waves.flatMap((wave, i) =>
      wave.map((placeId) => ({
        id: newId<DeliveryId>(),
        placeId,
        releaseId: releases.get(placeId) ?? null,
        rolloutId: id,
        wave: i + 1,
        previousReleaseId: live.get(placeId) ?? null,
        state: "planned" as const,
        requestedBy: person,
      })),
    ),
    { transaction },
  );
  await enqueue("advance", { rollout: id }, transaction, { runAt: startsAt ?? undefined });
  await note("rollout-made", id, name, person, transaction, { places: places.length });
  return { ok: true, id };
}

export async function note(
  action: AuditAction,
  id: RolloutId,
  name: string,
  person: PersonId | null,
  transaction: Transaction,
  detail: Record<string, unknown> = {},
): Promise<void> {
  await record(
    { person, action, subjectKind: "rollout", subjectId: id, detail: { name, ...detail } },
    transaction,
  );
  await announce(id, transaction);
}

/** Takes a step by hand: null where the rollout's state doesn't allow it. */
async function byHand(
  id: RolloutId,
  from: readonly RolloutState[],
  work: (rollout: Rollout, transaction: Transaction) => Promise<void>,
): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const rollout = await Rollout.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!rollout || !from.includes(rollout.state)) return false;
    await work(rollout, transaction);
    return true;
  });
}

/** Lets nothing more begin; what is being delivered ends. */
export const pauseRollout = (id: RolloutId, person: PersonId): Promise<boolean> =>
  byHand(id, ["running", "waiting", "scheduled"], async (rollout, transaction) => {
    await rollout.update({ state: "paused" }, { transaction });
    await note("rollout-paused", id, rollout.name, person, transaction);
  });

/** Lets a paused rollout go on, or the next wave of a waiting one begin. */
export const resumeRollout = (id: RolloutId, person: PersonId): Promise<boolean> =>
  byHand(id, ["paused", "waiting"], async (rollout, transaction) => {
    const next = rollout.state === "waiting" ? rollout.wave + 1 : rollout.wave;
    await rollout.update({ state: "running", wave: next }, { transaction });
    await enqueue("advance", { rollout: id }, transaction);
    await note("rollout-resumed", id, rollout.name, person, transaction);
  });

/** Ends a rollout: what was not begun is not delivered, what was delivered stays. */
export const stopRollout = (id: RolloutId, person: PersonId): Promise<boolean> =>
  byHand(id, ["scheduled", "running", "waiting", "paused"], async (rollout, transaction) => {
    const now = new Date();
    await rollout.update({ state: "stopped", finishedAt: now }, { transaction });
    await Delivery.update(
      { state: "stopped", retryAt: null, finishedAt: now },
      { where: { rolloutId: id, state: ["planned", "queued"] }, transaction },
    );
    await note("rollout-stopped", id, rollout.name, person, transaction);
  });

/** Tries places again at which the newest delivery of a rollout failed; one place, or all. */
export async function retryRollout(
  id: RolloutId,
  person: PersonId,
  only: PlaceId | null = null,
): Promise<boolean> {
  return byHand(id, ["running", "waiting", "paused", "done"], async (rollout, transaction) => {
    const failed = (await newestLegs(id, transaction)).filter(
      (leg) => leg.state === "failed" && (only === null || leg.placeId === only),
    );
    if (failed.length === 0) return;
    await Delivery.bulkCreate(
      failed.map(({ placeId, releaseId, wave, previousReleaseId }) => ({
        id: newId<DeliveryId>(),
        placeId,
        releaseId,
        wave,
        previousReleaseId,
        rolloutId: id,
        state: "planned" as const,
        requestedBy: person,
      })),
      { transaction },
    );
    const first = Math.min(...failed.map((leg) => leg.wave));
    if (rollout.state !== "paused")
      await rollout.update(
        { state: "running", wave: Math.max(first, rollout.wave), finishedAt: null },
        { transaction },
      );
    await enqueue("advance", { rollout: id }, transaction);
    await note("rollout-resumed", id, rollout.name, person, transaction, { again: failed.length });
  });
}

/** The newest delivery of each place of a rollout. */
export async function newestLegs(
  id: RolloutId,
  transaction: Transaction | null = null,
): Promise<Delivery[]> {
  const all = await Delivery.findAll({
    where: { rolloutId: id },
    order: [["requestedAt", "ASC"]],
    transaction,
  });
  return [...new Map(all.map((delivery) => [delivery.placeId, delivery])).values()];
}

/**
 * Takes places back to what they had before a rollout, "nothing" included: one place, or every
 * place that it reached. It is a rollout of its own, in one go.
 */
export async function takeBack(
  id: RolloutId,
  person: PersonId,
  only: PlaceId | null = null,
): Promise<RolloutResult> {
  return inTransaction(async (transaction) => {
    const rollout = await Rollout.findByPk(id, { transaction });
    const reached = (await newestLegs(id, transaction)).filter(
      (leg) =>
        (leg.state === "delivered" || leg.state === "failed") &&
        (only === null || leg.placeId === only),
    );
    if (!rollout || reached.length === 0) return { ok: false, code: "no-places" };
    return createRolloutIn(
      {
        name: `Back from ${rollout.name}`.slice(0, 120),
        legs: reached.map((leg) => ({ place: leg.placeId, release: leg.previousReleaseId })),
        gate: "clean",
        startsAt: null,
      },
      person,
      transaction,
    );
  });
}
