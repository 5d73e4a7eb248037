import { contrast } from "../colour/contrast.ts";
import { luminance } from "../colour/luminance.ts";
import { BLACK, type Srgb, WHITE } from "../colour/srgb.ts";
import { type Bar, dutiesOf } from "../contrast/pairs.ts";
import { tone } from "../scale/envelope.ts";
import { STEPS, type Step } from "../scale/ladder.ts";
import { SCALE_NAMES, type ScaleName, type Scales } from "../scale/scales.ts";
import type { FillPlan } from "./fill.ts";
import type { Refused, RoleColour } from "./reason.ts";
import type { Role, Scheme } from "./roles.ts";

/** The steps of every scale as role colours, made once a theme and shared by its derivations. */
export type StepColours = Record<ScaleName, readonly RoleColour[]>;

/** What a role's rule may look at. `colourOf` derives the asked role first where it must. */
export interface Derivation {
  scales: Scales;
  steps: StepColours;
  scheme: Scheme;
  bar: Bar;
  colourOf(role: Role): Srgb;
  /** The colour that a person set a role to; null where it is left to its rule. */
  setByHand(role: Role): RoleColour | null;
  /** Plans of fills that were made already, by the fill. */
  plans: Map<Role, FillPlan>;
  /** Chart colours after the first, once they are chosen. */
  charts: RoleColour[] | null;
}

/** One value for each scheme. */
export interface ByScheme<T> {
  light: T;
  dark: T;
}

/** Luminance at which black and white read equally well: (Y + 0.05)² = 1.05 · 0.05. */
const MID_LUMINANCE = 0.179;

export const white: RoleColour = { colour: WHITE, reason: { kind: "white" } };
export const black: RoleColour = { colour: BLACK, reason: { kind: "black" } };

/** The brand colour is called by its name, every other step by its number. */
export function stepColoursOf(scales: Scales): StepColours {
  const colours = {} as Record<ScaleName, readonly RoleColour[]>;
  for (const scale of SCALE_NAMES) {
    const { steps, brandStep } = scales[scale];
    colours[scale] = STEPS.map((step) => ({
      colour: steps[step],
      reason: { kind: brandStep === step ? "brand" : "step", scale, step },
    }));
  }
  return colours;
}

const INDEX = Object.fromEntries(STEPS.map((step, i) => [step, i])) as Record<Step, number>;

export function stepColour(d: Derivation, scale: ScaleName, step: Step): RoleColour {
  return d.steps[scale][INDEX[step]] as RoleColour;
}

/** A shade of a scale that stands between, or beyond, its steps: contrast on white, 1 to 21. */
export function toneColour(d: Derivation, scale: ScaleName, contrastOnWhite: number): RoleColour {
  return {
    colour: tone(d.scales[scale].envelope, contrastOnWhite),
    reason: { kind: "tone", scale, contrastOnWhite },
  };
}

type Shortfall = Omit<Refused, "scale" | "step">;

/** The first duty of a role that a colour does not meet, or null. */
export function shortfall(d: Derivation, role: Role, colour: Srgb): Shortfall | null {
  for (const { ground, owed } of dutiesOf(role, d.bar)) {
    const measured = contrast(colour, d.colourOf(ground));
    if (measured < owed) return { ground, measured, owed };
  }
  return null;
}

/** Whether most people would put black rather than white on a ground. */
export const isLight = (colour: Srgb): boolean => luminance(colour) > MID_LUMINANCE;

/**
 * The wanted step where it meets the role's duties; else the next steps away from the ground, then
 * its end (black or white), then the other way. One of black and white always reaches 4.5:1.
 */
export function readableStep(
  d: Derivation,
  role: Role,
  scale: ScaleName,
  wanted: ByScheme<Step>,
): RoleColour {
  const first = stepColour(d, scale, wanted[d.scheme]);
  const refused = shortfall(d, role, first.colour);
  if (refused === null) return first;
  const start = INDEX[wanted[d.scheme]];
  const away = isLight(d.colourOf(refused.ground)) ? 1 : -1;
  const found = alongScale(d, role, scale, start, away) ?? alongScale(d, role, scale, start, -away);
  return withRefusal(found ?? bestOf(d, role), first, refused);
}

/** The first step from `start` on that holds, walking darker (1) or lighter (−1), then the end. */
function alongScale(
  d: Derivation,
  role: Role,
  scale: ScaleName,
  start: number,
  by: number,
): RoleColour | null {
  for (let i = start + by; i >= 0 && i < STEPS.length; i += by) {
    const candidate = d.steps[scale][i] as RoleColour;
    if (shortfall(d, role, candidate.colour) === null) return candidate;
  }
  const end = by > 0 ? black : white;
  return shortfall(d, role, end.colour) === null ? end : null;
}

/** Where nothing holds (grounds set by hand that exclude each other): black or white, whichever is nearer to it. */
function bestOf(d: Derivation, role: Role): RoleColour {
  const worst = (colour: Srgb) =>
    Math.min(...dutiesOf(role, d.bar).map((x) => contrast(colour, d.colourOf(x.ground)) / x.owed));
  return worst(BLACK) >= worst(WHITE) ? black : white;
}

/** The wanted step where it meets the role's duties, else the nearest that does, in either direction. */
export function nearestStepThatHolds(
  d: Derivation,
  role: Role,
  scale: ScaleName,
  wanted: Step,
): RoleColour {
  const first = stepColour(d, scale, wanted);
  let refused: Shortfall | null = null;
  for (const candidate of byDistance(d, scale, wanted)) {
    const short = shortfall(d, role, candidate.colour);
    if (short === null) return withRefusal(candidate, first, refused);
    refused ??= short;
  }
  return withRefusal(bestOf(d, role), first, refused);
}

/** All steps of a scale, nearest to the wanted one first (of two as near, the darker), then black and white. */
export function* byDistance(d: Derivation, scale: ScaleName, wanted: Step): Generator<RoleColour> {
  const start = INDEX[wanted];
  const all = d.steps[scale];
  yield all[start] as RoleColour;
  for (let away = 1; away < STEPS.length; away++) {
    const darker = all[start + away];
    const lighter = all[start - away];
    if (darker) yield darker;
    if (lighter) yield lighter;
  }
  yield black;
  yield white;
}

/** Keeps with a colour that the wanted step could not be taken, and why. */
export function withRefusal(
  taken: RoleColour,
  wanted: RoleColour,
  refused: Shortfall | null,
): RoleColour {
  if (refused === null || taken.reason.kind !== "step") return taken;
  if (wanted.reason.kind !== "step" && wanted.reason.kind !== "brand") return taken;
  const { scale, step } = wanted.reason;
  return { ...taken, reason: { ...taken.reason, insteadOf: { scale, step, ...refused } } };
}
