import { database } from "#server/db/connection.ts";
import {
  Connection,
  Delivery,
  Place,
  Receipt,
  Rollout,
  SeasonRow,
  Theme,
} from "#server/db/models/index.ts";
import { seedFleet } from "#server/demo/fleet.ts";
import { applyChange } from "#server/estate/assignments.ts";
import { findPlace } from "#server/estate/places.ts";
import type { PersonId, PlaceId, ReleaseId, RolloutId } from "#server/ids.ts";
import {
  createRollout,
  newestLegs,
  pauseRollout,
  resumeRollout,
  retryRollout,
  stopRollout,
  takeBack,
} from "#server/rollouts/rollouts.ts";
import { tick } from "#server/rollouts/tick.ts";
import { findRollout, listFailures } from "#server/rollouts/view.ts";
import {
  closeDatabase,
  faults,
  freshDemo,
  placeOf,
  type Running,
  release,
  startDatabase,
  startStandins,
  startWeb,
  startWorker,
  stopDatabase,
  until,
} from "./system.ts";

let ines: PersonId;
let standins: Running;
let web: Running;
let workers: Running[] = [];
let first: ReleaseId;
let second: ReleaseId;

beforeEach(async () => {
  ({ ines } = await freshDemo());
  first = await release(ines, "#0b5e55", "Tide 1");
  second = await release(ines, "#1d3a6e", "Tide 2");
  [standins, web] = await Promise.all([startStandins(), startWeb()]);
  workers = [await startWorker()];
});
afterEach(async () => {
  await Promise.all([...workers.map((w) => w.stop("SIGKILL")), standins.stop(), web.stop()]);
});
afterAll(closeDatabase);

const PLACES = ["sailings-board", "crew-portal", "quayside", "berth-booking"];
const legsOf = async (release: ReleaseId | null, slugs = PLACES) =>
  Promise.all(slugs.map(async (slug) => ({ place: await placeOf(slug), release })));
async function rollout(
  release: ReleaseId | null,
  { gate = "clean" as const, startsAt = null as Date | null, slugs = PLACES } = {},
): Promise<RolloutId> {
  const made = await createRollout(
    { name: "Tide", legs: await legsOf(release, slugs), gate, startsAt },
    ines,
  );
  if (!made.ok) throw new Error(made.code);
  return made.id;
}
async function inState(id: RolloutId, state: string) {
  let found = await findRollout(id);
  for (let i = 0; i < 600 && found?.state !== state; i++) {
    await new Promise((resolve) => setTimeout(resolve, 50));
    found = await findRollout(id);
  }
  const faults = (await newestLegs(id)).map((leg) => `${leg.state} ${leg.failure?.code ?? ""}`);
  expect({ state: found?.state, faults }).toMatchObject({ state });
  return found as NonNullable<typeof found>;
}
const liveAt = async (slug: string) =>
  (await findPlace(await placeOf(slug)))?.live?.release.name ?? null;

test("waves go one after the other, the test place first, and end in true receipts", async () => {
  const id = await rollout(first);
  const done = await inState(id, "done");
  expect(done).toMatchObject({ wave: 2, waves: 2, counts: { delivered: 4, failed: 0 } });
  const legs = await newestLegs(id);
  const tests = await Promise.all(["sailings-board", "berth-booking"].map(placeOf));
  expect(new Set(legs.filter((leg) => leg.wave === 1).map((leg) => leg.placeId))).toEqual(
    new Set(tests),
  );
  const receipts = await Receipt.findAll();
  expect(receipts.every((r) => r.sentSha256 === r.foundSha256)).toBe(true);
  const read = (place: PlaceId) => receipts.find((r) => r.placeId === place)?.readAt as Date;
  for (const leg of legs.filter((leg) => leg.wave === 2))
    for (const test of tests) expect(read(test) <= read(leg.placeId)).toBe(true);
});

test("a wave that fails holds the next one until a person has decided", async () => {
  await faults({ refuseShare: 1 }, "tidemark");
  const id = await rollout(first);
  const held = await inState(id, "waiting");
  expect(held.counts).toMatchObject({ failed: 1, planned: 2, delivered: 1 });
  expect(await liveAt("quayside")).toBeNull();
  await faults({}, "tidemark");
  expect(await retryRollout(id, ines)).toBe(true);
  expect((await inState(id, "done")).counts).toMatchObject({ delivered: 4, failed: 0 });
});

