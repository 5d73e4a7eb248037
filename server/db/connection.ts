import { Sequelize, type Transaction } from "sequelize";
import { config } from "../config.ts";
import { defineModels } from "./models/index.ts";

/**
 * Connections that one process holds at most. Statements are short and deliveries wait for platforms,
 * not for the database, so that a few serve many; a server takes 100 unless it is told otherwise.
 */
const MOST_CONNECTIONS = 8;

let open: Sequelize | undefined;

/** The process's one connection pool, with every model defined on it. */
export function database(): Sequelize {
  if (open) return open;
  open = new Sequelize(config().DATABASE_URL, {
    dialect: "postgres",
    logging: false,
    pool: { max: MOST_CONNECTIONS, idle: 10_000, acquire: 10_000 },
    define: { underscored: true, timestamps: false },
  });
  defineModels(open);
  return open;
}

/** Runs work in one transaction: all of it lands, or none. */
export function inTransaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
  return database().transaction(work);
}

export async function closeDatabase(): Promise<void> {
  await open?.close();
  open = undefined;
}
