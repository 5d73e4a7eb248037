import { runMigrations } from "graphile-worker";
import { SequelizeStorage, Umzug } from "umzug";
import { config } from "../config.ts";
import { database, inTransaction } from "./connection.ts";
import { MIGRATIONS } from "./migrations/index.ts";

/** Brings the database to the current structure: ours, then the job queue's own. */
export async function migrate(): Promise<void> {
  const sequelize = database();
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: () =>
        inTransaction(async (transaction) => {
          await sequelize.query(up, { transaction });
        }),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
  await umzug.up();
  await runMigrations({ connectionString: config().DATABASE_URL });
}
