import { contrast } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import { fromPlaneAt, oklch } from "../colour/oklch.ts";
import { BLACK, type Srgb, WHITE } from "../colour/srgb.ts";

/** How a suggested colour stands to the primary on the hue circle. */
export const HARMONIES = [
  "quieter",
  "complement",
  "neighbours",
  "split-complement",
  "triad",
  "same-hue",
] as const;
export type Harmony = (typeof HARMONIES)[number];

export const RENDERINGS = ["soft", "vivid"] as const;
export type Rendering = (typeof RENDERINGS)[number];

/** A colour that goes with the primary, with the text that reads best on it. */
export interface Suggestion {
  harmony: Harmony;
  rendering: Rendering;
  colour: Srgb;
  text: Srgb;
  /** Contrast of the text on the colour. */
  contrast: number;
}

/** Hue turns of each harmony, in degrees. The names and angles are colour theory's (common practice, no source). */
const TURNS: Record<Harmony, readonly number[]> = {
  quieter: [0],
  complement: [180],
  neighbours: [30, -30],
  "split-complement": [150, -150],
  triad: [120, -120],
  "same-hue": [0],
};

/** Chroma of each rendering as a share of what sRGB holds there, and the lightness it aims at. */
const LOOK: Record<Rendering, { share: number; lightness: number }> = {
  soft: { share: 0.45, lightness: 0.68 },
  vivid: { share: 0.92, lightness: 0.6 },
};

/** Of two suggestions nearer than this ΔEOK only the first is kept. */
const SAME = 0.02;

/**
 * Accents that go with a primary colour, in the order of the harmonies. The same seed (a whole
 * number; 0 for the plain ones) gives the same suggestions; others vary hue and lightness around them.
 */
export function suggestAccents(primary: Srgb, seed = 0): Suggestion[] {
  const source = oklch(primary);
  const random = seed === 0 ? () => 0 : spread(seed);
  const found: Suggestion[] = [];
  for (const harmony of HARMONIES)
    for (const turn of TURNS[harmony])
      for (const rendering of RENDERINGS) {
        const look = LOOK[rendering];
        const quiet = harmony === "quieter" ? 0.35 : 1;
        const lightness = harmony === "same-hue" ? otherLightness(source.l) : look.lightness;
        const colour = fromPlaneAt(
          source.h + turn + random() * 16,
          Math.min(0.92, Math.max(0.3, lightness + random() * 0.12)),
          source.c === 0 ? 0 : look.share * quiet * (1 + random() * 0.25),
        );
        if (deltaEok(colour, primary) < SAME) continue;
        if (found.some((s) => deltaEok(s.colour, colour) < SAME)) continue;
        found.push({ harmony, rendering, colour, ...bestText(colour) });
      }
  return found;
}

/** A whole palette from one colour: the primary, then an accent of each harmony in one rendering. */
export function suggestPalettes(
  primary: Srgb,
  seed = 0,
): { harmony: Harmony; rendering: Rendering; colours: Srgb[] }[] {
  const accents = suggestAccents(primary, seed);
  return HARMONIES.flatMap((harmony) =>
    RENDERINGS.flatMap((rendering) => {
      const own = accents.filter((a) => a.harmony === harmony && a.rendering === rendering);
      if (own.length === 0) return [];
      return [{ harmony, rendering, colours: [primary, ...own.map((a) => a.colour)] }];
    }),
  );
}

/** Black or white, whichever reads better on a colour; one of them always reaches 4.5:1. */
export function bestText(colour: Srgb): { text: Srgb; contrast: number } {
  const [onWhite, onBlack] = [contrast(WHITE, colour), contrast(BLACK, colour)];
  return onWhite >= onBlack
    ? { text: WHITE, contrast: onWhite }
    : { text: BLACK, contrast: onBlack };
}

/** A lightness well away from the primary's own. */
const otherLightness = (l: number): number => (l > 0.6 ? l - 0.3 : l + 0.3);

/**
 * Numbers from −1 to 1 that a seed alone decides: the mulberry32 generator (T. Ettinger, public
 * domain; constants from memory).
 */
function spread(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2_147_483_648 - 1;
  };
}
