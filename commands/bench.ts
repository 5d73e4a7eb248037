import { spawn } from "node:child_process";
import { once } from "node:events";
import { rmSync } from "node:fs";
import { join } from "node:path";
import { buildAll, programFile } from "./build.ts";
import { startAll } from "./processes.ts";
import { freePorts } from "./settings.ts";
import { requireChromium, requirePostgres } from "./system.ts";
import { say, Trouble } from "./trouble.ts";

/** Benches that measure the whole system, with what each needs of it. */
const BENCHES: Record<string, { env: NodeJS.ProcessEnv; chromium: boolean }> = {
  workbench: { env: {}, chromium: true },
  rollout: {
    env: {
      LIVERY_FLEET: "1000",
      LIVERY_DEMO: "quiet",
      LIVERY_RETRY_MS: "250",
      LIVERY_WORKER_JOBS: "16",
    },
    chromium: false,
  },
  stylesheet: { env: {}, chromium: false },
};

/** Runs a bench that measures the whole system, on a system of its own. */
export async function bench(root: string, rest: string[]): Promise<number> {
  const name = rest[0] ?? "";
  const wanted = BENCHES[name];
  if (!wanted) throw new Trouble(`bench takes a name: core, ${Object.keys(BENCHES).join(", ")}.`);
  requirePostgres();
  const chromium = wanted.chromium ? requireChromium() : "";
  await buildAll(root);
  const home = join(root, ".livery", "bench");
  rmSync(home, { recursive: true, force: true });
  const env = { LIVERY_FLEET: process.env.LIVERY_FLEET ?? wanted.env.LIVERY_FLEET };
  const running = await startAll({
    root,
    home,
    ports: await freePorts(),
    durable: false,
    env: { ...wanted.env, ...(env.LIVERY_FLEET ? env : {}) },
    onGivenUp: say,
  });
  try {
    const { build } = await import("esbuild");
    const out = join(root, `build/bench-${name}.mjs`);
    await build({
      entryPoints: [join(root, `bench/${name}.ts`)],
      outfile: out,
      bundle: true,
      platform: "node",
      format: "esm",
      packages: "external",
      logLevel: "error",
    });
    // Not waited for in one go: what runs beside it must be started again where it ends.
    const measuring = spawn(process.execPath, [out], {
      cwd: root,
      stdio: ["ignore", "inherit", "inherit"],
      env: {
        ...process.env,
        ...wanted.env,
        LIVERY_ADDRESS: running.address,
        LIVERY_ORIGIN: running.address,
        LIVERY_CHROMIUM: chromium,
        LIVERY_STANDINS: running.standins,
        LIVERY_WORKER: programFile(root, "worker"),
        DATABASE_URL: running.database,
        LIVERY_SECRET_KEY: running.secrets.secretKey,
      },
    });
    const [status] = (await once(measuring, "exit")) as [number | null];
    return status ?? 1;
  } finally {
    await running.stop();
  }
}
