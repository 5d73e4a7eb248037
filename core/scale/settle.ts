import { APART, ON_WHITE } from "./contract.ts";
import { LADDER, STEPS, type Step } from "./ladder.ts";

/**
 * Where the steps of a brand-anchored scale stand. Levels are ln c, c the contrast against white.
 * Each step may leave its nominal level within an interval that the contract leaves free; the
 * brand's step is fixed on the brand's level, and the others take the smallest, smoothest
 * displacement that keeps every bound.
 */

const N = STEPS.length;
const NOMINAL: readonly number[] = STEPS.map((step) => Math.log(LADDER[step]));

/**
 * Room for 8-bit rounding, in ln c, that the solved levels keep from every bound of the contract:
 * half an 8-bit step of a grey is at most 0.9 % of (Y + 0.05) between the levels that a bound ties.
 */
const ROUNDING = 0.009;

/** Widest gap in ln c that ΔEOK 0.02 (0.01 at the light end) needs between neighbours, with rounding. */
const gap = (darker: number): number => ((STEPS[darker] as Step) <= 200 ? 0.045 : 0.105);

interface Interval {
  low: number;
  high: number;
}

/** The interval of each step against white and against a scale on the nominal levels. */
const INTERVALS: readonly Interval[] = STEPS.map((step, i) => {
  let low = 0;
  let high = Math.log(21);
  for (const { from, owed } of ON_WHITE) if (step >= from) low = Math.max(low, Math.log(owed));
  for (const { places, owed } of APART) {
    if (i - places >= 0) low = Math.max(low, (NOMINAL[i - places] as number) + Math.log(owed));
    if (i + places < N) high = Math.min(high, (NOMINAL[i + places] as number) - Math.log(owed));
  }
  return {
    low: low === 0 ? 0 : low + ROUNDING,
    high: high === Math.log(21) ? high : high - ROUNDING,
  };
});

/** The step nearest to a level (ln c, 0 to ln 21) among those whose interval holds it. */
export function anchorOf(level: number): Step {
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < N; i++) {
    const { low, high } = INTERVALS[i] as Interval;
    if (level < low || level > high) continue;
    const distance = Math.abs(level - (NOMINAL[i] as number));
    if (distance < least) {
      least = distance;
      best = i;
    }
  }
  return STEPS[best] as Step;
}

/** One bound: level[upper] − level[lower] ≥ least; an index of −1 stands for the constant 0. */
interface Bound {
  upper: number;
  lower: number;
  least: number;
}

const BOUNDS: readonly Bound[] = [
  ...INTERVALS.flatMap(({ low, high }, i) => [
    ...(low > 0 ? [{ upper: i, lower: -1, least: low }] : []),
    { upper: -1, lower: i, least: -high },
  ]),
  ...APART.flatMap(({ places, owed }) =>
    Array.from({ length: N - places }, (_, i) => ({
      upper: i + places,
      lower: i,
      least: Math.log(owed) + ROUNDING,
    })),
  ),
  ...Array.from({ length: N - 1 }, (_, i) => ({ upper: i + 1, lower: i, least: gap(i + 1) })),
];

/** How much staying near the nominal level weighs against being displaced like one's neighbours. */
const STAY = 0.35;

/**
 * Inverse of the cost's matrix with one step fixed, by step: the cost is
 * Σ (dᵢ₊₁ − dᵢ)² + STAY · Σ dᵢ² over the displacements d. The fixed step's row and column are 0.
 */
const INVERSES: readonly Float64Array[] = STEPS.map((_, fixed) => inverseWithout(fixed));

function inverseWithout(fixed: number): Float64Array {
  const free = Array.from({ length: N }, (_, i) => i).filter((i) => i !== fixed);
  const m = free.length;
  const rows = free.map((i, r) => {
    const row = new Float64Array(2 * m);
    free.forEach((j, c) => {
      row[c] =
        i === j ? STAY + (i > 0 ? 1 : 0) + (i < N - 1 ? 1 : 0) : Math.abs(i - j) === 1 ? -1 : 0;
    });
    row[m + r] = 1;
    return row;
  });
  for (let p = 0; p < m; p++) {
    const pivot = rows[p] as Float64Array;
    const scale = 1 / (pivot[p] as number);
    for (let c = 0; c < 2 * m; c++) pivot[c] = (pivot[c] as number) * scale;
    for (let r = 0; r < m; r++) {
      if (r === p) continue;
      const row = rows[r] as Float64Array;
      const factor = row[p] as number;
      if (factor !== 0)
        for (let c = 0; c < 2 * m; c++) row[c] = (row[c] as number) - factor * (pivot[c] as number);
    }
  }
  const inverse = new Float64Array(N * N);
  free.forEach((i, r) => {
    free.forEach((j, c) => {
      inverse[i * N + j] = (rows[r] as Float64Array)[m + c] as number;
    });
  });
  return inverse;
}

const MOST_SWEEPS = 400;
const TOLERANCE = 1e-7;

/**
 * Levels (ln c) of the eleven steps of a scale whose step `anchor` stands at `level`. The least
 * cost without bounds is found first; bounds that it breaks are met by Hildreth's dual coordinate
 * ascent for quadratic programmes (C. Hildreth, Naval Research Logistics Quarterly 4, 1957).
 */
export function settle(anchor: Step, level: number): Float64Array {
  const fixed = STEPS.indexOf(anchor);
  const inverse = INVERSES[fixed] as Float64Array;
  const displaced = level - (NOMINAL[fixed] as number);
  const levels = new Float64Array(N);
  for (let i = 0; i < N; i++) {
    const left = fixed > 0 ? (inverse[i * N + fixed - 1] as number) : 0;
    const right = fixed < N - 1 ? (inverse[i * N + fixed + 1] as number) : 0;
    levels[i] = (NOMINAL[i] as number) + displaced * (left + right);
  }
  levels[fixed] = level;
  const prices = new Float64Array(BOUNDS.length);
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let moved = 0;
    for (let j = 0; j < BOUNDS.length; j++)
      moved = Math.max(moved, meet(BOUNDS[j] as Bound, j, levels, prices, inverse, fixed));
    if (moved < TOLERANCE) break;
  }
  return levels;
}

/** Meets one bound as far as its price allows; returns how far a level moved. */
function meet(
  { upper, lower, least }: Bound,
  j: number,
  levels: Float64Array,
  prices: Float64Array,
  inverse: Float64Array,
  fixed: number,
): number {
  const up = upper === fixed ? -1 : upper;
  const down = lower === fixed ? -1 : lower;
  const curvature =
    (up < 0 ? 0 : (inverse[up * N + up] as number)) +
    (down < 0 ? 0 : (inverse[down * N + down] as number)) -
    (up < 0 || down < 0 ? 0 : 2 * (inverse[up * N + down] as number));
  if (curvature <= 0) return 0;
  const value =
    (upper < 0 ? 0 : (levels[upper] as number)) - (lower < 0 ? 0 : (levels[lower] as number));
  const price = Math.max(0, (prices[j] as number) + (least - value) / curvature);
  const change = price - (prices[j] as number);
  if (change === 0) return 0;
  prices[j] = price;
  let most = 0;
  for (let i = 0; i < N; i++) {
    const step =
      change *
      ((up < 0 ? 0 : (inverse[i * N + up] as number)) -
        (down < 0 ? 0 : (inverse[i * N + down] as number)));
    levels[i] = (levels[i] as number) + step;
    most = Math.max(most, Math.abs(step));
  }
  return most;
}
