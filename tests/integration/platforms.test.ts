import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { faultWords, remedyWords } from "#app/wording/fault.ts";
import type { Platform } from "#connectors/connector.ts";
import type { Hex } from "#core/colour/srgb.ts";
import { Connection, Delivery } from "#server/db/models/index.ts";
import { listDeliveries, preflight, requestDelivery } from "#server/deliveries/deliveries.ts";
import { acceptDrift, checkPlace } from "#server/deliveries/drift.ts";
import { findPlace } from "#server/estate/places.ts";
import type { PersonId, PlaceId, ReleaseId } from "#server/ids.ts";
import { changeCredential, testConnection } from "#server/platforms/connections.ts";
import {
  closeDatabase,
  faults,
  freePort,
  freshDemo,
  placeOf,
  type Running,
  release,
  STANDINS,
  startDatabase,
  startStandins,
  startWeb,
  startWorker,
  stopDatabase,
  tamper,
  until,
  WEB,
} from "./system.ts";

/** A place on each platform, where its page is, and the colour that its main button then has. */
const PLACES: Record<Platform, { slug: string; page: string; shows(brand: string): string }> = {
  commons: {
    slug: "quayside",
    page: "commons/orrin-sound-ferries/quayside",
    shows: (brand) => `--masthead: ${brand}`,
  },
  sluice: {
    slug: "berth-booking",
    page: "sluice/berth-booking",
    shows: (brand) => `--bar: ${brand}`,
  },
  gangway: {
    slug: "crew-portal",
    page: "gangway/crew-portal/look/gangway.css",
    shows: (brand) => `--gangway-banner: ${brand}`,
  },
  bollard: {
    slug: "ticket-office",
    page: "bollard/ticket-office",
    shows: () => "ticket-office/theme.css",
  },
  tidemark: {
    slug: "sailings-board",
    page: "tidemark/sailings-board",
    shows: (brand) => `--series: ${brand}`,
  },
};
const PLATFORMS = Object.keys(PLACES) as Platform[];
const SENT = PLATFORMS.filter((platform) => platform !== "bollard");

let ines: PersonId;
let standins: Running;
let worker: Running;
let web: Running;
let sound: ReleaseId;

let name: string;
let brand: Hex;
let n = 0;

beforeAll(async () => {
  ({ ines } = await freshDemo());
  [standins, worker, web] = await Promise.all([startStandins(), startWorker(), startWeb()]);
});
beforeEach(async () => {
  name = `Tide ${++n}`;
  // Another colour each time: what a place holds already is not sent again.
  brand = `#0b5e${(0x40 + n).toString(16)}` as Hex;
  sound = await release(ines, brand, name);
});
/** No test leaves a fault, a refused credential or a broken link to the next. */
afterEach(async () => {
  for (const platform of PLATFORMS) await faults({}, platform);
  await Connection.update({ refusedAt: null }, { where: {} });
  await fetch(`${STANDINS}/bollard/ticket-office/settings`, {
    method: "POST",
    body: new URLSearchParams({ pasted: `${WEB}/t/ticket-office/theme.css` }),
    redirect: "manual",
  });
});
afterAll(async () => {
  await Promise.all([worker.stop("SIGKILL"), standins.stop(), web.stop()]);
  await closeDatabase();
});

const request = async (place: PlaceId) =>
  expect(await requestDelivery(place, sound, ines)).toMatchObject({ ok: true });
const at = (platform: Platform) => placeOf(PLACES[platform].slug);
const newest = async (place: PlaceId) => (await listDeliveries(place, 1))[0];
const ended = (place: PlaceId) =>
  until(async () => {
    const delivery = await newest(place);
    return delivery?.finishedAt ? delivery : null;
  });
const pageOf = async (platform: Platform) =>
  (await fetch(`${STANDINS}/${PLACES[platform].page}`)).text();

test.each(PLATFORMS)(
  "%s: preflight is clear, the page changes, and the receipt is true",
  async (platform) => {
    const place = await at(platform);
    expect((await preflight(place, sound))?.filter((c) => c.outcome !== "clear")).toEqual([]);
    await request(place);
    const delivery = await ended(place);
    expect(delivery).toMatchObject({ state: "delivered", failure: null });
    expect(delivery.receipt?.sent).toEqual(delivery.receipt?.found);
    expect(await pageOf(platform)).toContain(PLACES[platform].shows(brand));
    expect((await findPlace(place))?.live?.release.name).toBe(name);
  },
);

interface FaultCase {
  name: string;
  settings: Record<string, unknown>;
  platforms: Platform[];
  outcome: Record<string, unknown>;
  /** What a person reads; left out where all goes well in the end. */
  said?: RegExp;
  /** Whether the place shows the release in the end. */
  shows: boolean;
}

