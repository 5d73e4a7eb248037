import { mkdtempSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import express, { type Router } from "express";
import { STYLESHEET } from "#connectors/bollard/bollard.ts";
import { artefactOf } from "#connectors/checks.ts";
import { DeliveryFault, type Link, type Parcel, type Platform } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { artefactsOf } from "#server/releases/artefact.ts";
import { bollardApi, openBollard } from "../../standins/bollard/bollard.ts";
import { commonsApi, tamperCommons } from "../../standins/commons/api.ts";
import { openCommons } from "../../standins/commons/state.ts";
import { Faults, type Tamper } from "../../standins/faults.ts";
import { gangwayApi, tamperGangway } from "../../standins/gangway/gangway.ts";
import { openGangway } from "../../standins/gangway/state.ts";
import { sluiceApi, tamperSluice } from "../../standins/sluice/sluice.ts";
import { openSluice } from "../../standins/sluice/state.ts";
import { writeAll } from "../../standins/store.ts";
import { openTidemark, tamperTidemark, tidemarkApi } from "../../standins/tidemark/tidemark.ts";

/** What every connector owes, whatever its platform: one contract, on the stand-ins' own code. */
type Sending = Exclude<Platform, "bollard">;
const SENDING: Sending[] = ["commons", "sluice", "gangway", "tidemark"];

interface Account {
  scope: string;
  account: string;
  secret: string;
}
const ACCOUNTS: Record<Sending, { may: Account; mayNot: Account; key: string }> = {
  commons: {
    key: "quayside",
    may: account("orrin-sound-ferries", "brand.steward@orrinsound.example", "slack-water-42"),
    mayNot: account("orrin-sound-ferries", "deck.crew@orrinsound.example", "bow-thruster-7"),
  },
  sluice: {
    key: "berth-booking",
    may: account("Sluice", "works-maker", "capstan-and-chain-9"),
    mayNot: account("Sluice", "works-reader", "spring-tide-3"),
  },
  gangway: {
    key: "crew-portal",
    may: account("Gangway", "portal.keeper@orrinsound.example", "bollard-hitch-88"),
    mayNot: account("Gangway", "portal.guest@orrinsound.example", "bow-line-5"),
  },
  tidemark: {
    key: "sailings-board",
    may: account("Tidemark", "board.hand", "neap-and-spring-21"),
    mayNot: account("Tidemark", "board.reader", "ebb-2"),
  },
};
function account(scope: string, name: string, secret: string): Account {
  return { scope, account: name, secret };
}

let folder: string;
let server: Server;
let faults: Record<Platform, Faults>;
let tamper: Record<Sending, Tamper>;
let address: string;
let linked: (key: string, to: string | null) => void;
/** Changes that arrived at a platform, by method and path. */
let changes: string[];
/** What the platforms answered. */
let statuses: number[];
let parcels: Parcel[];

beforeAll(async () => {
  parcels = await Promise.all(
    (["#0b5e55", "#c3202f"] as const).map(async (primary, i) => {
      const document = fromPrimary(primary);
      const slots = Object.fromEntries(
        Object.values(CONNECTORS).map(({ platform, usualSlots }) => [platform, usualSlots]),
      ) as Parameters<typeof artefactsOf>[0]["slots"];
      const name = `Tide ${i + 1}`;
      const theme = computeTheme(document);
      return { name, artefacts: await artefactsOf({ name, theme, document, slots }) };
    }),
  );
});

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "livery-contract-"));
  faults = {
    commons: new Faults(),
    sluice: new Faults(),
    gangway: new Faults(),
    bollard: new Faults(),
    tidemark: new Faults(),
  };
  const file = (name: string) => join(folder, `${name}.json`);
  const [commons, sluice, gangway] = [
    openCommons(file("commons")),
    openSluice(file("sluice")),
    openGangway(file("gangway")),
  ];
  const [bollard, tidemark] = [openBollard(file("bollard")), openTidemark(file("tidemark"))];
  tamper = {
    commons: (key) => tamperCommons(commons, key),
    sluice: (key) => tamperSluice(sluice, key),
    gangway: (key) => tamperGangway(gangway, key),
    tidemark: (key) => tamperTidemark(tidemark, key),
  };
  linked = (key, to) => {
    bollard.state.apps[key] = { title: key, linked: to };
  };
  const apis: Record<Platform, Router> = {
    commons: commonsApi(commons, faults.commons),
    sluice: sluiceApi(sluice, faults.sluice),
    gangway: gangwayApi(gangway, faults.gangway),
    bollard: bollardApi(bollard, faults.bollard),
    tidemark: tidemarkApi(tidemark, faults.tidemark),
  };
  changes = [];
  statuses = [];
  const app = express();
  app.use((request, response, next) => {
    response.once("finish", () => statuses.push(response.statusCode));
    if (request.method === "PUT" || request.method === "DELETE")
      changes.push(`${request.method} ${request.url}`);
    next();
  });
  for (const [platform, api] of Object.entries(apis)) app.use(`/${platform}/api`, api);
  app.get("/theme.css", (_, response) => {
    response
      .set("cache-control", "max-age=0")
      .type("css")
      .send(artefactOf(first(), STYLESHEET).body);
  });
  server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(() => {
  server.closeAllConnections();
  server.close();
  writeAll();
  rmSync(folder, { recursive: true, force: true });
});