test("a failed place does not stop the others of its wave", async () => {
  await faults({ rejectCredentials: true }, "gangway");
  const id = await rollout(first);
  const done = await inState(id, "done");
  expect(done.counts).toMatchObject({ delivered: 3, failed: 1 });
});

test("many failures are told as few reasons, the commonest first, with one that stands for others", async () => {
  await faults({ refuseShare: 1 }, "gangway");
  const slugs = [...PLACES, "ticket-office", "hull-inspections", "freight-desk"];
  const id = await rollout(first, { slugs });
  expect((await inState(id, "done")).counts).toMatchObject({ failed: 3, delivered: 4 });
  const reasons = await listFailures(id);
  expect(reasons).toMatchObject([
    { platform: "gangway", places: 2, isOne: true, fault: { code: "refused" } },
    { platform: "sluice", places: 1, isOne: true, fault: { code: "feature-off" } },
  ]);
  const [leg] = (await newestLegs(id)).filter((l) => l.failure?.code === "refused");
  await leg?.update({ failure: { code: "refused", reason: "another reason" } });
  expect((await listFailures(id))[0]).toMatchObject({ places: 2, isOne: false });
});

test("a worker whose queue is upgraded under it ends, so that it is started anew", async () => {
  await inState(await rollout(first), "done");
  const [worker] = workers;
  const ended = new Promise((resolve) => worker?.process.once("exit", resolve));
  // graphile-worker 0.17 tells its workers so when a migration breaks with the past.
  await database().query(
    `SELECT pg_notify('worker:migrate', '{"migrationNumber": 999, "breaking": true}')`,
  );
  expect(await ended).toBe(1);
  workers = [await startWorker()];
  expect((await inState(await rollout(second), "done")).counts).toMatchObject({ delivered: 4 });
});

test("a person lets the next wave begin, pauses, goes on and stops", async () => {
  const id = await rollout(first, { gate: "person" as "clean" });
  await inState(id, "waiting");
  expect(await pauseRollout(id, ines)).toBe(true);
  expect(await resumeRollout(id, ines)).toBe(true);
  await inState(id, "waiting");
  await faults({ holdReadsMs: 1500 }, "sluice");
  await resumeRollout(id, ines);
  await until(async () => (await Delivery.count({ where: { state: "delivering" } })) > 0);
  expect(await stopRollout(id, ines)).toBe(true);
  await until(
    async () =>
      (await Delivery.count({ where: { state: ["planned", "queued", "delivering"] } })) === 0,
  );
  expect(await resumeRollout(id, ines)).toBe(false);
  expect((await Rollout.findByPk(id))?.state).toBe("stopped");
});

test("everything is taken back to what was there before, nothing included; one place alone too", async () => {
  await inState(await rollout(first, { slugs: ["quayside", "crew-portal"] }), "done");
  const id = await rollout(second);
  await inState(id, "done");
  expect(await liveAt("quayside")).toBe("Tide 2");
  const one = await takeBack(id, ines, await placeOf("quayside"));
  await inState((one as { id: RolloutId }).id, "done");
  expect([await liveAt("quayside"), await liveAt("crew-portal")]).toEqual(["Tide 1", "Tide 2"]);
  const all = await takeBack(id, ines);
  expect((await inState((all as { id: RolloutId }).id, "done")).counts.failed).toBe(0);
  expect(await Promise.all(PLACES.map(liveAt))).toEqual([null, "Tide 1", "Tide 1", null]);
});

test("a place has one rollout at a time; a planned one begins at its hour", async () => {
  const startsAt = new Date(Date.now() + 2500);
  const id = await rollout(first, { startsAt });
  const again = await createRollout(
    { name: "Another", legs: await legsOf(second), gate: "clean", startsAt: null },
    ines,
  );
  expect(again).toMatchObject({ ok: false, code: "under-way" });
  expect((await findRollout(id))?.state).toBe("scheduled");
  await inState(id, "done");
  expect(Date.now()).toBeGreaterThanOrEqual(startsAt.getTime());
});

