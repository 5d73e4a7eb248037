import { ciede2000 } from "../colour/difference.ts";
import type { Lab } from "../colour/lab.ts";
import { closest, type Seen, seenByAll } from "../contrast/alike.ts";
import type { Bar } from "../contrast/pairs.ts";
import { envelopeOf, tone } from "../scale/envelope.ts";
import { type Derivation, nearestStepThatHolds } from "./derivation.ts";
import type { RoleColour } from "./reason.ts";
import type { Scheme } from "./roles.ts";

/**
 * Colours that a chart may draw from, as levels (contrast on white) and OKLCH hues. All hold their
 * boundary on panel; levels differ so that colours keep apart in lightness where hue is lost.
 */
const LEVELS: Record<Scheme, Record<"standard" | "strong", readonly number[]>> = {
  light: { standard: [3.3, 5, 7.5, 11, 15], strong: [4.9, 7, 10, 14, 18] },
  dark: { standard: [1.15, 1.5, 2, 2.8, 3.9], strong: [1.1, 1.35, 1.7, 2.2, 2.75] },
};
const HUES = [30, 85, 150, 225, 265, 330];
const CHROMA = 0.16;
const SERIES = 8;

interface Pool {
  colours: RoleColour[];
  seen: Seen[];
  /** Smallest CIEDE2000 over all kinds of vision, of every two colours: row by row. */
  apart: Float64Array;
}

const pools = new Map<string, Pool>();

function poolOf(scheme: Scheme, bar: Bar): Pool {
  const strength = bar === "more" ? "strong" : "standard";
  const key = `${scheme} ${strength}`;
  const known = pools.get(key);
  if (known) return known;
  const colours = LEVELS[scheme][strength].flatMap((level) =>
    HUES.map((hue): RoleColour => {
      const colour = tone(envelopeOf({ l: 0.6, c: CHROMA, h: hue }), level);
      return { colour, reason: { kind: "series", hue, contrastOnWhite: level } };
    }),
  );
  const seen = colours.map((c) => seenByAll(c.colour));
  const n = colours.length;
  const apart = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < i; j++) {
      const { measured } = closest(seen[i] as Seen, seen[j] as Seen);
      apart[i * n + j] = measured;
      apart[j * n + i] = measured;
    }
  const pool = { colours, seen, apart };
  pools.set(key, pool);
  return pool;
}

/**
 * The colour of a chart's series, counted from 0. The first is the brand's; each next is the one of
 * the pool that is farthest from all before it, whatever kind of vision looks.
 */
export function chartColour(d: Derivation, series: number): RoleColour {
  if (series === 0)
    return nearestStepThatHolds(d, "chart-1", "brand", d.scales.brand.brandStep ?? 500);
  d.charts ??= chartSeries(d);
  return d.charts[series - 1] as RoleColour;
}

/**
 * Chooses seven of the pool, one after the other, each with the largest distance to its nearest of
 * those before. Distances to the brand's colour are worked out only as far as the choice needs:
 * `bound` is never below the true distance, and `looked` counts the kinds of vision in it.
 */
function chartSeries(d: Derivation): RoleColour[] {
  const pool = poolOf(d.scheme, d.bar);
  const n = pool.colours.length;
  const first = seenByAll(d.colourOf("chart-1"));
  const bound = new Float64Array(n).fill(Number.POSITIVE_INFINITY);
  const looked = new Uint8Array(n);
  const taken: RoleColour[] = [];
  while (taken.length < SERIES - 1) {
    let best = 0;
    let farthest = -1;
    for (let i = 0; i < n; i++) {
      const seen = pool.seen[i] as Seen;
      while ((looked[i] as number) < first.length && (bound[i] as number) > farthest) {
        const v = LOOK_FIRST[looked[i] as number] as number;
        const difference = ciede2000(seen[v] as Lab, first[v] as Lab);
        bound[i] = Math.min(bound[i] as number, difference);
        looked[i] = (looked[i] as number) + 1;
      }
      if ((bound[i] as number) > farthest) {
        farthest = bound[i] as number;
        best = i;
      }
    }
    taken.push(pool.colours[best] as RoleColour);
    for (let i = 0; i < n; i++)
      bound[i] = Math.min(bound[i] as number, pool.apart[i * n + best] as number);
  }
  return taken;
}

/** Kinds of vision by how often they decide: deuteranopia, protanopia, tritanopia, typical. */
const LOOK_FIRST = [2, 1, 3, 0];