const failed = (code: string) => ({ state: "failed", failure: { code } });
const CASES: FaultCase[] = [
  {
    name: "a dropped line",
    said: /^Nothing answers at http/,
    settings: { down: true },
    platforms: PLATFORMS,
    outcome: failed("unreachable"),
    shows: false,
  },
  {
    name: "answers that are no answer",
    said: /could not be understood/,
    settings: { nonsense: true },
    platforms: PLATFORMS,
    outcome: { state: "failed" },
    shows: false,
  },
  {
    name: "refused credentials",
    said: /refused the password of/,
    settings: { rejectCredentials: true },
    platforms: SENT,
    outcome: failed("wrong-credential"),
    shows: false,
  },
  {
    name: "tokens that run out at once",
    said: /refuses the tokens that it gives out itself/,
    settings: { expireTokens: true },
    platforms: ["commons", "gangway"],
    outcome: failed("token-refused"),
    shows: false,
  },
  {
    name: "a refusal of the change",
    said: /^The platform refused the change: the platform is set to refuse/,
    settings: { refuseShare: 1 },
    platforms: SENT,
    outcome: failed("refused"),
    shows: false,
  },
  {
    name: "answers that are lost after the change",
    settings: { loseShare: 1 },
    platforms: SENT,
    outcome: { state: "delivered" },
    shows: true,
  },
  {
    name: "an upload that is stored in part",
    said: /holds something else than was sent/,
    settings: { partial: true },
    platforms: SENT,
    outcome: failed("read-back-differs"),
    shows: false,
  },
  {
    name: "a value that is stored wrong",
    said: /holds something else than was sent, in/,
    settings: { garble: true },
    platforms: PLATFORMS,
    outcome: failed("read-back-differs"),
    shows: false,
  },
  {
    name: "throttling",
    settings: { throttlePerSecond: 3 },
    platforms: PLATFORMS,
    outcome: { state: "delivered" },
    shows: true,
  },
  {
    name: "a change that shows late",
    settings: { showAfterMs: 700 },
    platforms: ["commons", "gangway"],
    outcome: { state: "delivered" },
    shows: true,
  },
  {
    name: "latency",
    settings: { latencyMs: 80, holdReadsMs: 80 },
    platforms: PLATFORMS,
    outcome: { state: "delivered" },
    shows: true,
  },
];

test.each(CASES)("with $name each platform ends as it must", async (fault) => {
  const places = await Promise.all(
    fault.platforms.map(async (platform) => {
      await faults(fault.settings, platform);
      const place = await at(platform);
      await request(place);
      return { platform, place };
    }),
  );
  for (const { platform, place } of places) {
    const delivery = await ended(place);
    expect({ platform, ...delivery }).toMatchObject({ platform, ...fault.outcome });
    if (fault.said) {
      const { failure } = delivery;
      expect(failure && faultWords(failure)).toMatch(fault.said);
      expect(failure && remedyWords(failure)).toMatch(/\w+\.$/);
    } else expect(delivery.failure).toBeNull();
    const isLive = (await findPlace(place))?.live?.release.name === name;
    expect({ platform, isLive }).toEqual({ platform, isLive: fault.shows });
  }
});

test("a credential that was refused is not tried again until it is replaced or tested", async () => {
  await faults({ rejectCredentials: true }, "gangway");
  const place = await at("gangway");
  await request(place);
  await ended(place);
  const callsNow = async () =>
    ((await (await fetch(`${STANDINS}/gangway/faults`)).json()) as { calls: number }).calls;
  const before = await callsNow();
  await request(place);
  expect(await ended(place)).toMatchObject({ failure: { code: "wrong-credential" } });
  expect(await callsNow()).toBe(before);
  await faults({}, "gangway");
  const connection = await Connection.findOne({ where: { platform: "gangway" } });
  expect(await testConnection(connection?.id as never)).toBeNull();
  await request(place);
  expect(await ended(place)).toMatchObject({ state: "delivered" });
});

test("an account without the right, and one that is rotated", async () => {
  const connection = await Connection.findOne({ where: { platform: "sluice" } });
  await changeCredential(connection?.id as never, "works-reader", "spring-tide-3", ines);
  expect(await testConnection(connection?.id as never)).toMatchObject({ code: "no-right" });
  const place = await at("sluice");
  const checks = await preflight(place, sound);
  expect(checks?.find((c) => c.subject === "right")?.fault?.code).toBe("no-right");
  await changeCredential(connection?.id as never, "works-maker", "capstan-and-chain-9", ines);
  expect(await testConnection(connection?.id as never)).toBeNull();
  expect(connection?.secret).not.toContain("capstan");
});

test("each platform's own obstacle is found before anything is sent", async () => {
  const codeAt = async (slug: string, id = sound) =>
    (await preflight(await placeOf(slug), id))?.flatMap((c) => (c.fault ? [c.fault.code] : []));
  expect(await codeAt("hull-inspections")).toEqual(["feature-off"]);
  await tamper("bollard", "ticket-office");
  expect(await codeAt("ticket-office")).toEqual(["other-stylesheet"]);
  const long = await release(ines, "#0b5e55", "Tide for the whole group in the winter");
  expect(await codeAt("quayside", long)).toEqual(["name-too-long"]);
  const reach = (await preflight(await placeOf("quayside"), sound))?.find(
    (c) => c.subject === "reach",
  );
  expect(reach?.inheritedBy).toContain("Crew rota");
});