const first = () => parcels[0] as Parcel;
const second = () => parcels[1] as Parcel;
const of = (platform: Platform, parcel: Parcel): Parcel => ({
  ...parcel,
  artefacts: parcel.artefacts.filter(
    (a) => (a as { platform?: Platform | null }).platform === platform,
  ),
});

function at(platform: Sending, as: "may" | "mayNot" = "may", key = ACCOUNTS[platform].key) {
  const link: Link = { address: `${address}/${platform}`, ...ACCOUNTS[platform][as] };
  const target = { link, key, hosted: `${address}/theme.css` };
  const connector = CONNECTORS[platform];
  return {
    connector,
    target,
    deliver: (parcel: Parcel | null) => connector.deliver(target, parcel && of(platform, parcel)),
    found: (parcel: Parcel | null) => connector.readBack(target, parcel && of(platform, parcel)),
    sent: (parcel: Parcel | null) => connector.expected(parcel && of(platform, parcel), target),
    obstacles: async (parcel: Parcel) =>
      (await connector.preflight(target, of(platform, parcel)))
        .filter((check) => check.outcome !== "clear")
        .map((check) => `${check.subject} ${check.fault?.code ?? "unknown"}`),
  };
}
const faultOf = async (work: Promise<unknown>) => {
  const error = await work.then(
    () => null,
    (e: unknown) => e,
  );
  if (error !== null && !(error instanceof DeliveryFault)) throw error;
  return error?.fault ?? null;
};

