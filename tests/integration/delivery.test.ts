import { Connection, Delivery, Receipt } from "#server/db/models/index.ts";
import { listDeliveries, preflight, requestDelivery } from "#server/deliveries/deliveries.ts";
import { findPlace } from "#server/estate/places.ts";
import type { ConnectionId, PersonId, PlaceId } from "#server/ids.ts";
import { changeCredential, connectionOf } from "#server/platforms/connections.ts";
import {
  closeDatabase,
  faults,
  freshDemo,
  held,
  type Running,
  release,
  startStandins,
  startWorker,
  until,
} from "./system.ts";

let ines: PersonId;
let quayside: PlaceId;
let standins: Running;
let worker: Running | null = null;

beforeEach(async () => {
  ({ ines, quayside } = await freshDemo());
  standins = await startStandins();
});
afterEach(async () => {
  await worker?.stop("SIGKILL");
  worker = null;
  await standins.stop();
});
afterAll(closeDatabase);

const account = async (name: string, password: string) =>
  changeCredential((await connectionOf(quayside))?.id as ConnectionId, name, password, ines);
const newest = async () => (await listDeliveries(quayside, 1))[0];
const ended = () =>
  until(async () => {
    const delivery = await newest();
    return delivery?.finishedAt ? delivery : null;
  });
const outcomes = async (id: Awaited<ReturnType<typeof release>>) =>
  Object.fromEntries(
    (await preflight(quayside, id))?.map((c) => [c.subject, c.fault?.code ?? c.outcome]) ?? [],
  );

test("a delivery ends in a receipt of what Commons itself holds", async () => {
  worker = await startWorker();
  const id = await release(ines, "#0b5e55", "Tide 1");
  expect(new Set(Object.values(await outcomes(id)))).toEqual(new Set(["clear"]));
  await requestDelivery(quayside, id, ines);
  const delivery = await ended();
  expect(delivery).toMatchObject({ state: "delivered", attempt: 1, failure: null });
  expect(delivery.receipt?.sentSha256).toBe(delivery.receipt?.foundSha256);
  const there = await held("Tide 1");
  expect(there).toMatchObject({
    chosen: "Tide 1",
    palette: { uploads: 1, slots: { masthead: "0b5e55" } },
  });
  expect((await findPlace(quayside))?.live?.release.name).toBe("Tide 1");
});

test("a worker killed between upload and read-back leaves one delivery with a true receipt", async () => {
  const id = await release(ines, "#0b5e55", "Tide 1");
  await faults({ holdReadsMs: 4000 });
  worker = await startWorker();
  await requestDelivery(quayside, id, ines);
  // The site's choice is the last thing uploaded; the palettes' read-back hangs after it.
  await until(async () => {
    const there = await fetch(
      `${(await Connection.findOne())?.address}/orrin-sound-ferries/quayside`,
    );
    return (await there.text()).includes("#0b5e55");
  });
  expect(await newest()).toMatchObject({ state: "delivering", receipt: null });
  await worker.stop("SIGKILL");
  await faults({});
  worker = await startWorker();
  expect(await ended()).toMatchObject({ state: "delivered", attempt: 2 });
  expect(await Delivery.count()).toBe(1);
  const [receipt, ...others] = await Receipt.findAll();
  expect(others).toEqual([]);
  expect(receipt?.found).toEqual(receipt?.sent);
  expect(await held("Tide 1")).toMatchObject({ chosen: "Tide 1", palette: { uploads: 1 } });
  expect(await held("Tide 1 (dark)")).toMatchObject({ palette: { uploads: 1 } });
});

test("a wrong password stops at once and leaves nothing behind", async () => {
  worker = await startWorker();
  await account("brand.steward@orrinsound.example", "wrong");
  const id = await release(ines, "#0b5e55", "Tide 1");
  expect(await outcomes(id)).toMatchObject({
    reachable: "clear",
    right: "wrong-credential",
    place: "unknown",
  });
  await requestDelivery(quayside, id, ines);
  expect(await ended()).toMatchObject({
    state: "failed",
    attempt: 1,
    failure: { code: "wrong-credential" },
    receipt: null,
  });
  expect(await held("Tide 1")).toEqual({ palette: null, chosen: null });
});

test("an account that is no administrator is told so, and nothing is half done", async () => {
  worker = await startWorker();
  await account("deck.crew@orrinsound.example", "bow-thruster-7");
  const id = await release(ines, "#0b5e55", "Tide 1");
  expect(await outcomes(id)).toMatchObject({
    reachable: "clear",
    right: "no-right",
    place: "clear",
  });
  await requestDelivery(quayside, id, ines);
  expect(await ended()).toMatchObject({ state: "failed", failure: { code: "no-right" } });
  expect(await held("Tide 1")).toEqual({ palette: null, chosen: null });
});

test("a platform that is down is tried again, then given up with its reason", async () => {
  worker = await startWorker();
  await faults({ down: true });
  const id = await release(ines, "#0b5e55", "Tide 1");
  expect(await outcomes(id)).toMatchObject({
    reachable: "unreachable",
    right: "unknown",
    name: "clear",
  });
  await requestDelivery(quayside, id, ines);
  expect(await ended()).toMatchObject({
    state: "failed",
    attempt: 5,
    failure: { code: "unreachable" },
  });
});

test("a platform that comes back gets its delivery", async () => {
  worker = await startWorker();
  await faults({ down: true });
  await requestDelivery(quayside, await release(ines, "#0b5e55", "Tide 1"), ines);
  await until(async () => (await newest())?.failure?.code === "unreachable");
  await faults({});
  expect(await ended()).toMatchObject({ state: "delivered", failure: null });
});

test("what Commons stores otherwise than sent is no delivery", async () => {
  worker = await startWorker();
  await faults({ garble: true });
  await requestDelivery(quayside, await release(ines, "#0b5e55", "Tide 1"), ines);
  const delivery = await ended();
  expect(delivery).toMatchObject({ state: "failed", failure: { code: "read-back-differs" } });
  expect(delivery.receipt?.differing).toEqual(["dark button", "light button"]);
  expect((await findPlace(quayside))?.live).toBeNull();
});

test("names that don't fit or are taken are obstacles before anything is sent", async () => {
  const long = await release(ines, "#0b5e55", "Tide for the whole group in the winter");
  expect(await outcomes(long)).toMatchObject({ name: "name-too-long" });
  worker = await startWorker();
  await requestDelivery(quayside, await release(ines, "#0b5e55", "Tide 1"), ines);
  await ended();
  await freshDemo().then((demo) => {
    ines = demo.ines;
    quayside = demo.quayside;
  });
  expect(await outcomes(await release(ines, "#c3202f", "Tide 1"))).toMatchObject({
    name: "name-taken",
  });
});

test("one place has one delivery under way", async () => {
  const id = await release(ines, "#0b5e55", "Tide 1");
  expect(await requestDelivery(quayside, id, ines)).toMatchObject({ ok: true });
  expect(await requestDelivery(quayside, id, ines)).toEqual({
    ok: false,
    code: "already-under-way",
  });
});
