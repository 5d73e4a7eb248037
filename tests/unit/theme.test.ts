import Color from "colorjs.io";
import fc from "fast-check";
import { fromHex, type Hex, toHex } from "#core/colour/srgb.ts";
import { CHART_FLOOR, closest, seenByAll } from "#core/contrast/alike.ts";
import { PAIRS } from "#core/contrast/pairs.ts";
import { DEFAULT_POLICY, refusals, type Waiver } from "#core/contrast/policy.ts";
import { verdicts } from "#core/contrast/verdict.ts";
import { compareThemes } from "#core/theme/comparison.ts";
import { fromPrimary, resetOverride, setOverride, themeDocument } from "#core/theme/document.ts";
import type { Override } from "#core/theme/override.ts";
import { applyRepair, keyOf, repairAll, repairsOf } from "#core/theme/repairs.ts";
import { CONTRAST_LEVELS, ROLES, type Role, SCHEMES } from "#core/theme/roles.ts";
import { computeTheme, type Theme } from "#core/theme/theme.ts";

const anyColour = fc.integer({ min: 0, max: 0xffffff }).map(toHex);
const anyRole = fc.constantFrom(...ROLES);
const anyScheme = fc.constantFrom(...SCHEMES);
const anyOverride: fc.Arbitrary<Override> = fc.oneof(
  anyColour.map((colour) => ({ kind: "colour" as const, colour })),
  fc.record({
    kind: fc.constant("step" as const),
    scale: fc.constantFrom("brand" as const, "neutral" as const),
    step: fc.constantFrom(50 as const, 300 as const, 700 as const),
  }),
  anyRole.map((role) => ({ kind: "role" as const, role })),
);
const themeOf = (primary: Hex) => computeTheme(fromPrimary(primary));
const short = (theme: Theme) => theme.findings.filter((f) => f.kind !== "alike");

test("no pair falls short with any accent and settings, under AA and AAA", () => {
  fc.assert(
    fc.property(
      anyColour,
      anyColour,
      fc.integer({ min: 0, max: 100 }),
      fc.constantFrom("AA" as const, "AAA" as const),
      (primary, accent, neutralTint, conformance) => {
        const document = { ...fromPrimary(primary), accent, neutralTint };
        expect(short(computeTheme(document, conformance)).map(keyOf)).toEqual([]);
      },
    ),
    { numRuns: 300 },
  );
});

test("every pair passes by an independent library's measure (colorjs.io)", () => {
  for (const primary of ["#0b5e55", "#ffc800", "#14171a", "#ffffff", "#ff0000"] as const) {
    const theme = themeOf(primary);
    for (const scheme of SCHEMES)
      for (const { kind, over, ground } of PAIRS) {
        if (kind !== "text" && kind !== "boundary") continue;
        const colours = theme.schemes[scheme].standard;
        const measured = new Color(toHex(colours[over].colour)).contrastWCAG21(
          toHex(colours[ground].colour),
        );
        expect(measured).toBeGreaterThan((kind === "text" ? 4.5 : 3) - 0.005);
      }
  }
});

test("the brand colour itself fills the action where it can be seen, else says what forbade it", () => {
  expect(themeOf("#0b5e55").schemes.light.standard.action).toEqual({
    colour: fromHex("#0b5e55"),
    reason: { kind: "brand", scale: "brand", step: 700 },
  });
  expect(themeOf("#14171a").schemes.dark.standard.action.reason).toMatchObject({
    kind: "step",
    insteadOf: { scale: "brand", step: 950, ground: "canvas", owed: 3 },
  });
});

test("a verdict falls when a colour of its pair is spoilt", () => {
  const colours = { ...themeOf("#0b5e55").schemes.light.standard };
  colours.link = { ...colours.link, colour: 0x9adfd6 };
  const fallen = verdicts(colours, "AA").filter((v) => !v.passes);
  expect(fallen.map((v) => `${v.over} on ${v.ground}`)).toEqual([
    "link on canvas",
    "link on panel",
  ]);
});

test("the same document gives the same bytes, and a colour for every role", () => {
  expect(JSON.stringify(themeOf("#c3202f"))).toBe(JSON.stringify(themeOf("#c3202f")));
  for (const scheme of SCHEMES)
    for (const level of CONTRAST_LEVELS)
      expect(Object.keys(themeOf("#c3202f").schemes[scheme][level])).toEqual([...ROLES]);
});

