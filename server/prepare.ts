import { closeDatabase } from "./db/connection.ts";
import { migrate } from "./db/migrate.ts";
import { seedFleet } from "./demo/fleet.ts";
import { seedDemo } from "./demo/seed.ts";
import { runUntilStopped } from "./process.ts";

/** Brings the database up to date and, given the stand-ins' address, seeds the demo once. */
runUntilStopped(async () => {
  await migrate();
  const standins = process.env.LIVERY_STANDINS_ADDRESS;
  if (standins) await seedDemo({ standins, live: process.env.LIVERY_DEMO !== "quiet" });
  const fleet = Number(process.env.LIVERY_FLEET ?? 0);
  if (standins && fleet > 0) await seedFleet(fleet);
  await closeDatabase();
  return async () => undefined;
});
