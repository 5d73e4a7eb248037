import { type ChildProcess, fork } from "node:child_process";
import { Logger, makeWorkerUtils, run } from "graphile-worker";
import type { Platform } from "#connectors/connector.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { closeDatabase, database } from "#server/db/connection.ts";
import { Person, Place, Receipt, Rollout } from "#server/db/models/index.ts";
import { requestDelivery } from "#server/deliveries/deliveries.ts";
import { checkPlace } from "#server/deliveries/drift.ts";
import type { PersonId, PlaceId, ReleaseId, RolloutId } from "#server/ids.ts";
import { makeRelease } from "#server/releases/releases.ts";
import { createRollout, newestLegs, resumeRollout } from "#server/rollouts/rollouts.ts";
import { createTheme } from "#server/themes/themes.ts";

/**
 * Delivers to a fleet over five platforms with latency, lost answers, refusals and throttling on
 * one, while a worker is killed every few seconds. The bound is what latency and throttling allow:
 * the calls that deliveries need without any fault, as counted in the same run.
 */
const STANDINS = process.env.LIVERY_STANDINS ?? "";
const LATENCY_MS = 50;
const THROTTLED: Platform = "sluice";
const PER_SECOND = 40;
const WORKERS = 3;
const JOBS = Number(process.env.LIVERY_WORKER_JOBS);
const KILL_EVERY_MS = 4000;
const PLATFORMS: Platform[] = ["commons", "sluice", "gangway", "bollard", "tidemark"];

const line = (name: string, value: string) => console.log(`${name.padEnd(54)} ${value}`);
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const faults = (platform: Platform, settings: object) =>
  fetch(`${STANDINS}/${platform}/faults`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(settings),
  });
const callsOf = async (platform: Platform) =>
  ((await (await fetch(`${STANDINS}/${platform}/faults`)).json()) as { calls: number }).calls;

database();
const person = (await Person.findOne({ where: { email: "ines@orrinsound.example" } }))
  ?.id as PersonId;

async function release(name: string): Promise<ReleaseId> {
  const theme = await createTheme(name, fromPrimary("#0b5e55"), person);
  if (!theme.ok) throw new Error(theme.code);
  const made = await makeRelease(theme.id, 1, { name, note: "bench" }, person);
  if (!made.ok) throw new Error(made.code);
  return made.id;
}

const places = (await Place.findAll({ where: { kind: "application" }, order: ["slug"] })).filter(
  (place) => place.slug.startsWith("fleet-"),
);
const on = (platform: Platform) => places.filter((place) => place.platform === platform);

// What one delivery costs without faults: the second one on each platform, when palettes are there.
const trial = await release("Trial");
const cost = new Map<Platform, number>();
for (const platform of PLATFORMS) {
  for (const place of on(platform).slice(0, 2)) {
    const before = await callsOf(platform);
    await requestDelivery(place.id, trial, person);
    while (!(await Place.findByPk(place.id))?.liveReleaseId) await sleep(100);
    cost.set(platform, (await callsOf(platform)) - before);
  }
}

const bare = await bareQueue(places.length);
for (const platform of PLATFORMS)
  await faults(platform, {
    latencyMs: LATENCY_MS,
    loseShare: 0.02,
    refuseShare: 0.02,
    throttlePerSecond: platform === THROTTLED ? PER_SECOND : 0,
  });
const wanted = await release("Fleet");
const extra = Array.from({ length: WORKERS - 1 }, () => keepWorker());
await Promise.all(extra.map((worker) => worker.ready));
const start = performance.now();
const made = await createRollout(
  {
    name: "Fleet",
    legs: places.map((place) => ({ place: place.id, release: wanted })),
    gate: "clean",
    startsAt: null,
  },
  person,
);
const { id } = made as { id: RolloutId };
let kills = 0;
const killing = setInterval(() => extra[kills++ % extra.length]?.kill(), KILL_EVERY_MS);
for (;;) {
  const found = await Rollout.findByPk(id);
  if (found?.state === "done") break;
  if (found?.state === "waiting") await resumeRollout(id, person);
  await sleep(100);
}
const seconds = (performance.now() - start) / 1000;
clearInterval(killing);
for (const worker of extra) worker.end();
for (const platform of PLATFORMS) await faults(platform, {});

