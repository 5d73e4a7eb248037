import { AuditEntry, Place, SeasonRow, Theme } from "#server/db/models/index.ts";
import {
  applyChange,
  listSeasons,
  previewChange,
  removeSeason,
} from "#server/estate/assignments.ts";
import { exportEstate, importEstate, toCsv } from "#server/estate/listing.ts";
import {
  addPlace,
  findPlace,
  markTest,
  movePlace,
  type NewPlace,
  renamePlace,
  retirePlace,
} from "#server/estate/places.ts";
import { viewEstate } from "#server/estate/tree.ts";
import { newId, type PersonId, type PlaceId, type SeasonId, type ThemeId } from "#server/ids.ts";
import { planPlaces } from "#server/rollouts/plan.ts";
import { createRollout } from "#server/rollouts/rollouts.ts";
import { closeDatabase, freshDemo, placeOf, release } from "./system.ts";

let ines: PersonId;
let at: Record<string, PlaceId>;
let themes: Record<string, ThemeId>;
beforeEach(async () => {
  ({ ines } = await freshDemo());
  at = Object.fromEntries((await Place.findAll()).map((p) => [p.slug, p.id]));
  themes = Object.fromEntries((await Theme.findAll()).map((t) => [t.name, t.id]));
  await SeasonRow.destroy({ where: {} });
});
afterAll(closeDatabase);

const day = (offset: number) =>
  new Date(Date.now() + offset * 86_400_000).toISOString().slice(0, 10);
const rowOf = async (slug: string) =>
  (await viewEstate()).rows.find((row) => row.id === at[slug]) as NonNullable<
    Awaited<ReturnType<typeof viewEstate>>["rows"][number]
  >;
const themeAt = async (slug: string) => (await rowOf(slug)).effective.theme;
const wanted = (more: Partial<NewPlace> = {}): NewPlace => ({
  parent: at["orrin-sound-ferries"] as PlaceId,
  kind: "application",
  name: "Lost Property",
  connection: null,
  externalKey: null,
  page: null,
  ...more,
});
const id = (slug: string) => at[slug] as PlaceId;
const lastAction = async () =>
  (await AuditEntry.findOne({ order: [["id", "DESC"]] }))?.toJSON() as {
    action: string;
    personId: string;
    detail: Record<string, unknown>;
  };

