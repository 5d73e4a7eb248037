import { QueryTypes, type Transaction } from "sequelize";
import { database } from "../db/connection.ts";
import type { DeliveryId } from "../ids.ts";

/** Every kind of job, with what it is told. */
export interface Jobs {
  deliver: { delivery: DeliveryId };
}

/** Puts a job on the queue as part of a transaction: it runs if, and only if, that lands. */
export async function enqueue<Name extends keyof Jobs>(
  name: Name,
  payload: Jobs[Name],
  transaction: Transaction,
  runAt?: Date,
): Promise<void> {
  await database().query("SELECT graphile_worker.add_job($1, $2::json, run_at => $3)", {
    bind: [name, JSON.stringify(payload), runAt?.toISOString() ?? null],
    type: QueryTypes.SELECT,
    transaction,
  });
}
