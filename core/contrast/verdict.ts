import { contrast } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import type { SchemeColours } from "../theme/reason.ts";
import type { ContrastLevel, Scheme } from "../theme/roles.ts";
import { NEIGHBOUR_DIFFERENCE, OWED, PAIRS, type Pair } from "./pairs.ts";

/** One pair measured in one scheme. `measured` is a WCAG ratio, or ΔEOK for neighbours. */
export interface PairVerdict extends Pair {
  measured: number;
  /** What the pair owes; 0 where it is exempt. */
  owed: number;
  passes: boolean;
}

/** A pair that falls short, with where. */
export interface Finding extends PairVerdict {
  scheme: Scheme;
  level: ContrastLevel;
}

/** Measures every pair of one scheme at one contrast level. */
export function verdicts(colours: SchemeColours, level: ContrastLevel): PairVerdict[] {
  return PAIRS.map((pair) => {
    const over = colours[pair.over].colour;
    const ground = colours[pair.ground].colour;
    if (pair.kind === "neighbour") {
      const measured = deltaEok(over, ground);
      return {
        ...pair,
        measured,
        owed: NEIGHBOUR_DIFFERENCE,
        passes: measured >= NEIGHBOUR_DIFFERENCE,
      };
    }
    const measured = contrast(over, ground);
    if (pair.kind === "inactive") return { ...pair, measured, owed: 0, passes: true };
    const owed = OWED[pair.kind][level];
    return { ...pair, measured, owed, passes: measured >= owed };
  });
}

/** The pairs that fall short in one scheme at one contrast level. */
export function findings(colours: SchemeColours, scheme: Scheme, level: ContrastLevel): Finding[] {
  return verdicts(colours, level)
    .filter((v) => !v.passes)
    .map((v) => ({ ...v, scheme, level }));
}
