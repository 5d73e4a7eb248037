import { existsSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { clusterIn } from "./postgres.ts";
import { homeOf } from "./settings.ts";
import { requirePostgres } from "./system.ts";
import { say, Trouble } from "./trouble.ts";

/** Drops the data that `up` keeps. Throws Trouble while it is in use. */
export async function reset(root: string): Promise<number> {
  const home = homeOf(root);
  if (!existsSync(home)) {
    say("there is no data to drop.");
    return 0;
  }
  const cluster = clusterIn(home, requirePostgres());
  const pidFile = join(cluster.data, "postmaster.pid");
  if (existsSync(pidFile) && existsSync(`/proc/${readFileSync(pidFile, "utf8").split("\n")[0]}`))
    throw new Trouble("Livery is running. Stop ./livery up first.");
  rmSync(cluster.folder, { recursive: true, force: true });
  rmSync(home, { recursive: true, force: true });
  say("all data is dropped; ./livery up starts with a fresh demo.");
  return 0;
}
