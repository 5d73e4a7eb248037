import Color from "colorjs.io";
import fc from "fast-check";
import { contrast } from "#core/colour/contrast.ts";
import { oklch } from "#core/colour/oklch.ts";
import { fromHex, type Hex, pack, toHex, WHITE } from "#core/colour/srgb.ts";
import { PAIRS } from "#core/contrast/pairs.ts";
import { verdicts } from "#core/contrast/verdict.ts";
import { LADDER, STEPS } from "#core/scale/ladder.ts";
import { brandScale, nominalScale } from "#core/scale/scale.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { ROLES } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";

const anyColour = fc.integer({ min: 0, max: 0xffffff });
const themeOf = (primary: string) => computeTheme(fromPrimary(primary as Hex));

/** A grid of n³ colours over all of sRGB, its corners included. */
function grid(n: number): number[] {
  const channel = Array.from({ length: n }, (_, i) => Math.round((i * 255) / (n - 1)));
  return channel.flatMap((r) => channel.flatMap((g) => channel.map((b) => pack(r, g, b))));
}

describe("scale", () => {
  test("holds the brand colour bit for bit, and falls in luminance from step to step", () => {
    fc.assert(
      fc.property(anyColour, (brand) => {
        const { steps, brandStep } = brandScale(brand);
        expect(brandStep && steps[brandStep]).toBe(brand);
        const onWhite = STEPS.map((step) => contrast(steps[step], WHITE));
        for (let i = 1; i < onWhite.length; i++)
          expect(onWhite[i]).toBeGreaterThan(onWhite[i - 1] as number);
      }),
    );
  });

  test("nominal steps stand on the ladder to within 8-bit rounding", () => {
    fc.assert(
      fc.property(anyColour, (source) => {
        const { steps } = nominalScale(oklch(source));
        for (const step of STEPS)
          expect(Math.abs(Math.log(contrast(steps[step], WHITE) / LADDER[step]))).toBeLessThan(
            0.045,
          );
      }),
    );
  });

  test("a grey brand gives a grey scale", () => {
    for (const step of Object.values(brandScale(0x808080).steps)) expect(oklch(step).c).toBe(0);
  });
});

describe("theme", () => {
  test("no pair falls short, for a grid of 9³ colours over all of sRGB", () => {
    const failing = grid(9)
      .map(toHex)
      .filter((primary) => themeOf(primary).findings.length > 0);
    expect(failing).toEqual([]);
  });

  test("every pair passes by an independent library's measure (colorjs.io)", () => {
    for (const primary of ["#0b5e55", "#ffc800", "#14171a", "#ffffff", "#ff0000"]) {
      const theme = themeOf(primary);
      for (const scheme of ["light", "dark"] as const) {
        const colours = theme.schemes[scheme].standard;
        for (const { kind, over, ground } of PAIRS) {
          if (kind !== "text" && kind !== "boundary") continue;
          const measured = new Color(toHex(colours[over].colour)).contrastWCAG21(
            toHex(colours[ground].colour),
          );
          expect(measured).toBeGreaterThan((kind === "text" ? 4.5 : 3) - 0.005);
        }
      }
    }
  });

  test("the brand colour itself fills the action where it can be seen, else says what forbade it", () => {
    expect(themeOf("#0b5e55").schemes.light.standard.action).toEqual({
      colour: fromHex("#0b5e55"),
      reason: { kind: "brand", scale: "brand", step: 700 },
    });
    const black = themeOf("#14171a").schemes.dark.standard.action.reason;
    expect(black).toMatchObject({
      kind: "step",
      insteadOf: { scale: "brand", step: 950, ground: "canvas", owed: 3 },
    });
  });

  test("the same document gives the same theme, with a colour for every role", () => {
    const one = JSON.stringify(themeOf("#0b5e55"));
    expect(JSON.stringify(themeOf("#0b5e55"))).toBe(one);
    expect(Object.keys(themeOf("#c3202f").schemes.dark.more).sort()).toEqual([...ROLES].sort());
  });

  test("a verdict falls when a colour of its pair is spoilt", () => {
    const colours = { ...themeOf("#0b5e55").schemes.light.standard };
    colours.link = { ...colours.link, colour: 0x9adfd6 };
    const short = verdicts(colours, "standard").filter((v) => !v.passes);
    expect(short.map((v) => `${v.over} on ${v.ground}`)).toEqual([
      "link on canvas",
      "link on panel",
    ]);
  });
});
