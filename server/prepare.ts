import { closeDatabase } from "./db/connection.ts";
import { migrate } from "./db/migrate.ts";
import { seedDemo } from "./demo/seed.ts";
import { runUntilStopped } from "./process.ts";

/** Brings the database up to date and, given the stand-ins' address, seeds the demo once. */
runUntilStopped(async () => {
  await migrate();
  const commons = process.env.LIVERY_STANDINS_ADDRESS;
  if (commons) await seedDemo({ commons });
  await closeDatabase();
  return async () => undefined;
});