describe("a place", () => {
  test("is added below another, inherits its theme, has an address of its own, and is in the log", async () => {
    const made = await addPlace(wanted({ name: "Fähren & Häfen" }), ines);
    const place = await findPlace((made as { id: PlaceId }).id);
    expect(place).toMatchObject({ name: "Fähren & Häfen", platform: null, live: null });
    expect(place?.slug).toMatch(/^[a-z0-9-]+$/);
    const row = (await viewEstate()).rows.find((r) => r.id === place?.id);
    expect(row?.effective).toMatchObject({
      theme: themes.Sound,
      reason: { kind: "inherited", from: id("orrin-sound-ferries") },
    });
    expect(await lastAction()).toMatchObject({ action: "place-added", personId: ines });
  });

  test("stands among others as people count", async () => {
    for (const name of ["Deck 10", "Deck 9", "Deck 1"]) await addPlace(wanted({ name }), ines);
    const names = (await viewEstate()).rows.map((row) => row.name);
    expect(names.filter((name) => name.startsWith("Deck"))).toEqual([
      "Deck 1",
      "Deck 9",
      "Deck 10",
    ]);
  });

  test("with a name that two tenants use gets another address", async () => {
    const first = await addPlace(wanted(), ines);
    const second = await addPlace(wanted({ parent: id("tarn-isle-freight") }), ines);
    const slugs = await Promise.all(
      [first, second].map(async (made) => (await findPlace((made as { id: PlaceId }).id))?.slug),
    );
    expect(slugs).toEqual(["lost-property", "lost-property-2"]);
  });

  test.each<[string, () => Partial<NewPlace>, string]>([
    ["below nothing", () => ({ parent: newId<PlaceId>() }), "no-such-place"],
    ["of a kind that can't stand there", () => ({ kind: "tenant" }), "kind-does-not-fit"],
    ["at the top, which only an organisation is", () => ({ parent: null }), "kind-does-not-fit"],
    ["with a sibling's name", () => ({ name: "QUAYSIDE" }), "name-taken"],
    ["by a connection that is gone", () => ({ connection: newId() }), "no-such-connection"],
  ])("is not added %s", async (_, more, code) => {
    const before = await Place.count();
    expect(await addPlace(wanted(more()), ines)).toEqual({ ok: false, code });
    expect(await Place.count()).toBe(before);
  });

  test("is renamed, but not as its sibling, and keeps its hosted address", async () => {
    expect(await renamePlace(id("quayside"), "Crew Portal", ines)).toMatchObject({
      code: "name-taken",
    });
    expect(await renamePlace(id("quayside"), "Quayside Two", ines)).toMatchObject({ ok: true });
    expect(await findPlace(id("quayside"))).toMatchObject({
      name: "Quayside Two",
      slug: "quayside",
    });
  });

  test("is moved with what is below it, and has the theme of its new place then", async () => {
    expect(await movePlace(id("quayside"), id("rota"), ines)).toMatchObject({
      code: "below-itself",
    });
    expect(await movePlace(id("quayside"), id("crew-portal"), ines)).toMatchObject({
      code: "kind-does-not-fit",
    });
    const change = {
      kind: "move",
      place: id("quayside"),
      parent: id("varrick-harbour-works"),
    } as const;
    const preview = await previewChange(change);
    expect(preview.altered.map((a) => a.name).sort()).toEqual([
      "Crew rota",
      "Galley and stores",
      "New starters",
      "Quayside",
      "Safety at sea",
    ]);
    expect(await themeAt("rota")).toBe(themes.Sound);
    await movePlace(change.place, change.parent, ines);
    expect(await themeAt("rota")).toBe(themes.Harbour);
  });

  test("is retired when nothing stands below it and nothing is under way, and its name is free again", async () => {
    expect(await retirePlace(id("quayside"), ines)).toMatchObject({ code: "has-places-below" });
    const sound = await release(ines, "#0b5e55", "Tide 1");
    await createRollout(
      {
        name: "Tide",
        gate: "clean",
        legs: [{ place: id("crew-portal"), release: sound }],
        startsAt: new Date(Date.now() + 3_600_000),
      },
      ines,
    );
    expect(await retirePlace(id("crew-portal"), ines)).toMatchObject({ code: "under-way" });
    expect(await retirePlace(id("ticket-office"), ines)).toMatchObject({ ok: true });
    expect(await findPlace(id("ticket-office"))).toBeNull();
    expect((await viewEstate()).rows.some((row) => row.id === id("ticket-office"))).toBe(false);
    expect(await addPlace(wanted({ name: "Ticket Office" }), ines)).toMatchObject({ ok: true });
    expect(await retirePlace(id("ticket-office"), ines)).toMatchObject({ code: "no-such-place" });
  });

  test("marked as a test place goes first", async () => {
    await markTest(id("quayside"), true, ines);
    expect((await rowOf("quayside")).isTest).toBe(true);
    await markTest(id("quayside"), false, ines);
    expect((await rowOf("quayside")).isTest).toBe(false);
  });
});

