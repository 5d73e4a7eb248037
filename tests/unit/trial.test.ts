import fc from "fast-check";
import { contrast } from "#core/colour/contrast.ts";
import { oklch } from "#core/colour/oklch.ts";
import { fromHex, toHex } from "#core/colour/srgb.ts";
import { STEPS } from "#core/scale/ladder.ts";
import { fromPrimary, setOverride, type ThemeDocument } from "#core/theme/document.ts";
import type { Override } from "#core/theme/override.ts";
import { keyOf } from "#core/theme/repairs.ts";
import { ROLES, type Role, SCHEMES, type Scheme } from "#core/theme/roles.ts";
import { STARTING_THEMES } from "#core/theme/starting.ts";
import { STRIPE_BANDS, stripeOf } from "#core/theme/stripe.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { nextShade, trialsOf } from "#core/theme/trial.ts";

const anyColour = fc.integer({ min: 0, max: 0xffffff }).map(toHex);
const shortOf = (document: ThemeDocument, scheme: Scheme) =>
  computeTheme(document).findings.filter(
    (f) => f.kind !== "alike" && f.scheme === scheme && f.level === "standard",
  );

test("a trial says of a change just what the theme would find once it is made", () => {
  fc.assert(
    fc.property(
      anyColour,
      fc.constantFrom(...ROLES),
      fc.constantFrom(...SCHEMES),
      fc.oneof(
        anyColour.map((colour): Override => ({ kind: "colour", colour })),
        fc.constantFrom(...STEPS).map((step): Override => ({ kind: "step", scale: "brand", step })),
      ),
      (primary, role, scheme, override) => {
        const document = fromPrimary(primary);
        const said = trialsOf(document, computeTheme(document), scheme)(role, override);
        const made = shortOf(setOverride(document, scheme, role, override), scheme);
        const before = new Set(shortOf(document, scheme).map(keyOf));
        expect(said).toBe(made.every((f) => before.has(keyOf(f)) && f.over !== role));
      },
    ),
    { numRuns: 60 },
  );
});

test("a trial of one scheme is not troubled by what falls short in the other", () => {
  const document = setOverride(fromPrimary("#0b5e55"), "dark", "link", {
    kind: "colour",
    colour: "#202020",
  });
  const light = trialsOf(document, computeTheme(document), "light");
  expect(light("link", { kind: "step", scale: "brand", step: 700 })).toBe(true);
  expect(light("link", { kind: "step", scale: "brand", step: 100 })).toBe(false);
});

describe("one shade darker or lighter", () => {
  const contrastOf = (document: ThemeDocument, scheme: Scheme, role: Role) =>
    contrast(computeTheme(document).schemes[scheme].standard[role].colour, fromHex("#ffffff"));

  test.each(["darker", "lighter"] as const)(
    "%s moves that way each time, and ends where there is no more",
    (towards) => {
      let document = fromPrimary("#0b5e55");
      for (let presses = 0; ; presses++) {
        const theme = computeTheme(document);
        const next = nextShade(theme, "light", "link", towards);
        if (next === null) break;
        const before = contrastOf(document, "light", "link");
        document = setOverride(document, "light", "link", next);
        const after = contrastOf(document, "light", "link");
        expect(towards === "darker" ? after > before : after < before).toBe(true);
        expect(presses).toBeLessThan(STEPS.length + 60);
      }
    },
  );

  test("of a role on a scale is the next step of it", () => {
    const theme = computeTheme(
      setOverride(fromPrimary("#0b5e55"), "light", "link", {
        kind: "step",
        scale: "brand",
        step: 600,
      }),
    );
    expect(nextShade(theme, "light", "link", "darker")).toEqual({
      kind: "step",
      scale: "brand",
      step: 700,
    });
    expect(nextShade(theme, "light", "link", "lighter")).toEqual({
      kind: "step",
      scale: "brand",
      step: 500,
    });
  });

  test("of a colour set by hand keeps its hue", () => {
    const theme = computeTheme(
      setOverride(fromPrimary("#0b5e55"), "light", "link", { kind: "colour", colour: "#9c3f24" }),
    );
    const next = nextShade(theme, "light", "link", "darker");
    if (next?.kind !== "colour") throw new Error("no colour");
    const turned = Math.abs(oklch(fromHex(next.colour)).h - oklch(fromHex("#9c3f24")).h);
    expect(Math.min(turned, 360 - turned)).toBeLessThan(3);
  });
});

test("every theme to start from passes at both levels of WCAG, and is told apart by its stripe", () => {
  const stripes = new Set<string>();
  for (const document of Object.values(STARTING_THEMES)) {
    for (const conformance of ["AA", "AAA"] as const) {
      const theme = computeTheme(document, conformance);
      expect(theme.findings.filter((f) => f.kind !== "alike")).toEqual([]);
    }
    const stripe = stripeOf(computeTheme(document));
    expect(stripe.light).toHaveLength(STRIPE_BANDS.length);
    stripes.add(JSON.stringify(stripe));
  }
  expect(stripes.size).toBe(Object.keys(STARTING_THEMES).length);
});