test("a season is delivered when it begins and taken back when it is over", async () => {
  const day = (offset: number) =>
    new Date(Date.now() + offset * 86_400_000).toISOString().slice(0, 10);
  const theme = async (release: ReleaseId) =>
    (await Theme.findOne({ include: [{ association: "releases", where: { id: release } }] }))?.id;
  const place = await placeOf("sailings-board");
  await SeasonRow.destroy({ where: {} });
  await applyChange(
    { kind: "assign", places: [place], theme: (await theme(first)) as never },
    ines,
  );
  await inState(await rollout(first, { slugs: ["sailings-board"] }), "done");
  const made = await applyChange(
    {
      kind: "season",
      place,
      theme: (await theme(second)) as never,
      from: day(0),
      until: day(3),
    },
    ines,
  );
  expect(made.ok).toBe(true);
  await tick();
  await until(async () => (await liveAt("sailings-board")) === "Tide 2");
  await SeasonRow.update({ fromDay: day(-5), untilDay: day(-1) }, { where: {} });
  await tick();
  await until(async () => (await liveAt("sailings-board")) === "Tide 1");
  await tick();
  expect(await Rollout.count()).toBe(3);
});

/** Keeps a worker running as `up` does: one that ends is started again. */
function supervise(env: NodeJS.ProcessEnv = {}): { kill(): void; end(): Promise<void> } {
  let running: Running | null = null;
  let ended = false;
  const keep = async () => {
    while (!ended) {
      try {
        running = await startWorker(env);
      } catch {
        await new Promise((resolve) => setTimeout(resolve, 300));
        continue;
      }
      if (ended) return running.stop("SIGKILL");
      await new Promise((resolve) => running?.process.once("exit", resolve));
    }
  };
  const kept = keep();
  return {
    kill: () => void running?.process.kill("SIGKILL"),
    end: async () => {
      ended = true;
      await running?.stop("SIGKILL");
      await kept;
    },
  };
}

test("faults on every platform, three workers that are killed, and a database that restarts: no place is forgotten or reached twice", async () => {
  await workers[0]?.stop();
  await seedFleet(60);
  for (const platform of ["commons", "sluice", "gangway", "bollard", "tidemark"])
    await faults(
      {
        latencyMs: 20,
        loseShare: 0.1,
        refuseShare: 0.05,
        ...(platform === "sluice" ? { throttlePerSecond: 60 } : {}),
      },
      platform,
    );
  const fleet = await Place.findAll({ where: { kind: "application" } });
  const places = fleet.filter((place) => place.slug.startsWith("fleet-"));
  const three = [supervise(), supervise(), supervise()];
  const made = await createRollout(
    {
      name: "Fleet",
      legs: places.map((place) => ({ place: place.id, release: first })),
      gate: "clean",
      startsAt: null,
    },
    ines,
  );
  const { id } = made as { id: RolloutId };
  let killed = 0;
  const killing = setInterval(() => three[killed++ % 3]?.kill(), 1500);
  let restarted = false;
  try {
    for (;;) {
      const found = await findRollout(id).catch(() => null);
      if (found?.state === "done") break;
      if (found?.state === "waiting") await resumeRollout(id, ines);
      if (!restarted && (found?.counts.delivered ?? 0) > 15) {
        restarted = true;
        await stopDatabase();
        await startDatabase();
      }
      await new Promise((resolve) => setTimeout(resolve, 250));
    }
  } finally {
    clearInterval(killing);
    await Promise.all(three.map((worker) => worker.end()));
  }
  expect(restarted).toBe(true);
  expect(killed).toBeGreaterThan(2);
  const legs = await newestLegs(id);
  expect(legs).toHaveLength(60);
  for (const leg of legs) expect(["delivered", "failed"]).toContain(leg.state);
  const failed = legs.filter((leg) => leg.state === "failed");
  expect(failed.every((leg) => leg.failure !== null)).toBe(true);
  expect(failed.length).toBeLessThan(20);
  const receipts = await Receipt.findAll();
  expect(new Set(receipts.map((r) => r.deliveryId)).size).toBe(receipts.length);
  for (const leg of legs.filter((l) => l.state === "delivered")) {
    const receipt = receipts.find((r) => r.deliveryId === leg.id);
    expect(receipt?.found).toEqual(receipt?.sent);
    expect((await Place.findByPk(leg.placeId))?.liveReleaseId).toBe(first);
  }
  expect(await Connection.count({ where: { refusedAt: null } })).toBe(6);
}, 180_000);