test("a document of earlier days, without the newer settings, is still read", () => {
  const old = { version: 1, primary: "#0b5e55", accent: null, neutralTint: 30 };
  expect(themeDocument.parse(old)).toEqual(fromPrimary("#0b5e55"));
  expect(themeDocument.safeParse({ ...old, primary: "teal" }).success).toBe(false);
});

describe("overrides", () => {
  test("setting and resetting any is the identity, and computing again changes nothing", () => {
    fc.assert(
      fc.property(anyColour, anyRole, anyScheme, anyOverride, (primary, role, scheme, override) => {
        const plain = fromPrimary(primary);
        const set = setOverride(plain, scheme, role, override);
        expect(themeDocument.parse(set)).toEqual(set);
        const once = JSON.stringify(computeTheme(set));
        expect(JSON.stringify(computeTheme(set))).toBe(once);
        expect(JSON.stringify(computeTheme(resetOverride(set, scheme, role)))).toBe(
          JSON.stringify(computeTheme(plain)),
        );
      }),
      { numRuns: 200 },
    );
  });

  test("one scheme's override leaves the other alone, and its dependents follow", () => {
    const plain = fromPrimary("#0b5e55");
    const before = computeTheme(plain);
    const after = computeTheme(
      setOverride(plain, "light", "action", { kind: "colour", colour: "#ffd34d" }),
    );
    expect(after.schemes.dark).toEqual(before.schemes.dark);
    expect(after.schemes.light.standard.action.colour).toBe(0xffd34d);
    expect(after.schemes.light.standard["action-text"].colour).not.toBe(
      before.schemes.light.standard["action-text"].colour,
    );
    expect(after.findings.map((f) => `${f.over} on ${f.ground}`)).toContain("action on canvas");
  });

  test("at more contrast what was set by hand is moved until it holds, and says so", () => {
    const document = setOverride(fromPrimary("#0b5e55"), "light", "link", {
      kind: "colour",
      colour: "#0b7a6e",
    });
    const { light } = computeTheme(document).schemes;
    expect(light.standard.link.colour).toBe(0x0b7a6e);
    expect(light.more.link.reason).toMatchObject({ kind: "override", moved: true });
  });

  test("roles set to each other in a circle are left to their rules, and nothing hangs", () => {
    const one = setOverride(fromPrimary("#0b5e55"), "dark", "link", {
      kind: "role",
      role: "focus",
    });
    const circle = setOverride(one, "dark", "focus", { kind: "role", role: "link" });
    expect(short(computeTheme(circle))).toEqual([]);
  });

  test("a translucent role is judged as it looks on canvas, and may be so only where it may", () => {
    const veil: Override = { kind: "colour", colour: "#000000", alpha: 0.5 };
    const theme = computeTheme(setOverride(fromPrimary("#0b5e55"), "light", "selection", veil));
    const { selection, canvas } = theme.schemes.light.standard;
    expect(selection.translucent).toEqual({ colour: 0, alpha: 0.5 });
    expect(selection.colour >> 16).toBe(Math.round((canvas.colour >> 16) / 2));
    expect(
      themeDocument.safeParse(setOverride(fromPrimary("#0b5e55"), "light", "link", veil)).success,
    ).toBe(false);
  });
});

describe("repairs", () => {
  test("each, made, removes its finding and adds none; they come nearest first", () => {
    fc.assert(
      fc.property(
        anyColour,
        fc.constantFrom<Role>("action", "link", "panel", "canvas-text", "success"),
        anyScheme,
        anyColour,
        (primary, role, scheme, colour) => {
          const document = setOverride(fromPrimary(primary), scheme, role, {
            kind: "colour",
            colour,
          });
          const theme = computeTheme(document);
          const finding = theme.findings[0];
          if (!finding) return;
          const before = theme.findings.map(keyOf);
          const repairs = repairsOf(document, theme, finding);
          expect(repairs.map((r) => r.distance)).toEqual(
            repairs.map((r) => r.distance).sort((a, b) => a - b),
          );
          for (const repair of repairs) {
            const after = computeTheme(applyRepair(document, repair)).findings.map(keyOf);
            expect(after).not.toContain(keyOf(finding));
            expect(after.filter((key) => !before.includes(key))).toEqual([]);
          }
        },
      ),
      { numRuns: 12 },
    );
  });

  test("a text set too faint is mended by moving it, or by leaving it to its rule", () => {
    const document = setOverride(fromPrimary("#0b5e55"), "light", "link", {
      kind: "colour",
      colour: "#5aa79e",
    });
    const theme = computeTheme(document);
    const finding = theme.findings.find((f) => f.over === "link");
    if (!finding) throw new Error("no finding");
    const kinds = repairsOf(document, theme, finding).map((r) => `${r.kind} ${r.role}`);
    expect(kinds).toContain("move link");
    expect(kinds).toContain("reset link");
  });
});

