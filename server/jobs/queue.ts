import { QueryTypes, type Transaction } from "sequelize";
import { database } from "../db/connection.ts";
import type { DeliveryId, PlaceId, RolloutId } from "../ids.ts";

/** Every kind of job, with what it is told. */
export interface Jobs {
  deliver: { delivery: DeliveryId };
  /** Sees whether a rollout's wave has ended, and what follows. */
  advance: { rollout: RolloutId };
  /** Looks whether a place still holds what its receipt says. */
  check: { place: PlaceId };
  /** What is due by the clock. */
  tick: Record<string, never>;
}

interface Options {
  runAt?: Date | undefined;
  /**
   * Another job with this key that has not begun yet is replaced. One that begins at this very moment
   * may swallow the new one (graphile-worker 0.17, add_jobs), so it is only for what comes round again.
   */
  key?: string;
}

/** Puts a job on the queue as part of a transaction: it runs if, and only if, that lands. */
export async function enqueue<Name extends keyof Jobs>(
  name: Name,
  payload: Jobs[Name],
  transaction: Transaction,
  { runAt, key }: Options = {},
): Promise<void> {
  await database().query(
    "SELECT graphile_worker.add_job($1, $2::json, run_at => $3, job_key => $4)",
    {
      bind: [name, JSON.stringify(payload), runAt?.toISOString() ?? null, key ?? null],
      type: QueryTypes.SELECT,
      transaction,
    },
  );
}