describe.each(SENDING)("%s", (platform) => {
  test("holds what was delivered, and its own look once it is taken back", async () => {
    const place = at(platform);
    for (const parcel of [first(), second(), null, first()]) {
      await place.deliver(parcel);
      expect(await place.found(parcel)).toEqual(place.sent(parcel));
    }
    expect(place.sent(first())).not.toEqual(place.sent(second()));
  });

  test("is asked for nothing a second time", async () => {
    const place = at(platform);
    await place.deliver(first());
    expect(changes.length).toBeGreaterThan(0);
    changes.length = 0;
    await place.deliver(first());
    await place.found(first());
    expect(changes).toEqual([]);
  });

  test("has a change whose answer was lost, and the next try finds it made", async () => {
    const place = at(platform);
    faults[platform].set({ loseShare: 1 });
    // The first try changes something, and hears nothing of it.
    expect(await faultOf(place.deliver(first()))).toEqual({
      code: "unreachable",
      address: place.target.link.address,
    });
    for (let tries = 0; tries < 5 && (await faultOf(place.deliver(first()))); tries++);
    faults[platform].set({});
    changes.length = 0;
    await place.deliver(first());
    expect(changes).toEqual([]);
    expect(await place.found(first())).toEqual(place.sent(first()));
  });

  test("is looked at before anything is sent, and nothing changes by that", async () => {
    expect(await at(platform).obstacles(first())).toEqual([]);
    expect(await at(platform, "mayNot").obstacles(first())).toContain("right no-right");
    expect(await at(platform, "may", "nowhere").obstacles(first())).toContain(
      "place no-such-place",
    );
    expect(changes).toEqual([]);
  });

  test("is not written to without the right, nor where there is no such place", async () => {
    expect(await faultOf(at(platform, "mayNot").deliver(first()))).toMatchObject({
      code: "no-right",
    });
    expect(await faultOf(at(platform, "may", "nowhere").deliver(first()))).toMatchObject({
      code: "no-such-place",
      key: "nowhere",
    });
    expect(await at(platform).found(null)).toEqual(at(platform).sent(null));
  });

  test("tells a refused account apart from one that may look only", async () => {
    const { connector, target } = at(platform);
    expect(await connector.probe(target.link)).toEqual({ mayPublish: true });
    expect(await connector.probe(at(platform, "mayNot").target.link)).toEqual({
      mayPublish: false,
    });
    const wrong = { ...target.link, secret: "no" };
    expect(await faultOf(connector.probe(wrong))).toEqual({
      code: "wrong-credential",
      account: wrong.account,
    });
  });

  test.each([
    [{ down: true }, "unreachable"],
    [{ nonsense: true }, "nonsense"],
  ] as const)("with %j hides what it can't show, and says so", async (settings, code) => {
    faults[platform].set(settings);
    const checks = await at(platform).connector.preflight(
      at(platform).target,
      of(platform, first()),
    );
    expect(checks.find((c) => c.subject === "reachable")?.fault?.code).toBe(code);
    expect(checks.find((c) => c.subject === "place")?.outcome).toBe("unknown");
    expect((await faultOf(at(platform).deliver(first())))?.code).toBe(code);
  });

  test("that asks for patience gets it, and its delivery", async () => {
    faults[platform].set({ throttlePerSecond: 1 });
    const place = at(platform);
    await place.deliver(first());
    expect(statuses).toContain(429);
    expect(await place.found(first())).toEqual(place.sent(first()));
  });

  test("changed behind our back differs slot by slot", async () => {
    const place = at(platform);
    await place.deliver(first());
    expect(tamper[platform](place.target.key)).toBe(true);
    expect(await place.found(first())).not.toEqual(place.sent(first()));
    expect(tamper[platform]("nowhere")).toBe(false);
  });
});

describe("commons", () => {
  test("never writes over another's palette of the same name", async () => {
    const place = at("commons");
    await place.deliver(first());
    const other = { ...second(), name: first().name };
    expect(await place.obstacles(other)).toEqual(["name name-taken"]);
    changes.length = 0;
    expect(await faultOf(place.deliver(other))).toMatchObject({ code: "name-taken" });
    expect(changes).toEqual([]);
  });

  test("a site that follows its hub can't be delivered to, and the hub says who follows it", async () => {
    expect(await at("commons", "may", "rota").obstacles(first())).toEqual(["place follows-hub"]);
    const checks = await CONNECTORS.commons.preflight(at("commons").target, of("commons", first()));
    expect(checks.find((c) => c.subject === "reach")?.inheritedBy).toContain("Crew rota");
  });
});

describe("bollard links what Livery hosts", () => {
  const place = () => ({
    link: { address: `${address}/bollard`, scope: "", account: "", secret: "" },
    key: "manifest",
    hosted: `${address}/theme.css`,
  });
  const outcome = async () =>
    (await CONNECTORS.bollard.preflight(place(), of("bollard", first())))
      .filter((c) => c.fault)
      .map((c) => c.fault?.code);

  test("nothing is sent, and a visit shows which version its pages have", async () => {
    linked("manifest", place().hosted);
    const parcel = of("bollard", first());
    expect(await outcome()).toEqual([]);
    await CONNECTORS.bollard.deliver(place(), parcel);
    expect(await CONNECTORS.bollard.readBack(place(), parcel)).toEqual(
      CONNECTORS.bollard.expected(parcel, place()),
    );
    expect(changes).toEqual([]);
  });

  test("another stylesheet, none, and no such app are told apart", async () => {
    linked("manifest", "http://old.example/a.css");
    expect(await outcome()).toEqual(["other-stylesheet"]);
    linked("manifest", null);
    expect(await faultOf(CONNECTORS.bollard.deliver(place(), null))).toEqual({
      code: "other-stylesheet",
      linked: "",
      hosted: place().hosted,
    });
    expect(
      await faultOf(CONNECTORS.bollard.readBack({ ...place(), key: "nowhere" }, null)),
    ).toEqual({ code: "no-such-place", key: "nowhere" });
  });
});