test("repairing everything mends every pair that one role can mend, and touches nothing that passes", () => {
  let document = fromPrimary("#0b5e55");
  for (const [role, colour] of [
    ["link", "#9fd4cd"],
    ["panel-text", "#d0d0d0"],
    ["success-line", "#e0f0e0"],
  ] as const)
    document = setOverride(document, "light", role, { kind: "colour", colour });
  expect(short(computeTheme(document)).length).toBeGreaterThan(5);
  const run = [...repairAll(document)].at(-1);
  if (!run) throw new Error("nothing was repaired");
  expect(short(computeTheme(run.document))).toEqual([]);
  expect(run.left).toEqual([]);
  expect(new Set(run.repairs.map((r) => r.scheme))).toEqual(new Set(["light"]));
  expect([...repairAll(run.document)]).toEqual([]);
  // What is shown is what is done: one change a role, and together they make the document.
  expect(new Set(run.repairs.map((r) => r.role)).size).toBe(run.repairs.length);
  expect(run.repairs.reduce(applyRepair, document)).toEqual(run.document);
});

describe("policy", () => {
  const document = setOverride(fromPrimary("#0b5e55"), "light", "link", {
    kind: "colour",
    colour: "#5aa79e",
  });
  const { findings } = computeTheme(document);
  const waiver: Waiver = {
    kind: "text",
    over: "link",
    ground: "canvas",
    scheme: "light",
    level: "standard",
    reason: "old brand book",
    by: "Ines",
    until: "2027-01-31",
  };

  test("a pair that falls short refuses a release, unless waived and until the waiver runs out", () => {
    const refused = (policy = DEFAULT_POLICY, waivers: Waiver[] = [], day = "2026-12-01") =>
      refusals(findings, policy, waivers, day).map((f) => `${f.over} on ${f.ground}`);
    expect(refused()).toEqual(["link on canvas", "link on panel"]);
    expect(refused(DEFAULT_POLICY, [waiver])).toEqual(["link on panel"]);
    expect(refused(DEFAULT_POLICY, [waiver], "2027-02-01")).toHaveLength(2);
    expect(refused({ ...DEFAULT_POLICY, waivers: false }, [waiver])).toHaveLength(2);
    expect(refused({ ...DEFAULT_POLICY, shortfall: "warn" })).toEqual([]);
  });

  test("a status that looks like the brand is a finding, and refuses nothing", () => {
    const red = themeOf("#c3202f");
    expect(red.findings.map(keyOf)).toContain("alike danger action light standard typical");
    expect(refusals(red.findings, DEFAULT_POLICY, [], "2026-12-01")).toEqual([]);
  });
});

test("two themes are compared role by role, with findings gained and lost", () => {
  const before = themeOf("#0b5e55");
  expect(compareThemes(before, before)).toEqual({ changes: [], gained: [], lost: [] });
  const document = setOverride(fromPrimary("#0b5e55"), "light", "link", {
    kind: "colour",
    colour: "#5aa79e",
  });
  const { changes, gained, lost } = compareThemes(before, computeTheme(document));
  const link = changes.find((c) => c.role === "link" && c.level === "standard");
  expect(link).toMatchObject({ scheme: "light", before: 0x0b5e55, after: 0x5aa79e });
  expect(link?.difference).toBeCloseTo(new Color("#0b5e55").deltaE("#5aa79e", "2000"), 0);
  expect(gained.map((f) => f.over)).toContain("link");
  expect(lost).toEqual([]);
});

test("eight chart colours keep the stated floor for everybody, measured anew", () => {
  fc.assert(
    fc.property(
      anyColour,
      anyScheme,
      fc.constantFrom(...CONTRAST_LEVELS),
      (primary, scheme, level) => {
        const colours = themeOf(primary).schemes[scheme][level];
        const seen = ROLES.filter((r) => r.startsWith("chart-")).map((r) =>
          seenByAll(colours[r].colour),
        );
        seen.forEach((a, i) => {
          for (const b of seen.slice(0, i))
            expect(closest(a, b).measured).toBeGreaterThanOrEqual(CHART_FLOOR);
        });
      },
    ),
  );
});
