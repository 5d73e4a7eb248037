import Color from "colorjs.io";
import { wcagContrast } from "culori";
import fc from "fast-check";
import { contrast, shownRatio } from "#core/colour/contrast.ts";
import { deltaEok } from "#core/colour/difference.ts";
import { luminance } from "#core/colour/luminance.ts";
import { type NotationError, readColour } from "#core/colour/notation.ts";
import { oklch } from "#core/colour/oklch.ts";
import { composite, fromHex, toHex } from "#core/colour/srgb.ts";

const anyColour = fc.integer({ min: 0, max: 0xffffff });

describe("luminance and contrast", () => {
  // WCAG 2.2, definitions of relative luminance and contrast ratio: black is 0, white 1, 21:1 apart.
  test("ends of the range are those of WCAG 2.2", () => {
    expect(luminance(0x000000)).toBe(0);
    expect(luminance(0xffffff)).toBeCloseTo(1, 12);
    expect(contrast(0x000000, 0xffffff)).toBeCloseTo(21, 12);
    expect(contrast(0x808080, 0x808080)).toBe(1);
  });

  // W3C, Understanding SC 1.4.3: #777777 on white is 4.47:1 and fails though it rounds to 4.5;
  // #767676 is the lightest grey that passes (4.54:1, widely published; value from memory).
  test("a ratio is never rounded up across a threshold", () => {
    expect(shownRatio(contrast(0x777777, 0xffffff))).toBe("4.47");
    expect(shownRatio(contrast(0x767676, 0xffffff))).toBe("4.54");
    expect(shownRatio(4.499)).toBe("4.49");
    expect(shownRatio(21)).toBe("21.00");
  });

  test("agrees with two independent libraries (colorjs.io, culori)", () => {
    fc.assert(
      fc.property(anyColour, anyColour, (a, b) => {
        const ours = contrast(a, b);
        expect(ours).toBeCloseTo(wcagContrast(toHex(a), toHex(b)), 6);
        // colorjs.io takes luminance from XYZ by unrounded sRGB primaries: 4 digits agree.
        expect(ours / new Color(toHex(a)).contrastWCAG21(toHex(b))).toBeCloseTo(1, 3);
        expect(ours).toBe(contrast(b, a));
      }),
    );
  });
});

describe("OKLCH", () => {
  // CSS Color 4, section "Sample code", and its Oklab examples: white and the primaries.
  test.each([
    ["#ffffff", 1, 0, 0],
    ["#ff0000", 0.62796, 0.25768, 29.234],
    ["#00ff00", 0.86644, 0.29483, 142.495],
    ["#0000ff", 0.45201, 0.31321, 264.052],
  ])("of %s", (hex, l, c, h) => {
    const got = oklch(fromHex(hex));
    expect(got.l).toBeCloseTo(l, 4);
    expect(got.c).toBeCloseTo(c, 4);
    expect(got.h).toBeCloseTo(h, 1);
  });

  test("agrees with colorjs.io, and greys have no hue", () => {
    fc.assert(
      fc.property(anyColour, (colour) => {
        const reference = new Color(toHex(colour)).to("oklab").coords as number[];
        const { l, c } = oklch(colour);
        expect(l).toBeCloseTo(reference[0] as number, 5);
        expect(c).toBeCloseTo(Math.hypot(reference[1] as number, reference[2] as number), 3);
      }),
    );
    expect(oklch(0x808080)).toMatchObject({ c: 0, h: 0 });
  });

  test("ΔEOK agrees with colorjs.io", () => {
    fc.assert(
      fc.property(anyColour, anyColour, (a, b) => {
        expect(deltaEok(a, b)).toBeCloseTo(new Color(toHex(a)).deltaE(toHex(b), "OK"), 4);
      }),
    );
  });
});

describe("notation", () => {
  const read = (text: string) => {
    const result = readColour(text);
    return result.ok ? toHex(result.value.colour) : result.error.code;
  };

  // Examples of CSS Color 4: hex, functional notations, hsl() and hwb() tables, named colours.
  test.each([
    ["#0b5e55", "#0b5e55"],
    ["0B5E55", "#0b5e55"],
    ["#abc", "#aabbcc"],
    ["rgb(11, 94, 85)", "#0b5e55"],
    ["rgb(11 94 85 / 50%)", "#0b5e55"],
    ["11, 94, 85", "#0b5e55"],
    ["hsl(120deg 100% 25%)", "#008000"],
    ["hwb(120 0% 49.8039%)", "#008000"],
    ["lab(46.2775% -47.5621 48.5837)", "#008000"],
    ["lch(46.2775% 67.9892 134.3912)", "#008000"],
    ["oklab(51.975% -0.1403 0.10768)", "#008000"],
    ["oklch(51.975% 0.17686 142.495)", "#008000"],
    ["color(srgb 0 0.50196 0)", "#008000"],
    ["color(display-p3 0.21604 0.49418 0.13151)", "#008000"],
    ["rebeccapurple", "#663399"],
    ["  Teal ; ", "#008080"],
  ])("%s is %s", (text, hex) => {
    expect(read(text)).toBe(hex);
  });

  test.each([
    ["", "empty"],
    ["#12345", "hex-length"],
    ["#12g", "hex-digit"],
    ["blurple", "unknown-name"],
    ["rgb(1, 2", "unclosed"],
    ["paint(1)", "unknown-function"],
    ["300, 1, 1", "triple-range"],
    ["rgb(red green blue)", "arguments"],
  ])("%p names its fault: %s", (text, code) => {
    expect(read(text)).toBe(code);
  });

  test("a colour outside sRGB is mapped in and said to be; alpha is kept", () => {
    const wide = readColour("color(display-p3 0 1 0)");
    expect(wide).toMatchObject({ ok: true, value: { mapped: true, alpha: 1 } });
    expect(readColour("rgb(0 0 0 / 25%)")).toMatchObject({
      ok: true,
      value: { alpha: 0.25, mapped: false },
    });
  });

  test("anything typed is a colour or an error in data, never a crash", () => {
    const piece = fc.constantFrom(
      "rgb(",
      "oklch(",
      "#",
      "0",
      "f",
      "255",
      "%",
      ",",
      " ",
      ")",
      "none",
      "/",
      "deg",
      "é",
      "-",
      "e9",
      "calc(",
    );
    const text = fc.oneof(
      fc.string(),
      fc.array(piece, { maxLength: 12 }).map((p) => p.join("")),
    );
    fc.assert(
      fc.property(text, (typed) => {
        const result = readColour(typed);
        if (result.ok) expect(toHex(result.value.colour)).toMatch(/^#[0-9a-f]{6}$/);
        else expect(typeof (result.error satisfies NotationError).code).toBe("string");
      }),
      { numRuns: 10_000 },
    );
  });

  test("hex written and read is the identity", () => {
    fc.assert(fc.property(anyColour, (colour) => expect(fromHex(toHex(colour))).toBe(colour)));
  });
});

// CSS Compositing: half-opaque black over white is mid grey (gamma-encoded sRGB).
test("compositing is that of CSS", () => {
  expect(composite(0x000000, 0.5, 0xffffff)).toBe(0x808080);
  expect(composite(0x123456, 1, 0xffffff)).toBe(0x123456);
});
