import Color from "colorjs.io";
import { clampChroma, converter, formatHex, wcagLuminance } from "culori";
import { luminanceAt } from "#core/colour/luminance.ts";
import { readColour } from "#core/colour/notation.ts";
import { toHex } from "#core/colour/srgb.ts";
import { barOf } from "#core/contrast/pairs.ts";
import { verdicts } from "#core/contrast/verdict.ts";
import { LADDER, STEPS } from "#core/scale/ladder.ts";
import { brandScale } from "#core/scale/scale.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { CONTRAST_LEVELS, SCHEMES } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";

/** Times of the core on one core, medians after warm-up, beside the same scale done with two colour libraries. */

const colourAt = (i: number): number => (Math.imul(i + 1, 2654435761) >>> 8) & 0xffffff;

interface Timing {
  name: string;
  median: number;
  p95: number;
}

function time(name: string, runs: number, work: (i: number) => unknown): Timing {
  let kept: unknown;
  for (let i = 0; i < runs; i++) kept = work(i);
  const times = Float64Array.from({ length: runs }, (_, i) => {
    const start = performance.now();
    kept = work(runs + i);
    return performance.now() - start;
  }).sort();
  if (kept === undefined) throw new Error("nothing was computed");
  return {
    name,
    median: times[runs >> 1] as number,
    p95: times[Math.floor(runs * 0.95)] as number,
  };
}

const toOklch = converter("oklch");

/** A scale the straightforward way: bisect the lightness of each step, mapping into sRGB at every try. */
function scaleWithCulori(brand: string): string[] {
  const { c, h } = toOklch(brand) ?? { c: 0, h: 0 };
  return STEPS.map((step) => {
    const wanted = luminanceAt(LADDER[step]);
    let [low, high] = [0, 1];
    let colour = "";
    for (let i = 0; i < 16; i++) {
      const l = (low + high) / 2;
      const mapped = clampChroma(
        { mode: "oklch", l, c, ...(h === undefined ? {} : { h }) },
        "oklch",
      );
      if (wcagLuminance(mapped) < wanted) low = l;
      else high = l;
      colour = formatHex(mapped) ?? colour;
    }
    return colour;
  });
}

function scaleWithColorjs(brand: string): string[] {
  const source = new Color(brand).to("oklch");
  return STEPS.map((step) => {
    const wanted = luminanceAt(LADDER[step]);
    let [low, high] = [0, 1];
    let mapped = source;
    for (let i = 0; i < 16; i++) {
      const l = (low + high) / 2;
      mapped = new Color("oklch", [l, source.coords[1], source.coords[2]]).toGamut({
        space: "srgb",
        method: "css",
      });
      if (mapped.luminance < wanted) low = l;
      else high = l;
    }
    return mapped.to("srgb").toString({ format: "hex" });
  });
}

/** A million random and mutated texts: whatever is typed is a colour or an error in data. */
function fuzz(count: number): { colours: number; errors: number } {
  const pieces = [
    "rgb(",
    "oklch(",
    "lab(",
    "color(display-p3 ",
    "#",
    "0",
    "f",
    "255",
    "50%",
    ",",
    " ",
    ")",
    "none",
    "/",
    "deg",
    "é",
    "-",
    "1e9",
    "calc(",
    "red",
    "\u0000",
    "(",
    "NaN",
  ];
  let seed = 7;
  const next = (n: number) => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed % n;
  };
  const whole = [
    "rgb(11 94 85)",
    "hsl(173 79% 21%)",
    "#0b5e55",
    "oklch(44% 0.08 183 / 50%)",
    "11, 94, 85",
    "rebeccapurple",
  ];
  let colours = 0;
  for (let i = 0; i < count; i++) {
    let text = i % 2 ? (whole[next(whole.length)] as string) : "";
    for (let n = next(6); n >= 0; n--) {
      const at = next(text.length + 1);
      text = text.slice(0, at) + pieces[next(pieces.length)] + text.slice(at + next(3));
    }
    if (readColour(text).ok) colours++;
  }
  return { colours, errors: count - colours };
}

const scale = time("one scale", 4000, (i) => brandScale(colourAt(i)));
const theme = time("a whole theme with every verdict", 2000, (i) =>
  computeTheme(fromPrimary(toHex(colourAt(i)))),
);
const known = computeTheme(fromPrimary("#0b5e55"));
const full = time("every verdict of a theme, as objects", 2000, () =>
  SCHEMES.map((s) => CONTRAST_LEVELS.map((l) => verdicts(known.schemes[s][l], barOf(l, "AA")))),
);
const culori = time("11 solves with culori", 60, (i) => scaleWithCulori(toHex(colourAt(i))));
const colorjs = time("11 solves with colorjs.io", 20, (i) => scaleWithColorjs(toHex(colourAt(i))));

for (const { name, median, p95 } of [scale, theme, full, culori, colorjs])
  console.log(
    `${name.padEnd(38)} median ${median.toFixed(4).padStart(9)} ms   p95 ${p95.toFixed(4).padStart(9)} ms`,
  );
console.log(
  `one scale takes 1/${Math.round(culori.median / scale.median)} of culori's time, 1/${Math.round(colorjs.median / scale.median)} of colorjs.io's`,
);

const start = performance.now();
const { colours, errors } = fuzz(1_000_000);
console.log(
  `1,000,000 fuzzed notations: ${colours} colours, ${errors} errors, none thrown, ${((performance.now() - start) / 1000).toFixed(1)} s`,
);
