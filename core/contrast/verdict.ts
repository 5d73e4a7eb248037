import { contrast } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import type { SchemeColours } from "../theme/reason.ts";
import type { ContrastLevel, Scheme } from "../theme/roles.ts";
import type { AlikeFinding } from "./alike.ts";
import { type Bar, NEIGHBOUR_DIFFERENCE, OWED, PAIRS, type Pair } from "./pairs.ts";

/** One pair measured in one scheme. `measured` is a WCAG ratio, or ΔEOK for neighbours. */
export interface PairVerdict extends Pair {
  measured: number;
  /** What the pair owes; 0 where it is exempt. */
  owed: number;
  passes: boolean;
}

/** A pair that falls short, with where. */
export interface PairFinding extends PairVerdict {
  scheme: Scheme;
  level: ContrastLevel;
}

/** Everything that a theme can fall short in. */
export type Finding = PairFinding | AlikeFinding;

/** What a pair owes under a bar: a WCAG ratio, or ΔEOK for neighbours; 0 where it is exempt. */
export function owedBy(pair: Pair, bar: Bar): number {
  if (pair.kind === "neighbour") return NEIGHBOUR_DIFFERENCE;
  return pair.kind === "inactive" ? 0 : OWED[pair.kind][bar];
}

function measure(pair: Pair, colours: SchemeColours): number {
  const over = colours[pair.over].colour;
  const ground = colours[pair.ground].colour;
  return pair.kind === "neighbour" ? deltaEok(over, ground) : contrast(over, ground);
}

function verdict(pair: Pair, measured: number, owed: number): PairVerdict {
  const { kind, over, ground } = pair;
  return { kind, over, ground, measured, owed, passes: measured >= owed };
}

/** Measures every pair of one scheme against a bar. */
export function verdicts(colours: SchemeColours, bar: Bar): PairVerdict[] {
  return PAIRS.map((pair) => verdict(pair, measure(pair, colours), owedBy(pair, bar)));
}

/** The pairs that fall short in one scheme at one contrast level. */
export function pairFindings(
  colours: SchemeColours,
  scheme: Scheme,
  level: ContrastLevel,
  bar: Bar,
): PairFinding[] {
  const found: PairFinding[] = [];
  for (const pair of PAIRS) {
    const measured = measure(pair, colours);
    const owed = owedBy(pair, bar);
    if (measured < owed) found.push({ ...verdict(pair, measured, owed), scheme, level });
  }
  return found;
}