const legs = await newestLegs(id);
const delivered = legs.filter((leg) => leg.state === "delivered");
const failed = legs.filter((leg) => leg.state === "failed");
const receipts = new Map((await Receipt.findAll()).map((r) => [r.deliveryId, r]));
const untrue = delivered.filter((leg) => {
  const receipt = receipts.get(leg.id);
  return !receipt || receipt.sentSha256 !== receipt.foundSha256;
});
const unsaid = failed.filter((leg) => leg.failure === null);
let drifted = 0;
for (const leg of delivered.filter((_, i) => i % 10 === 0)) {
  const looked = await checkPlace(leg.placeId as PlaceId);
  if (!looked.ok || looked.drift.length > 0) drifted++;
}
const throttledBound = ((cost.get(THROTTLED) ?? 0) * on(THROTTLED).length) / PER_SECOND;
const calls = PLATFORMS.reduce((n, p) => n + (cost.get(p) ?? 0) * on(p).length, 0);
const latencyBound = (calls * LATENCY_MS) / 1000 / (WORKERS * JOBS);
const bound = Math.max(throttledBound, latencyBound);

line("places", `${places.length}, over ${PLATFORMS.length} platforms`);
line(
  "calls of one delivery without faults",
  PLATFORMS.map((p) => `${p} ${cost.get(p)}`).join(", "),
);
line("ended with a true receipt", `${delivered.length - untrue.length}`);
line("ended with a stated reason", `${failed.length - unsaid.length}`);
line(
  "neither, or forgotten",
  `${places.length - delivered.length - failed.length + untrue.length + unsaid.length}`,
);
line("looked at again, every tenth: drifted", String(drifted));
line("workers killed", `${kills} times`);
line("time", `${seconds.toFixed(1)} s`);
line(
  "bound by latency, by throttling",
  `${latencyBound.toFixed(1)} s, ${throttledBound.toFixed(1)} s`,
);
line("time over bound", (seconds / bound).toFixed(2));
line("deliveries a second", (legs.length / seconds).toFixed(1));
line("baseline: bare queue, jobs a second", bare.toFixed(0));
await closeDatabase();

/** A worker that is started again when it is killed, as `up` does. */
function keepWorker(): { ready: Promise<void>; kill(): void; end(): void } {
  let child: ChildProcess | undefined;
  let ended = false;
  const begin = () => {
    child = fork(process.env.LIVERY_WORKER ?? "", {
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    });
    child.once("exit", () => {
      if (!ended) setTimeout(begin, 500);
    });
  };
  begin();
  const ready = new Promise<void>((resolve) => child?.once("message", () => resolve()));
  return {
    ready,
    kill: () => void child?.kill("SIGKILL"),
    end: () => {
      ended = true;
      child?.kill("SIGTERM");
    },
  };
}

/**
 * Jobs a second of the queue alone, with jobs that do nothing, in a database of its own: workers of
 * one database tell each other when its tables are made, and end.
 */
async function bareQueue(jobs: number): Promise<number> {
  await database().query("CREATE DATABASE bench_queue");
  const address = new URL(process.env.DATABASE_URL ?? "");
  address.pathname = "/bench_queue";
  const options = { connectionString: address.href };
  const utils = await makeWorkerUtils(options);
  await utils.migrate();
  await utils.addJobs(Array.from({ length: jobs }, () => ({ identifier: "nothing", payload: {} })));
  let done = 0;
  const begun = performance.now();
  const runner = await run({
    ...options,
    concurrency: JOBS,
    noHandleSignals: true,
    logger: new Logger(() => () => undefined),
    taskList: { nothing: () => void done++ },
  });
  while (done < jobs) await sleep(5);
  const rate = jobs / ((performance.now() - begun) / 1000);
  await runner.stop();
  await utils.release();
  return rate;
}
