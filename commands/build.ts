import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { build as bundle } from "esbuild";
import { say, Trouble } from "./trouble.ts";

const SOURCES = [
  "core",
  "connectors",
  "server",
  "app",
  "standins",
  "package-lock.json",
  "vite.config.ts",
  "react-router.config.ts",
];

/** Programs of their own, beside the web application's server build. */
export const PROGRAMS = {
  prepare: "server/prepare.ts",
  worker: "server/worker.ts",
  web: "app/web.ts",
  standins: "standins/main.ts",
} as const;
export type Program = keyof typeof PROGRAMS;

export const programFile = (root: string, program: Program): string =>
  join(root, "build/programs", `${program}.mjs`);

/** Builds the application and its programs unless the sources are those of the last build. */
export async function buildAll(root: string): Promise<void> {
  const stamp = join(root, "build", "sources.sha256");
  const sources = hashOf(root);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === sources) return;
  say("building …");
  await bundlePrograms(root);
  const { status, stderr } = spawnSync(
    process.execPath,
    [join(root, "node_modules/@react-router/dev/bin.js"), "build"],
    { cwd: root, encoding: "utf8", env: { ...process.env, NODE_ENV: "production" } },
  );
  if (status !== 0) {
    process.stderr.write(stderr);
    throw new Trouble("the application could not be built; the reason is above.");
  }
  mkdirSync(join(root, "build"), { recursive: true });
  writeFileSync(stamp, sources);
}

async function bundlePrograms(root: string): Promise<void> {
  await bundle({
    entryPoints: Object.fromEntries(
      Object.entries(PROGRAMS).map(([name, file]) => [name, join(root, file)]),
    ),
    outdir: join(root, "build/programs"),
    outExtension: { ".js": ".mjs" },
    bundle: true,
    platform: "node",
    target: "node20",
    format: "esm",
    packages: "external",
    logLevel: "error",
  });
}

function hashOf(root: string): string {
  const hash = createHash("sha256");
  const add = (path: string) => {
    if (statSync(path).isDirectory())
      for (const name of readdirSync(path).sort()) add(join(path, name));
    else hash.update(path.slice(root.length)).update("\0").update(readFileSync(path));
  };
  for (const source of SOURCES) add(join(root, source));
  return hash.digest("hex");
}
