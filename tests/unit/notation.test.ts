import Color from "colorjs.io";
import { colorsNamed } from "culori";
import fc from "fast-check";
import { contrast } from "#core/colour/contrast.ts";
import { deltaEok } from "#core/colour/difference.ts";
import { readColour } from "#core/colour/notation.ts";
import { fromHex, toHex } from "#core/colour/srgb.ts";

const colourOf = (text: string): number => {
  const read = readColour(text);
  if (!read.ok) throw new Error(`${text}: ${read.error.code}`);
  return read.value.colour;
};

// CSS Color 4, "Named Colors": 148 names; the list of names is culori's, their values colorjs.io's.
test("all CSS named colours have the values that another library gives them", () => {
  const names = Object.keys(colorsNamed as Record<string, number>);
  expect(names).toHaveLength(148);
  for (const name of names)
    expect([name, toHex(colourOf(name))]).toEqual([
      name,
      new Color(name).to("srgb").toString({ format: "hex", collapse: false }),
    ]);
});

// CSS Color 4, "CSS Gamut Mapping Algorithm": OKLCH chroma reduction with local clip. Two
// implementations may stop their search at other points within the just-noticeable 0.02.
test("colours outside sRGB are mapped as CSS Color 4 says (colorjs.io as reference)", () => {
  const wide = fc.tuple(
    fc.double({ min: 0.05, max: 0.95, noNaN: true }),
    fc.double({ min: 0, max: 0.4, noNaN: true }),
    fc.double({ min: 0, max: 360, noNaN: true }),
  );
  fc.assert(
    fc.property(wide, ([l, c, h]) => {
      const ours = colourOf(`oklch(${l.toFixed(6)} ${c.toFixed(6)} ${h.toFixed(6)})`);
      const theirs = new Color("oklch", [l, c, h]).toGamut({ space: "srgb", method: "css" });
      const hex = theirs.to("srgb").toString({ format: "hex", collapse: false });
      expect(deltaEok(ours, fromHex(hex))).toBeLessThan(0.021);
    }),
  );
});

test("the same colour in any notation is the same colour", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 0xffffff }), (colour) => {
      const hex = toHex(colour);
      const [r, g, b] = [colour >> 16, (colour >> 8) & 255, colour & 255];
      const reference = new Color(hex);
      for (const text of [
        hex.slice(1).toUpperCase(),
        `rgb(${r}, ${g}, ${b})`,
        `${r}, ${g}, ${b}`,
        `${r} ${g} ${b}`,
        ...["hsl", "hwb", "lab", "lch", "oklab", "oklch", "p3"].map((space) =>
          reference.to(space).toString({ precision: 8 }),
        ),
      ])
        expect([text, toHex(colourOf(text))]).toEqual([text, hex]);
    }),
  );
});

// axe-core's own contrast function is what accessibility checks in browsers go by.
test("contrast agrees with an accessibility checker's own function", async () => {
  const { default: axe } = await import("axe-core");
  const { color } = (axe as unknown as { commons: { color: AxeColour } }).commons;
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 0xffffff }),
      fc.integer({ min: 0, max: 0xffffff }),
      (a, b) => {
        const of = (c: number) => new color.Color(c >> 16, (c >> 8) & 255, c & 255, 1);
        expect(color.getContrast(of(a), of(b))).toBeCloseTo(contrast(a, b), 2);
      },
    ),
  );
});

interface AxeColour {
  Color: new (r: number, g: number, b: number, a: number) => object;
  getContrast(a: object, b: object): number;
}
