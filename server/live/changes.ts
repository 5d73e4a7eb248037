import { Client } from "pg";
import { QueryTypes, type Transaction } from "sequelize";
import { config } from "../config.ts";
import { database } from "../db/connection.ts";
import type { PlaceId, RolloutId } from "../ids.ts";

export const CHANNEL = "livery_changes";

/** Tells every web process that something at a place or a rollout changed, once the transaction lands. */
export async function announce(
  subject: PlaceId | RolloutId,
  transaction: Transaction,
): Promise<void> {
  await database().query("SELECT pg_notify($1, $2)", {
    bind: [CHANNEL, subject],
    type: QueryTypes.SELECT,
    transaction,
  });
}

type Listener = (subject: string) => void;
const listeners = new Set<Listener>();
let client: Client | undefined;

/** Hears of changes until the returned function is called. One database connection serves all. */
export function onChange(listener: Listener): () => void {
  listeners.add(listener);
  if (!client) void connect();
  return () => listeners.delete(listener);
}

const RECONNECT_MS = 1000;

async function connect(): Promise<void> {
  const fresh = new Client({ connectionString: config().DATABASE_URL });
  client = fresh;
  const again = () => {
    if (client !== fresh) return;
    client = undefined;
    setTimeout(
      () => client === undefined && listeners.size > 0 && void connect(),
      RECONNECT_MS,
    ).unref();
  };
  fresh.on("error", again);
  fresh.on("end", again);
  fresh.on("notification", (message) => {
    for (const listener of listeners) listener(message.payload ?? "");
  });
  try {
    await fresh.connect();
    await fresh.query(`LISTEN ${CHANNEL}`);
  } catch {
    again();
  }
}
