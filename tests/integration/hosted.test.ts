import { createHash } from "node:crypto";
import { gunzipSync } from "node:zlib";
import { Place, Stylesheet } from "#server/db/models/index.ts";
import { host } from "#server/deliveries/steps.ts";
import type { PersonId, PlaceId, ReleaseId } from "#server/ids.ts";
import {
  closeDatabase,
  freshDemo,
  placeOf,
  type Running,
  release,
  startWeb,
  WEB,
} from "./system.ts";

let ines: PersonId;
let web: Running;
let place: PlaceId;
let tide: ReleaseId;
beforeAll(async () => {
  ({ ines } = await freshDemo());
  web = await startWeb();
  place = await placeOf("ticket-office");
  tide = await release(ines, "#0b5e55", "Tide 1");
  await host(place, tide);
});
afterAll(async () => {
  await web.stop();
  await closeDatabase();
});

const PATH = "/t/ticket-office/theme.css";
const get = (headers: Record<string, string> = {}, path = PATH, method = "GET") =>
  fetch(`${WEB}${path}`, { method, headers });
const etagFor = async (form: string) =>
  (await get({ "accept-encoding": form })).headers.get("etag") ?? "";

test("a release is compressed once, and every form holds the same bytes", async () => {
  const sheet = await Stylesheet.findByPk(tide);
  expect(gunzipSync(sheet?.gzip as Buffer)).toEqual(sheet?.body);
  expect(sheet?.brotli.length).toBeLessThan((sheet?.gzip.length ?? 0) + 1);
  expect(
    createHash("sha256")
      .update(sheet?.body as Buffer)
      .digest("hex"),
  ).toBe(sheet?.sha256);
  await expect(Stylesheet.update({ sha256: "0" }, { where: { releaseId: tide } })).rejects.toThrow(
    "never change",
  );
});

test.each([
  ["br, gzip", "br"],
  ["gzip;q=1.0, *;q=0.5", "gzip"],
  ["br;q=0, gzip", "gzip"],
  ["br;q=0.0,gzip;q=0", null],
  ["identity", null],
  ["deflate", null],
])("accept-encoding %s is answered with %s (RFC 9110, section 12.5.3)", async (accepted, form) => {
  const answer = await get({ "accept-encoding": accepted });
  expect(answer.headers.get("content-encoding")).toBe(form);
  expect(answer.headers.get("content-type")).toBe("text/css; charset=utf-8");
  expect(answer.headers.get("x-content-type-options")).toBe("nosniff");
  expect(await answer.text()).toContain("--livery-action");
});

test("If-None-Match takes one tag, a list, a weak tag and a star (RFC 9110, section 13.1.2)", async () => {
  const etag = await etagFor("br");
  const status = async (value: string) =>
    (await get({ "accept-encoding": "br", "if-none-match": value })).status;
  for (const value of [etag, `"other", ${etag}`, `W/${etag}`, "*"])
    expect({ value, status: await status(value) }).toEqual({ value, status: 304 });
  for (const value of ['"other"', await etagFor("gzip"), etag.slice(0, -2)])
    expect({ value, status: await status(value) }).toEqual({ value, status: 200 });
});

test("a 304 says again what a cache must know, and has no body", async () => {
  const answer = await get({ "accept-encoding": "br", "if-none-match": await etagFor("br") });
  expect(await answer.text()).toBe("");
  expect(answer.headers.get("etag")).toBe(await etagFor("br"));
  expect(answer.headers.get("vary")).toBe("accept-encoding");
  expect(answer.headers.get("cache-control")).toMatch(/max-age=\d+, s-maxage=\d+/);
  expect(answer.headers.get("access-control-allow-origin")).toBe("*");
});

test("HEAD is answered without a body, anything else is refused with what is allowed", async () => {
  const head = await get({ "accept-encoding": "identity" }, PATH, "HEAD");
  expect(head.status).toBe(200);
  expect(Number(head.headers.get("content-length"))).toBe(
    (await Stylesheet.findByPk(tide))?.body.length,
  );
  expect(await head.text()).toBe("");
  const post = await get({}, PATH, "POST");
  expect([post.status, post.headers.get("allow")]).toEqual([405, "GET, HEAD"]);
});

test("the address with a hash never changes, and none is made up", async () => {
  const sha = (await Stylesheet.findByPk(tide))?.sha256 as string;
  const sealed = await get({}, `/r/${sha}/theme.css`);
  expect(sealed.headers.get("cache-control")).toBe("public, max-age=31536000, immutable");
  const body = Buffer.from(await sealed.arrayBuffer());
  expect(createHash("sha256").update(body).digest("hex")).toBe(sha);
  expect((await get({}, `/r/${"0".repeat(64)}/theme.css`)).status).toBe(404);
});

test("what is no stylesheet's address is the application's to answer", async () => {
  for (const path of ["/t/Ticket/theme.css", "/t/a/b/theme.css", "/t/ticket-office/other.css"])
    expect((await fetch(`${WEB}${path}`, { redirect: "manual" })).status).not.toBe(200);
  const none = await get({}, "/t/quayside/theme.css");
  expect([none.status, none.headers.get("cache-control")]).toEqual([404, "no-store"]);
});

test("another release shows at once, and its own look again when it is taken back", async () => {
  const other = await release(ines, "#1d3a6e", "Tide 2");
  const before = await etagFor("br");
  await host(place, other);
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(await (await get()).text()).toContain("#1d3a6e");
  expect(await etagFor("br")).not.toBe(before);
  await host(place, null);
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect((await get()).status).toBe(404);
  expect((await Place.findByPk(place))?.hostedReleaseId).toBeNull();
});