describe("a theme", () => {
  const give = (places: string[], theme: string | null) =>
    applyChange(
      { kind: "assign", places: places.map(id), theme: theme ? (themes[theme] ?? null) : null },
      ines,
    );
  const lock = (slug: string, locked: boolean) =>
    applyChange({ kind: "lock", place: id(slug), locked }, ines);

  test("is given to many at once, all or none, and what was said beforehand is what happens", async () => {
    const change = {
      kind: "assign" as const,
      places: ["quayside", "freight-desk"].map(id),
      theme: themes.Harbour as ThemeId,
    };
    const preview = await previewChange(change);
    const before = new Map((await viewEstate()).rows.map((r) => [r.id, r.effective.theme]));
    expect(await applyChange(change, ines)).toMatchObject({ ok: true, outcome: preview });
    const after = (await viewEstate()).rows.filter((r) => before.get(r.id) !== r.effective.theme);
    expect(new Set(after.map((r) => r.id))).toEqual(new Set(preview.altered.map((a) => a.place)));
    const partly = await applyChange(
      { ...change, places: [id("manifest"), newId<PlaceId>()] },
      ines,
    );
    expect(partly).toEqual({ ok: false, refusals: [{ code: "no-such-place" }] });
    expect(await themeAt("manifest")).toBe(themes.Freight);
  });

  test("that is locked holds for all below; their own wait and come back when it is unlocked", async () => {
    await give(["quayside"], "Harbour");
    expect(await lock("orrin-sound-group", true)).toMatchObject({
      refusals: [{ code: "no-theme-to-lock" }],
    });
    await lock("orrin-sound-ferries", true);
    expect(await themeAt("quayside")).toBe(themes.Sound);
    expect((await rowOf("quayside")).effective.reason).toMatchObject({
      kind: "locked",
      ownWaits: true,
    });
    expect(await give(["crew-portal"], "Freight")).toEqual({
      ok: false,
      refusals: [{ code: "locked-above", place: "Crew Portal", by: "Orrin Sound Ferries" }],
    });
    await lock("orrin-sound-ferries", false);
    expect(await themeAt("quayside")).toBe(themes.Harbour);
  });

  test("taken away lets a place inherit, and takes the lock with it", async () => {
    await lock("orrin-sound-ferries", true);
    await give(["orrin-sound-ferries"], null);
    expect(await rowOf("orrin-sound-ferries")).toMatchObject({ locked: false, own: null });
    expect(await themeAt("crew-portal")).toBeNull();
    expect((await rowOf("crew-portal")).effective.reason).toEqual({ kind: "none" });
  });
});

describe("a season", () => {
  const plan = (slug: string, from: number, until: number, theme = "Midwinter timetable") =>
    applyChange(
      {
        kind: "season",
        place: id(slug),
        theme: themes[theme] as ThemeId,
        from: day(from),
        until: day(until),
      },
      ines,
    );

  test("counts on both its days and no other, for everything below", async () => {
    await plan("orrin-sound-ferries", 0, 0);
    expect(await themeAt("rota")).toBe(themes["Midwinter timetable"]);
    expect((await rowOf("rota")).effective.reason).toMatchObject({ until: day(0) });
    const [season] = await listSeasons();
    await removeSeason(season?.id as never, ines);
    await plan("orrin-sound-ferries", 1, 2);
    expect(await themeAt("rota")).toBe(themes.Sound);
    expect(await lastAction()).toMatchObject({
      action: "season-added",
      detail: { place: "Orrin Sound Ferries", from: day(1) },
    });
  });

  test("neither ends before it begins nor overlaps another at the place, but may touch it", async () => {
    expect(await plan("quayside", 3, 2)).toMatchObject({
      refusals: [{ code: "ends-before-it-begins" }],
    });
    await plan("quayside", 2, 4);
    for (const [from, until] of [
      [4, 6],
      [0, 2],
      [3, 3],
      [0, 9],
    ] as const)
      expect(await plan("quayside", from, until)).toMatchObject({
        refusals: [{ code: "overlaps", place: "Quayside", from: day(2), until: day(4) }],
      });
    expect(await plan("quayside", 5, 6)).toMatchObject({ ok: true });
    expect(await plan("crew-portal", 3, 3)).toMatchObject({ ok: true });
    expect((await listSeasons(id("quayside"))).map((s) => s.from)).toEqual([day(2), day(5)]);
  });

  test("says what it would alter on its first day, not today", async () => {
    const change = {
      kind: "season" as const,
      place: id("sailings-board"),
      theme: themes.Harbour as ThemeId,
      from: day(10),
      until: day(12),
    };
    expect((await previewChange(change)).altered).toMatchObject([
      { name: "Sailings Board", before: themes.Sound, after: themes.Harbour, deliverable: true },
    ]);
  });

  test("the database itself refuses two that overlap", async () => {
    await plan("quayside", 2, 4);
    const row = await SeasonRow.findOne();
    await expect(
      SeasonRow.create({ ...(row?.toJSON() as SeasonRow), id: newId<SeasonId>() }),
    ).rejects.toMatchObject({ constraint: "seasons_do_not_overlap" });
  });
});

