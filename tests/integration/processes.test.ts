import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { until } from "./system.ts";

const ROOT = join(import.meta.dirname, "../..");
let home: string;
beforeEach(() => {
  home = mkdtempSync(join(tmpdir(), "livery-home-"));
});
afterEach(() => {
  const env = { ...process.env, NODE_OPTIONS: "", LIVERY_HOME: home };
  spawnSync(join(ROOT, "livery"), ["reset"], { env });
});

/** Processes whose environment or arguments name this test's home folder. */
function left(): string[] {
  return readdirSync("/proc")
    .filter((pid) => /^\d+$/.test(pid) && Number(pid) !== process.pid)
    .filter((pid) => {
      const read = (file: string) => {
        try {
          return readFileSync(`/proc/${pid}/${file}`, "utf8");
        } catch {
          return "";
        }
      };
      return read("environ").includes(home) || read("cmdline").includes(home);
    });
}

interface Up {
  process: ChildProcess;
  output(): string;
}

function up(...args: string[]): Up {
  const child = spawn(join(ROOT, "livery"), ["up", ...args], {
    env: { ...process.env, NODE_OPTIONS: "", LIVERY_HOME: home },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let text = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (chunk: Buffer) => {
      text += chunk.toString();
    });
  return { process: child, output: () => text };
}

const PORTS = ["--port", "4731", "--standins-port", "4732", "--postgres-port", "4733"];

test("data is kept from one run to the next until it is reset", async () => {
  const run = async () => {
    const running = up(...PORTS);
    await until(async () => running.output().includes("Livery is ready"));
    running.process.kill("SIGINT");
    await new Promise((resolve) => running.process.once("exit", resolve));
    return readFileSync(join(home, "secrets.json"), "utf8");
  };
  expect(await run()).toBe(await run());
  const env = { ...process.env, NODE_OPTIONS: "", LIVERY_HOME: home };
  expect(spawnSync(join(ROOT, "livery"), ["reset"], { env }).status).toBe(0);
  expect(existsSync(home)).toBe(false);
});

test.each(["SIGINT", "SIGKILL"] as const)("%s of up leaves no process behind", async (signal) => {
  const running = up(...PORTS);
  await until(async () => running.output().includes("Livery is ready"));
  expect(left().length).toBeGreaterThan(4);
  running.process.kill(signal);
  await until(async () => left().length === 0);
});

test("a taken port is one clear line that says what to do", async () => {
  const holder = createServer().listen(4731, "127.0.0.1");
  const running = up(...PORTS);
  await new Promise((resolve) => running.process.once("exit", resolve));
  holder.close();
  expect(running.process.exitCode).toBe(1);
  expect(running.output()).toBe(
    "livery: port 4731 is taken. Stop the program that holds it, or choose another with --port N.\n",
  );
});

test("broken data is one clear line that says what to do", async () => {
  const { mkdirSync, writeFileSync } = await import("node:fs");
  mkdirSync(home, { recursive: true });
  writeFileSync(join(home, "secrets.json"), "{ not json");
  const running = up(...PORTS);
  await new Promise((resolve) => running.process.once("exit", resolve));
  expect(running.output()).toContain("./livery reset starts afresh");
  expect(running.output().trim().split("\n")).toHaveLength(1);
});
