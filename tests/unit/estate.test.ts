import fc from "fast-check";
import { alteredBy, type EstatePlace, effectiveThemes } from "#core/estate/effective.ts";
import { mayMove, mayStandBelow, withBelow } from "#core/estate/tree.ts";
import { planWaves } from "#core/estate/waves.ts";

const DAY = "2026-11-25";
const place = (
  id: string,
  parent: string | null,
  more: Partial<EstatePlace> = {},
): EstatePlace => ({
  id,
  parent,
  theme: null,
  locked: false,
  seasons: [],
  ...more,
});

/** Any estate of up to twenty places in which parents come first; themes, locks and seasons at will. */
const estates = fc
  .array(
    fc.record({
      above: fc.nat(),
      theme: fc.option(fc.constantFrom("sound", "harbour", "freight")),
      locked: fc.boolean(),
      season: fc.option(
        fc.record({
          theme: fc.constantFrom("winter", "summer"),
          from: fc.constantFrom("2026-11-01", "2026-11-25", "2026-12-01"),
          until: fc.constantFrom("2026-11-24", "2026-11-25", "2026-12-31"),
        }),
      ),
    }),
    { minLength: 1, maxLength: 20 },
  )
  .map((rows) =>
    rows.map(({ above, theme, locked, season }, i) =>
      place(`p${i}`, i === 0 ? null : `p${above % i}`, {
        theme,
        locked: locked && theme !== null,
        seasons: season ? [season] : [],
      }),
    ),
  );

test("a place takes its season, else its own, else its parent's theme, and says why", () => {
  const estate = [
    place("group", null, { theme: "sound" }),
    place("ferries", "group"),
    place("quayside", "ferries", {
      theme: "harbour",
      seasons: [{ theme: "winter", from: "2026-12-01", until: "2026-12-31" }],
    }),
    place("rota", "quayside"),
  ];
  const at = (day: string) => Object.fromEntries(effectiveThemes(estate, day));
  expect(at(DAY)).toEqual({
    group: { theme: "sound", reason: { kind: "own" } },
    ferries: { theme: "sound", reason: { kind: "inherited", from: "group", until: null } },
    quayside: { theme: "harbour", reason: { kind: "own" } },
    rota: { theme: "harbour", reason: { kind: "inherited", from: "quayside", until: null } },
  });
  expect(at("2026-12-31").quayside).toEqual({
    theme: "winter",
    reason: { kind: "season", until: "2026-12-31" },
  });
  expect(at("2026-12-31").rota?.reason).toMatchObject({ until: "2026-12-31" });
  expect(at("2027-01-01")).toEqual(at(DAY));
});

test("below a lock everybody has the locked theme, and a theme of one's own waits", () => {
  const estate = [
    place("group", null, { theme: "sound", locked: true }),
    place("works", "group", { theme: "harbour", locked: true }),
    place("slipway", "works"),
  ];
  const found = effectiveThemes(estate, DAY);
  expect(found.get("works")).toEqual({
    theme: "sound",
    reason: { kind: "locked", by: "group", until: null, ownWaits: true },
  });
  expect(found.get("slipway")).toMatchObject({ theme: "sound", reason: { ownWaits: false } });
});

test("laws of inheritance", () => {
  fc.assert(
    fc.property(estates, (estate) => {
      const found = effectiveThemes(estate, DAY);
      expect(found.size).toBe(estate.length);
      const byId = new Map(estate.map((p) => [p.id, p]));
      for (const p of estate) {
        const { theme, reason } = found.get(p.id) as NonNullable<ReturnType<typeof found.get>>;
        const above = p.parent === null ? undefined : found.get(p.parent);
        const season = p.seasons.find((s) => s.from <= DAY && DAY <= s.until);
        if (reason.kind === "locked") {
          expect(theme).toBe(found.get(reason.by)?.theme);
          expect(byId.get(reason.by)?.locked).toBe(true);
        } else expect(theme).toBe(season?.theme ?? p.theme ?? above?.theme ?? null);
      }
      expect(alteredBy(estate, estate, DAY)).toEqual([]);
      expect(effectiveThemes([...estate].reverse(), DAY)).toEqual(found);
    }),
  );
});

test("what a change would alter is what differs after it", () => {
  fc.assert(
    fc.property(estates, fc.nat(), (estate, n) => {
      const changed = estate.map((p, i) =>
        i === n % estate.length ? { ...p, theme: "other", locked: true } : p,
      );
      const altered = alteredBy(estate, changed, DAY);
      const after = effectiveThemes(changed, DAY);
      const before = effectiveThemes(estate, DAY);
      const differ = estate.filter((p) => before.get(p.id)?.theme !== after.get(p.id)?.theme);
      expect(altered.map((a) => a.place).sort()).toEqual(differ.map((p) => p.id).sort());
    }),
  );
});

test("waves hold every place once, test places first", () => {
  fc.assert(
    fc.property(fc.array(fc.boolean(), { maxLength: 200 }), (tests) => {
      const places = tests.map((isTest, i) => ({ id: `p${i}`, isTest }));
      const waves = planWaves(places);
      expect(waves.flat().sort()).toEqual(places.map((p) => p.id).sort());
      expect(waves.every((wave) => wave.length > 0)).toBe(true);
      const marked = places.filter((p) => p.isTest).map((p) => p.id);
      if (marked.length > 0 && places.length > 1) expect(waves[0]?.sort()).toEqual(marked.sort());
    }),
  );
});

test("kinds stand in their order, and nothing moves below itself", () => {
  expect(mayStandBelow("organisation", null)).toBe(true);
  expect(mayStandBelow("tenant", null)).toBe(false);
  expect(mayStandBelow("area", "application")).toBe(true);
  expect(mayStandBelow("area", "area")).toBe(true);
  expect(mayStandBelow("application", "organisation")).toBe(false);
  const estate = [place("a", null), place("b", "a"), place("c", "b"), place("d", "a")];
  expect(withBelow(estate, ["b"])).toEqual(new Set(["b", "c"]));
  expect(mayMove(estate, "b", "c")).toBe(false);
  expect(mayMove(estate, "b", "b")).toBe(false);
  expect(mayMove(estate, "c", "d")).toBe(true);
});