test.each(PLATFORMS)(
  "%s: drift is found slot by slot, and mended by delivering again",
  async (platform) => {
    const place = await at(platform);
    const { slug } = PLACES[platform];
    await request(place);
    await ended(place);
    expect(await checkPlace(place)).toEqual({ ok: true, drift: [] });
    await tamper(platform, slug);
    const found = await checkPlace(place);
    expect(found.ok && found.drift.length).toBeGreaterThan(0);
    expect((await findPlace(place))?.drift).not.toBeNull();
    if (platform === "commons" || platform === "bollard") return;
    await request(place);
    expect(await ended(place)).toMatchObject({ state: "delivered" });
    expect(await checkPlace(place)).toEqual({ ok: true, drift: [] });
  },
);

test("drift that is accepted is no longer ours to keep", async () => {
  const place = await at("tidemark");
  await request(place);
  await ended(place);
  await tamper("tidemark", "sailings-board");
  await checkPlace(place);
  expect(await acceptDrift(place, ines)).toBe(true);
  expect(await findPlace(place)).toMatchObject({ live: null, drift: null });
});

test("a hosted stylesheet is served compressed, with 304s, to any page", async () => {
  const place = await at("bollard");
  await request(place);
  await ended(place);
  const get = (headers: Record<string, string> = {}, path = "/t/ticket-office/theme.css") =>
    fetch(`${WEB}${path}`, { headers });
  const forms = await Promise.all(
    ["br", "gzip", "identity"].map((form) => get({ "accept-encoding": form })),
  );
  const [brotli, gzip, plain] = forms as [Response, Response, Response];
  expect([brotli, gzip, plain].map((r) => r.headers.get("content-encoding"))).toEqual([
    "br",
    "gzip",
    null,
  ]);
  const bodies = await Promise.all(forms.map((r) => r.text()));
  expect(new Set(bodies).size).toBe(1);
  expect(bodies[0]).toContain(`--livery-header: light-dark(${brand}`);
  const etags = forms.map((r) => r.headers.get("etag"));
  expect(new Set(etags).size).toBe(3);
  expect(etags.every((etag) => /^"[^"]+"$/.test(etag ?? ""))).toBe(true);
  const again = await get({ "accept-encoding": "br", "if-none-match": etags[0] ?? "" });
  expect(again.status).toBe(304);
  expect(brotli.headers.get("access-control-allow-origin")).toBe("*");
  expect(brotli.headers.get("set-cookie")).toBeNull();
  expect(brotli.headers.get("vary")).toBe("accept-encoding");
  const { createHash } = await import("node:crypto");
  const sha = createHash("sha256")
    .update(bodies[2] ?? "")
    .digest("hex");
  const sealed = await get({}, `/r/${sha}/theme.css`);
  expect(sealed.headers.get("cache-control")).toContain("immutable");
  expect((await get({}, "/t/nowhere/theme.css")).status).toBe(404);
});

test("a delivery that was killed after the change is not made twice", async () => {
  await faults({ holdReadsMs: 3000 }, "tidemark");
  const place = await at("tidemark");
  await request(place);
  await until(async () => (await newest(place))?.state === "delivering");
  await new Promise((resolve) => setTimeout(resolve, 1000));
  await worker.stop("SIGKILL");
  await faults({}, "tidemark");
  worker = await startWorker();
  expect(await ended(place)).toMatchObject({ state: "delivered", attempt: 2 });
  expect(await Delivery.count({ where: { placeId: place, releaseId: sound } })).toBe(1);
});

test("without the database a hosted stylesheet is served from the last good copy, also after a start", async () => {
  const place = await at("bollard");
  await request(place);
  await ended(place);
  const folder = mkdtempSync(join(tmpdir(), "livery-copies-"));
  const port = String(await freePort());
  const env = { PORT: port, LIVERY_STYLESHEET_COPIES: folder };
  const look = () => fetch(`http://127.0.0.1:${port}/t/ticket-office/theme.css`);
  let another = await startWeb(env);
  const before = await (await look()).text();
  expect(before).toContain(brand);
  await worker.stop("SIGKILL");
  await stopDatabase();
  try {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(await (await look()).text()).toBe(before);
    await another.stop("SIGKILL");
    another = await startWeb(env);
    const answer = await look();
    expect(answer.status).toBe(200);
    expect(await answer.text()).toBe(before);
    expect((await fetch(`http://127.0.0.1:${port}/t/quayside/theme.css`)).status).toBe(503);
  } finally {
    await another.stop("SIGKILL");
    await startDatabase();
    worker = await startWorker();
  }
});
