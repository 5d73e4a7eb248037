// The part of the command that runs before anything is installed, hence plain JavaScript. It
// installs the npm packages, bundles the rest of the command, and hands over to it.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const OLDEST_NODE = [20, 19];

const HELP = `usage: ./livery COMMAND

  up      installs what is missing, builds, and runs Livery with its demo
            --port N           web server (default 4600)
            --standins-port N  simulated platforms (default 4610)
            --fleet N          N more places for load, over all five platforms
            --postgres-port N  database (default 4620)
  theme COLOUR  prints a theme: --format tokens|css|scss|json|yaml|toml|palette|report|earl,
            --accent COLOUR, --neutral-tint 0-100, --level AA|AAA
            --batch FILE  one colour a line in, one line of JSON a theme out
  bench   measures: core, workbench, rollout, stylesheet
  test    runs every check: types, lint, unit, integration, build, browser
            --only unit|integration|browser
  reset   drops the data that \`up\` keeps
  help    prints this
`;

/** @param {string} message @returns {never} */
function giveUp(message) {
  console.error(`livery: ${message}`);
  process.exit(1);
}

function requireNode() {
  const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
  const [oldMajor = 0, oldMinor = 0] = OLDEST_NODE;
  if (major < oldMajor || (major === oldMajor && minor < oldMinor))
    giveUp(
      `Node.js ${process.versions.node} is too old. Install ${OLDEST_NODE.join(".")} or newer.`,
    );
}

/** Installs the packages of the lock file, unless just these are installed already. */
function installPackages() {
  const lock = createHash("sha256")
    .update(readFileSync(join(ROOT, "package-lock.json")))
    .digest("hex");
  const stamp = join(ROOT, "node_modules", ".livery-lock");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.error("livery: installing npm packages …");
  const { status, error } = spawnSync(
    "npm",
    ["ci", "--ignore-scripts", "--no-audit", "--no-fund", "--loglevel=error"],
    {
      cwd: ROOT,
      stdio: ["ignore", 2, 2],
    },
  );
  if (error) giveUp("npm is missing. Install it with Node.js, then run this again.");
  if (status !== 0) giveUp("npm could not install the packages; its own message is above.");
  writeFileSync(stamp, lock);
}

async function bundleCommands() {
  const { build } = await import("esbuild");
  await build({
    entryPoints: [join(ROOT, "commands/run.ts"), join(ROOT, "commands/keeper.ts")],
    outdir: join(ROOT, "build/commands"),
    outExtension: { ".js": ".mjs" },
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    logLevel: "error",
  });
}

/** @param {string} path @returns {number} the newest change below a path, in milliseconds */
function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/**
 * Bundles a program of plain computation, unless its bundle is newer than its sources, so that it
 * starts without looking for packages.
 * @param {string} entry @param {string} folder
 */
async function bundleProgram(entry, folder) {
  const out = join(ROOT, "build", folder, "main.mjs");
  const sources = ["core", dirname(entry), "package-lock.json", "commands/main.mjs"];
  const changed = Math.max(...sources.map((source) => newest(join(ROOT, source))));
  if (existsSync(out) && statSync(out).mtimeMs > changed) return out;
  const { build } = await import("esbuild");
  await build({
    entryPoints: { main: join(ROOT, entry) },
    outdir: join(ROOT, "build", folder),
    outExtension: { ".js": ".mjs" },
    bundle: true,
    splitting: true,
    minify: true,
    external: ["yaml"],
    platform: "node",
    format: "esm",
    logLevel: "error",
  });
  return out;
}

/** @param {string} entry @param {string} folder @param {string[]} args */
async function runProgram(entry, folder, args) {
  installPackages();
  const file = await bundleProgram(entry, folder);
  process.argv = [process.execPath, file, ...args];
  await import(pathToFileURL(file).href);
}

const [name = "help", ...rest] = process.argv.slice(2);
requireNode();
if (["help", "--help", "-h"].includes(name)) {
  process.stdout.write(HELP);
} else if (name === "theme") {
  await runProgram("commands/theme/theme.ts", "theme", rest);
} else if (name === "bench" && rest[0] === "core") {
  await runProgram("bench/core.ts", "bench-core", rest.slice(1));
} else if (!["up", "test", "reset", "bench"].includes(name)) {
  process.stderr.write(HELP);
  giveUp(`there is no command "${name}".`);
} else {
  installPackages();
  await bundleCommands();
  const { run } = await import(pathToFileURL(join(ROOT, "build/commands/run.mjs")).href);
  await run(ROOT, name, rest);
}
