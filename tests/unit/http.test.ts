import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { FormData } from "undici";
import { z } from "zod";
import { DeliveryFault, isPassing, type Link, waitOf } from "#connectors/connector.ts";
import { call, expectOk, read, sessionOf } from "#connectors/http.ts";

/** A platform of one's own that answers as the test says. */
let server: Server;
let answer: (request: IncomingMessage, response: ServerResponse) => void;
let asked: string[];
let link: Link;

beforeEach(async () => {
  asked = [];
  server = createServer((request, response) => {
    asked.push(`${request.method} ${request.url}`);
    answer(request, response);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as AddressInfo;
  link = { address: `http://127.0.0.1:${port}`, scope: "quay", account: "ines", secret: "s" };
});
afterEach(() => {
  server.closeAllConnections();
  server.close();
});

const status = (code: number, body = "{}", headers: Record<string, string> = {}) => {
  answer = (_, response) => response.writeHead(code, headers).end(body);
};
const faultOf = async (work: () => Promise<unknown>) => {
  const error = await work().catch((e: unknown) => e);
  if (!(error instanceof DeliveryFault)) throw new Error(`no fault: ${String(error)}`);
  return error.fault;
};
const ok = async () => expectOk(await call(link, "/x"));

test.each([
  [401, { code: "wrong-credential", account: "ines" }, false],
  [403, { code: "no-right", account: "ines", scope: "quay" }, false],
  [422, { code: "refused", reason: "tide is out" }, false],
  [404, { code: "platform-error", status: 404 }, false],
  [408, { code: "platform-error", status: 408 }, true],
  [500, { code: "platform-error", status: 500 }, true],
  [503, { code: "platform-error", status: 503 }, true],
])("status %d becomes the fault it stands for", async (code, fault, passes) => {
  status(code, JSON.stringify({ refused: "tide is out" }));
  const found = await faultOf(ok);
  expect(found).toEqual(fault);
  expect(isPassing(found)).toBe(passes);
});

test("a refusal that is no JSON is told as it stands, cut short", async () => {
  status(422, `closed ${"x".repeat(500)}`);
  const fault = await faultOf(ok);
  expect(fault).toMatchObject({ code: "refused", reason: expect.stringMatching(/^closed x+$/) });
  expect((fault as { reason: string }).reason.length).toBeLessThanOrEqual(120);
});

test("a dropped line, a redirect and no server at all are unreachable", async () => {
  answer = (request) => request.socket.destroy();
  expect(await faultOf(ok)).toMatchObject({ code: "unreachable" });
  status(302, "", { location: "http://elsewhere.example/" });
  expect(await faultOf(ok)).toMatchObject({ code: "unreachable" });
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  expect(await faultOf(ok)).toEqual({ code: "unreachable", address: link.address });
});

test("an answer of another shape is nonsense, with where it was given", async () => {
  const shape = z.object({ name: z.string() });
  for (const body of ["<p>closed</p>", "{}", '{"name": 3}', ""]) {
    status(200, body);
    expect(await faultOf(async () => read(shape, await ok(), "site"))).toEqual({
      code: "nonsense",
      where: "site",
    });
  }
  status(200, '{"name": "Quayside", "more": 1}');
  expect(read(shape, await ok(), "site")).toEqual({ name: "Quayside" });
});

test("bodies go out as JSON, as text or as a form, each with its type", async () => {
  const seen: [string | undefined, string][] = [];
  answer = (request, response) => {
    let text = "";
    request.on("data", (chunk: Buffer) => {
      text += chunk.toString();
    });
    request.on("end", () => {
      seen.push([request.headers["content-type"], text]);
      response.end("{}");
    });
  };
  await call(link, "/x", { method: "PUT", body: { a: 1 } });
  await call(link, "/x", {
    method: "PUT",
    body: 'a = "1"',
    headers: { "content-type": "application/toml" },
  });
  const form = new FormData();
  form.set("a", new Blob(["1"]), "a.txt");
  await call(link, "/x", { method: "PUT", body: form });
  await call(link, "/x");
  expect(seen[0]).toEqual(["application/json", '{"a":1}']);
  expect(seen[1]).toEqual(["application/toml", 'a = "1"']);
  expect(seen[2]?.[0]).toMatch(/^multipart\/form-data; boundary=/);
  expect(seen[2]?.[1]).toContain('filename="a.txt"');
  expect(seen[3]).toEqual([undefined, ""]);
});

test("a call that is turned away waits as long as it was asked to, and goes on", async () => {
  let left = 2;
  answer = (_, response) =>
    left-- > 0 ? response.writeHead(429, { "retry-after": "0.2" }).end() : response.end("{}");
  const begun = Date.now();
  await ok();
  expect(Date.now() - begun).toBeGreaterThanOrEqual(390);
  expect(asked).toHaveLength(3);
});

test("while a platform asks for patience a few calls wait, the others give up their turn at once", async () => {
  let turned = false;
  answer = (_, response) => {
    if (!turned) {
      turned = true;
      response.writeHead(429, { "retry-after": "0.4" }).end();
    } else response.end("{}");
  };
  const first = ok();
  while (!turned) await new Promise((resolve) => setTimeout(resolve, 5));
  await new Promise((resolve) => setTimeout(resolve, 50));
  const others = await Promise.allSettled(Array.from({ length: 6 }, ok));
  await first;
  const refused = others.flatMap((o) => (o.status === "rejected" ? [o.reason.fault] : []));
  expect(refused).toHaveLength(4);
  for (const fault of refused) expect(waitOf(fault)).toBeGreaterThan(0);
  expect(asked.length).toBe(1 + 3);
});

test.each([
  ["in seconds", () => "30", 30_000],
  ["as a date", () => new Date(Date.now() + 60_000).toUTCString(), 60_000],
])("a long pause %s is not waited for here (RFC 9110, section 10.2.3)", async (_, header, ms) => {
  status(429, "", { "retry-after": header() });
  const wait = waitOf(await faultOf(ok)) ?? 0;
  expect(wait).toBeGreaterThan(ms - 2500);
  expect(wait).toBeLessThanOrEqual(ms);
  expect(await faultOf(ok)).toMatchObject({ code: "throttled" });
  expect(asked).toHaveLength(1);
});

describe("a session", () => {
  let given = 0;
  let counts: (token: string) => boolean;
  const signIn = async () => ({ token: `t${++given}`, rights: ["publish"], lifeSeconds: 600 });
  beforeEach(() => {
    given = 0;
    answer = (request, response) =>
      response
        .writeHead(counts((request.headers.authorization ?? "").slice(7)) ? 200 : 401)
        .end("{}");
  });

  test("goes on with a token for all that is asked, and renews one that ran out once", async () => {
    counts = (token) => token === "t1";
    const session = await sessionOf(link, signIn);
    expect((await session.ask("/a")).status).toBe(200);
    expect((await (await sessionOf(link, signIn)).ask("/b")).status).toBe(200);
    expect(given).toBe(1);
    counts = (token) => token === "t2";
    expect((await session.ask("/c")).status).toBe(200);
    expect(given).toBe(2);
  });

  test("says so where fresh tokens are refused too, instead of blaming the password", async () => {
    counts = () => false;
    const session = await sessionOf(link, signIn);
    expect(await faultOf(() => session.ask("/a"))).toEqual({ code: "token-refused" });
    expect(given).toBe(2);
  });

  test("is one for calls that begin together, and none for another account", async () => {
    counts = () => true;
    await Promise.all([1, 2, 3].map(() => sessionOf(link, signIn)));
    expect(given).toBe(1);
    await sessionOf({ ...link, account: "tomas" }, signIn);
    expect(given).toBe(2);
  });

  test("that could not be had is asked for anew the next time", async () => {
    counts = () => true;
    const fails = async () => {
      throw new DeliveryFault({ code: "wrong-credential", account: "ines" });
    };
    expect(await faultOf(() => sessionOf(link, fails))).toMatchObject({ code: "wrong-credential" });
    await sessionOf(link, signIn);
    expect(given).toBe(1);
  });
});
