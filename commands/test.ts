import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { buildAll } from "./build.ts";
import { databaseUrl } from "./postgres.ts";
import { startAll, startDatabase } from "./processes.ts";
import { freePorts } from "./settings.ts";
import { requireChromium, requirePostgres } from "./system.ts";
import { say, Trouble } from "./trouble.ts";

interface Count {
  passed: number;
  failed: number;
}

type Part = (root: string) => Count | Promise<Count>;

const PARTS: Record<string, Part[]> = {
  static: [types, lint],
  unit: [unit],
  integration: [integration],
  browser: [browser],
};

/** Runs the checks and prints one closing line that adds them up. */
export async function test(root: string, rest: string[]): Promise<number> {
  const only = readOnly(rest);
  requirePostgres();
  requireChromium();
  await buildAll(root);
  const total: Count = { passed: 0, failed: 0 };
  for (const [name, parts] of Object.entries(PARTS)) {
    if (only !== undefined && only !== name) continue;
    for (const part of parts) {
      const { passed, failed } = await part(root);
      total.passed += passed;
      total.failed += failed;
    }
  }
  console.log(`${total.passed} passed, ${total.failed} failed`);
  return total.failed === 0 && total.passed > 0 ? 0 : 1;
}

function readOnly(rest: string[]): string | undefined {
  try {
    const { only } = parseArgs({ args: rest, options: { only: { type: "string" } } }).values;
    if (only === undefined || ["unit", "integration", "browser"].includes(only)) return only;
    throw new Trouble(`--only takes unit, integration or browser, not "${only}".`);
  } catch (error) {
    throw error instanceof Trouble
      ? error
      : new Trouble(`${(error as Error).message} See ./livery help.`);
  }
}

/** Runs a package's program; what it prints goes to standard error, so that the closing line stays last. */
function program(root: string, file: string, args: string[], env: NodeJS.ProcessEnv = {}): boolean {
  const { status } = spawnSync(process.execPath, [join(root, "node_modules", file), ...args], {
    cwd: root,
    stdio: ["ignore", 2, 2],
    env: { ...process.env, ...env },
  });
  return status === 0;
}

const one = (passed: boolean): Count => ({ passed: passed ? 1 : 0, failed: passed ? 0 : 1 });
const sum = (counts: Count[]): Count => ({
  passed: counts.reduce((n, c) => n + c.passed, 0),
  failed: counts.reduce((n, c) => n + c.failed, 0),
});

function types(root: string): Count {
  say("types …");
  program(root, "@react-router/dev/bin.js", ["typegen"]);
  return sum(
    [".", "core", "standins"].map((project) =>
      one(program(root, "typescript/bin/tsc", ["-p", project])),
    ),
  );
}

function lint(root: string): Count {
  say("lint …");
  return one(program(root, "@biomejs/biome/bin/biome", ["check", "--error-on-warnings"]));
}

function jest(root: string, project: string, env: NodeJS.ProcessEnv = {}): Count {
  say(`${project} tests …`);
  const report = join(root, "build", `${project}.json`);
  rmSync(report, { force: true });
  mkdirSync(join(root, "build"), { recursive: true });
  const args = [
    "--selectProjects",
    project,
    ...(process.env.LIVERY_TESTS ? [`--testPathPatterns=${process.env.LIVERY_TESTS}`] : []),
    "--testTimeout=60000",
    "--json",
    `--outputFile=${report}`,
  ];
  program(root, "jest/bin/jest.js", project === "integration" ? [...args, "--runInBand"] : args, {
    ...env,
    NODE_OPTIONS: "--experimental-vm-modules --no-warnings",
  });
  return readReport(report, (json: JestReport) => ({
    passed: json.numPassedTests,
    failed: json.numFailedTests + json.numRuntimeErrorTestSuites,
  }));
}

interface JestReport {
  numPassedTests: number;
  numFailedTests: number;
  numRuntimeErrorTestSuites: number;
}

/** Counts from a runner's report; a runner that left none has failed. */
function readReport<T>(file: string, count: (json: T) => Count): Count {
  try {
    return count(JSON.parse(readFileSync(file, "utf8")) as T);
  } catch {
    return { passed: 0, failed: 1 };
  }
}

function unit(root: string): Count {
  return jest(root, "unit");
}

/** Runs against a real PostgreSQL of its own, made afresh. */
async function integration(root: string): Promise<Count> {
  const home = join(root, ".livery", "integration");
  rmSync(join(home, "postgres"), { recursive: true, force: true });
  const ports = await freePorts();
  const { child, secrets } = await startDatabase({
    root,
    home,
    ports,
    durable: false,
    onGivenUp: say,
  });
  try {
    return jest(root, "integration", {
      DATABASE_URL: databaseUrl(ports.postgres, secrets.databasePassword),
      LIVERY_SECRET_KEY: secrets.secretKey,
      LIVERY_RETRY_MS: "50",
      LIVERY_STYLESHEET_SECONDS: "1",
      STANDINS_PORT: String(ports.standins),
      PORT: String(ports.web),
      LIVERY_ORIGIN: `http://127.0.0.1:${ports.web}`,
      STANDINS_STYLESHEETS: `http://127.0.0.1:${ports.web}`,
      LIVERY_TEST_HOME: home,
      LIVERY_TEST_POSTGRES: requirePostgres(),
    });
  } finally {
    await child.stop();
  }
}

interface PlaywrightReport {
  stats: { expected: number; unexpected: number; flaky: number };
  errors: unknown[];
}

/** Drives the real interface of a whole system of its own, made afresh. */
async function browser(root: string): Promise<Count> {
  const home = join(root, ".livery", "browser");
  rmSync(home, { recursive: true, force: true });
  const running = await startAll({
    root,
    home,
    ports: await freePorts(),
    durable: false,
    env: { LIVERY_RETRY_MS: "200", LIVERY_SIGN_IN_ATTEMPTS: "5" },
    onGivenUp: say,
  });
  try {
    say("browser tests …");
    const report = join(root, "build", "browser.json");
    rmSync(report, { force: true });
    program(root, "@playwright/test/cli.js", ["test"], {
      LIVERY_ADDRESS: running.address,
      LIVERY_STANDINS: running.standins,
      LIVERY_CHROMIUM: requireChromium(),
      PLAYWRIGHT_JSON_OUTPUT_NAME: report,
    });
    return readReport(report, (json: PlaywrightReport) => ({
      passed: json.stats.expected,
      failed: json.stats.unexpected + json.stats.flaky + json.errors.length,
    }));
  } finally {
    await running.stop();
  }
}
