import { QueryTypes, type Transaction } from "sequelize";
import { database, inTransaction } from "../db/connection.ts";
import { Delivery, Rollout } from "../db/models/index.ts";
import type { RolloutId } from "../ids.ts";
import { announce } from "../live/changes.ts";
import { newestLegs, note, OPEN } from "./rollouts.ts";

/**
 * Sees where a rollout stands and takes the next step: begins its first wave, waits while a wave is
 * under way, begins the next or waits for a person, ends. It may run at any moment and twice.
 */
export async function advance(id: RolloutId): Promise<void> {
  await inTransaction(async (transaction) => {
    const rollout = await Rollout.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!rollout) return;
    if (rollout.state === "scheduled") {
      if (rollout.startsAt && rollout.startsAt.getTime() > Date.now()) return;
      await rollout.update({ state: "running" }, { transaction });
    }
    if (rollout.state !== "running") return;
    if (rollout.wave === 0) await rollout.update({ wave: 1 }, { transaction });
    await begin(rollout, transaction);
    if (await isOpen(rollout, transaction)) return;
    await afterWave(rollout, transaction);
  });
}

/** Queues what is planned in the waves that have begun. */
async function begin(rollout: Rollout, transaction: Transaction): Promise<void> {
  await database().query(
    `WITH begun AS (
       UPDATE deliveries SET state = 'queued'
       WHERE rollout_id = $1 AND wave <= $2 AND state = 'planned' RETURNING id
     )
     SELECT count(*) FROM graphile_worker.add_jobs((
       SELECT coalesce(array_agg(json_populate_record(
         NULL::graphile_worker.job_spec,
         json_build_object('identifier', 'deliver', 'payload', json_build_object('delivery', id))
       )), '{}') FROM begun))`,
    { bind: [rollout.id, rollout.wave], type: QueryTypes.SELECT, transaction },
  );
}

const isOpen = async (rollout: Rollout, transaction: Transaction): Promise<boolean> =>
  (await Delivery.findOne({
    where: { rolloutId: rollout.id, state: [...OPEN], wave: upTo(rollout.wave) },
    attributes: ["id"],
    transaction,
  })) !== null;

const upTo = (wave: number): number[] => Array.from({ length: wave }, (_, i) => i + 1);

async function afterWave(rollout: Rollout, transaction: Transaction): Promise<void> {
  if (rollout.wave >= rollout.waves) {
    await rollout.update({ state: "done", finishedAt: new Date() }, { transaction });
    await note("rollout-finished", rollout.id, rollout.name, null, transaction);
    return;
  }
  const wave = (await newestLegs(rollout.id, transaction)).filter((d) => d.wave === rollout.wave);
  const clean = wave.every((delivery) => delivery.state === "delivered");
  if (rollout.gate === "clean" && clean) {
    await rollout.update({ wave: rollout.wave + 1 }, { transaction });
    await begin(rollout, transaction);
  } else await rollout.update({ state: "waiting" }, { transaction });
  await announce(rollout.id, transaction);
}
