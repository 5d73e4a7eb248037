import { spawnSync } from "node:child_process";
import { rmSync } from "node:fs";
import { join } from "node:path";
import { buildAll } from "./build.ts";
import { startAll } from "./processes.ts";
import { freePorts } from "./settings.ts";
import { requireChromium, requirePostgres } from "./system.ts";
import { say, Trouble } from "./trouble.ts";

/** Runs a bench that measures the whole system, on a system of its own. */
export async function bench(root: string, rest: string[]): Promise<number> {
  if (rest[0] !== "workbench") throw new Trouble("bench takes a name: core or workbench.");
  requirePostgres();
  const chromium = requireChromium();
  await buildAll(root);
  const home = join(root, ".livery", "bench");
  rmSync(home, { recursive: true, force: true });
  const running = await startAll({
    root,
    home,
    ports: await freePorts(),
    durable: false,
    onGivenUp: say,
  });
  try {
    const { build } = await import("esbuild");
    const out = join(root, "build/bench-workbench.mjs");
    await build({
      entryPoints: [join(root, "bench/workbench.ts")],
      outfile: out,
      bundle: true,
      platform: "node",
      format: "esm",
      packages: "external",
      logLevel: "error",
    });
    const { status } = spawnSync(process.execPath, [out], {
      cwd: root,
      stdio: ["ignore", "inherit", "inherit"],
      env: { ...process.env, LIVERY_ADDRESS: running.address, LIVERY_CHROMIUM: chromium },
    });
    return status ?? 1;
  } finally {
    await running.stop();
  }
}