describe("a list of places", () => {
  const header = "path,kind,connection,key,page,theme,locked";
  const group = "Orrin Sound Group / Skerry Lights";

  test("exported is taken in again as it was, into an estate that has none of it", async () => {
    const before = await exportEstate();
    expect(before[0]).toMatchObject({ path: "Orrin Sound Group", kind: "organisation" });
    expect(before).toContainEqual(
      expect.objectContaining({
        path: "Orrin Sound Group / Varrick Harbour Works / Slipway",
        connection: "Commons, Varrick Harbour Works",
        key: "slipway",
      }),
    );
    await SeasonRow.destroy({ where: {} });
    await Place.destroy({ where: { kind: "area" } });
    await Place.destroy({ where: { kind: "application" } });
    await Place.destroy({ where: { kind: "tenant" } });
    await Place.destroy({ where: {} });
    for (const text of [toCsv(before), JSON.stringify(before)])
      expect(await importEstate(text, ines)).toMatchObject({ ok: true });
    expect(await exportEstate()).toEqual(before);
  });

  test("adds nothing where any line is wrong, and names each by its line and its reason", async () => {
    const before = await Place.count();
    const list = [
      header,
      `${group},tenant,,,,Sound,`,
      `${group} / Beacon,lighthouse,,,,,`,
      `"${group} / A name
on two lines",application,,,,,`,
      `Nowhere / Lamp,application,,,,,`,
      `${group} / Horn,application,,,,Loud,`,
      `${group} / Buoy,application,Sextant,x,,,`,
      `${group} / Deep / Diver,area,,,,,`,
      `Orrin Sound Group / Too high,application,,,,,`,
    ].join("\n");
    const result = await importEstate(list, ines);
    expect(result).toMatchObject({ ok: false });
    const { problems } = result as { problems: { line: number; code: string }[] };
    expect(problems.map(({ line, code }) => [line, code])).toEqual([
      [3, "no-such-kind"],
      [6, "nothing-above"],
      [7, "no-such-theme"],
      [8, "unknown-connection"],
      [9, "nothing-above"],
      [10, "kind-does-not-fit"],
    ]);
    expect(await Place.count()).toBe(before);
  });

  test.each([
    ["a CSV file with a quote left open", `${header}\n"Orrin,tenant`],
    ["JSON that stops", '[{"path": "Orrin'],
  ])("%s is unreadable, with why", async (_, text) => {
    expect(await importEstate(text, ines)).toMatchObject({
      ok: false,
      problems: [{ code: "unreadable", detail: expect.any(String) }],
    });
  });

  test("leaves what is there alone, and locks what it says", async () => {
    const result = await importEstate(
      `${header}\n${group},tenant,,,,Sound,yes\nOrrin Sound Group,organisation,,,,,\n`,
      ines,
    );
    expect(result).toEqual({ ok: true, added: 1, there: 1 });
    expect(await Place.findOne({ where: { name: "Skerry Lights" } })).toMatchObject({
      locked: true,
      themeId: themes.Sound,
    });
  });
});

test("what is planned are the places whose theme has something newer, and of a release those that have its theme", async () => {
  expect(await planPlaces(null, [])).toEqual([]);
  const sound = await release(ines, "#0b5e55", "Tide 1");
  const theme = (await Theme.findOne({ where: { name: "Theme for Tide 1" } }))?.id as ThemeId;
  expect(await planPlaces(sound, [])).toEqual([]);
  await applyChange({ kind: "assign", places: [id("varrick-harbour-works")], theme }, ines);
  const names = async (below: PlaceId[], of = sound as typeof sound | null) =>
    (await planPlaces(of, below)).map((p) => p.name);
  expect(await names([])).toEqual(["Berth Booking", "Hull Inspections", "Slipway"]);
  expect(await names([id("slipway")])).toEqual(["Slipway"]);
  expect(await names([id("orrin-sound-ferries")])).toEqual([]);
  expect(await names([], null)).toEqual(["Berth Booking", "Hull Inspections", "Slipway"]);
  expect((await planPlaces(null, []))[0]).toMatchObject({
    above: "Orrin Sound Group / Varrick Harbour Works",
    isTest: true,
    release: sound,
    live: null,
  });
  expect(await placeOf("slipway")).toBe(id("slipway"));
});
