import fc from "fast-check";
import { contrast } from "#core/colour/contrast.ts";
import { oklch } from "#core/colour/oklch.ts";
import { pack, type Srgb, WHITE } from "#core/colour/srgb.ts";
import { breaches } from "#core/scale/contract.ts";
import { LADDER, STEPS } from "#core/scale/ladder.ts";
import { brandScale, nominalScale } from "#core/scale/scale.ts";
import { NOMINAL_SCALES, type ScaleSources, themeScales } from "#core/scale/scales.ts";
import { suggestAccents, suggestPalettes } from "#core/scale/suggestions.ts";

const anyColour = fc.integer({ min: 0, max: 0xffffff });
const sources = (primary: Srgb, more: Partial<ScaleSources> = {}): ScaleSources => ({
  primary,
  accent: null,
  neutralTint: 30,
  hueDrift: { light: 0, dark: 0 },
  statusLean: 0,
  ...more,
});

/** Every broken bound of a theme's scales, those between scales included. */
function brokenBounds(from: ScaleSources): string[] {
  const scales = themeScales(from);
  const nominal = NOMINAL_SCALES.map((name) => scales[name]);
  return (["brand", "accent", ...NOMINAL_SCALES] as const).flatMap((name) =>
    breaches(scales[name], nominal).map(
      (b) => `${from.primary.toString(16)} ${name} ${JSON.stringify(b)}`,
    ),
  );
}

test("the contract holds for a grid of 17³ brand colours over all of sRGB", () => {
  const channel = Array.from({ length: 17 }, (_, i) => Math.round((i * 255) / 16));
  const broken = channel.flatMap((r) =>
    channel.flatMap((g) => channel.flatMap((b) => brokenBounds(sources(pack(r, g, b))))),
  );
  expect(broken).toEqual([]);
});

test("the contract holds for any brand colours and settings", () => {
  const drift = fc.integer({ min: -60, max: 60 });
  fc.assert(
    fc.property(
      anyColour,
      anyColour,
      fc.integer({ min: 0, max: 100 }),
      fc.record({ light: drift, dark: drift }),
      fc.double({ min: 0, max: 8, noNaN: true }),
      (primary, accent, neutralTint, hueDrift, statusLean) => {
        expect(brokenBounds({ primary, accent, neutralTint, hueDrift, statusLean })).toEqual([]);
      },
    ),
    { numRuns: 300 },
  );
});

test("a broken bound is seen", () => {
  const scale = brandScale(0x0b5e55);
  const spoilt = { ...scale, steps: { ...scale.steps, 600: 0x8fc0ba, 300: scale.steps[400] } };
  const kinds = new Set(breaches(spoilt).map((b) => b.kind));
  expect(kinds).toEqual(new Set(["apart", "on-white", "order", "neighbours"]));
});

test("the brand colour stands in its scale bit for bit, and moves the others no more than it must", () => {
  fc.assert(
    fc.property(anyColour, (brand) => {
      const { steps, brandStep } = brandScale(brand);
      expect(brandStep && steps[brandStep]).toBe(brand);
    }),
  );
  // A brand colour on its nominal level leaves every other step on its own.
  const { steps } = nominalScale(oklch(0x0b5e55));
  for (const step of STEPS)
    expect(
      Math.abs(Math.log(contrast(brandScale(steps[600]).steps[step], WHITE) / LADDER[step])),
    ).toBeLessThan(0.03);
});

test("a grey brand gives a grey scale", () => {
  for (const grey of [0x000000, 0x808080, 0xffffff])
    for (const step of Object.values(brandScale(grey).steps)) expect(oklch(step).c).toBe(0);
});

test("a hue drift turns the ends and leaves the brand colour alone", () => {
  const plain = brandScale(0x1d4f91);
  const drifted = brandScale(0x1d4f91, { light: 30, dark: -30 });
  expect(drifted.steps[drifted.brandStep ?? 50]).toBe(0x1d4f91);
  expect(oklch(drifted.steps[300]).h).toBeGreaterThan(oklch(plain.steps[300]).h + 5);
  expect(oklch(drifted.steps[900]).h).toBeLessThan(oklch(plain.steps[900]).h - 2);
});

describe("suggestions", () => {
  test("each says the text that reads best on it, which always reaches 4.5:1", () => {
    fc.assert(
      fc.property(anyColour, fc.nat(), (primary, seed) => {
        const suggested = suggestAccents(primary, seed);
        expect(suggested.length).toBeGreaterThan(1);
        for (const s of suggested) {
          expect(s.contrast).toBeGreaterThanOrEqual(4.5);
          expect(contrast(s.text, s.colour)).toBe(s.contrast);
        }
      }),
    );
  });

  test("the same seed gives the same, another gives others; a grey gets no hue", () => {
    expect(suggestPalettes(0x0b5e55, 5)).toEqual(suggestPalettes(0x0b5e55, 5));
    expect(suggestPalettes(0x0b5e55, 5)).not.toEqual(suggestPalettes(0x0b5e55, 6));
    expect(suggestPalettes(0x0b5e55)[0]?.colours[0]).toBe(0x0b5e55);
    for (const s of suggestAccents(0x808080, 3)) expect(oklch(s.colour).c).toBe(0);
  });
});
