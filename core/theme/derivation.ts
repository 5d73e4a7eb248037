import { contrast } from "../colour/contrast.ts";
import { luminance } from "../colour/luminance.ts";
import { BLACK, type Srgb, WHITE } from "../colour/srgb.ts";
import { dutiesOf } from "../contrast/pairs.ts";
import { tone } from "../scale/envelope.ts";
import { STEPS, type Step } from "../scale/ladder.ts";
import type { ScaleName, Scales } from "../scale/scales.ts";
import type { Refused, RoleColour } from "./reason.ts";
import type { ContrastLevel, Role, Scheme } from "./roles.ts";

/** What a role's rule may look at. `colourOf` derives the asked role first where it must. */
export interface Derivation {
  scales: Scales;
  scheme: Scheme;
  level: ContrastLevel;
  colourOf(role: Role): Srgb;
}

/** One value for each scheme. */
export interface ByScheme<T> {
  light: T;
  dark: T;
}

/** Black on white reaches 21:1; luminance 0.18 is where black and white read equally well on a fill. */
const MID_LUMINANCE = 0.179;

/** A named step; the brand colour is called by its name. */
export function stepColour(d: Derivation, scale: ScaleName, step: Step): RoleColour {
  const source = d.scales[scale];
  const kind = source.brandStep === step ? "brand" : "step";
  return { colour: source.steps[step], reason: { kind, scale, step } };
}

/** A shade of a scale that stands between, or beyond, its steps: contrast on white, 1 to 21. */
export function toneColour(d: Derivation, scale: ScaleName, contrastOnWhite: number): RoleColour {
  return {
    colour: tone(d.scales[scale].envelope, contrastOnWhite),
    reason: { kind: "tone", scale, contrastOnWhite },
  };
}

export const white: RoleColour = { colour: WHITE, reason: { kind: "white" } };
export const black: RoleColour = { colour: BLACK, reason: { kind: "black" } };

/** The first duty of a role that a colour does not meet, or null. */
export function shortfall(
  d: Derivation,
  role: Role,
  colour: Srgb,
): { ground: Role; measured: number; owed: number } | null {
  for (const { ground, owed } of dutiesOf(role, d.level)) {
    const measured = contrast(colour, d.colourOf(ground));
    if (measured < owed) return { ground, measured, owed };
  }
  return null;
}

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
  const first = dutiesOf(role, d.level)[0];
  const start = STEPS.indexOf(wanted[d.scheme]);
  const darker = [...steps(d, scale, start, STEPS.length), black];
  const lighter = [...steps(d, scale, start, -1), white];
  const groundIsLight = first ? luminance(d.colourOf(first.ground)) > MID_LUMINANCE : true;
  return firstThatHolds(
    d,
    role,
    groundIsLight ? [...darker, ...lighter.slice(1)] : [...lighter, ...darker.slice(1)],
  );
}

/** The wanted step where it meets the role's duties, else the nearest that does, in either direction. */
export function nearestStepThatHolds(
  d: Derivation,
  role: Role,
  scale: ScaleName,
  wanted: Step,
): RoleColour {
  return firstThatHolds(d, role, [...stepsByDistance(d, scale, wanted), black, white]);
}

/** All steps of a scale, nearest to the wanted one first; of two as near, the darker. */
export function stepsByDistance(d: Derivation, scale: ScaleName, wanted: Step): RoleColour[] {
  const start = STEPS.indexOf(wanted);
  return [...STEPS]
    .sort((a, b) => distance(a, start) - distance(b, start) || b - a)
    .map((step) => stepColour(d, scale, step));
}

const distance = (step: Step, start: number) => Math.abs(STEPS.indexOf(step) - start);

function steps(d: Derivation, scale: ScaleName, from: number, to: number): RoleColour[] {
  const found: RoleColour[] = [];
  const by = to > from ? 1 : -1;
  for (let i = from; i !== to; i += by) found.push(stepColour(d, scale, STEPS[i] as Step));
  return found;
}

function firstThatHolds(d: Derivation, role: Role, candidates: RoleColour[]): RoleColour {
  const wanted = candidates[0] as RoleColour;
  const refused = shortfall(d, role, wanted.colour);
  if (refused === null) return wanted;
  const found = candidates.find((c) => shortfall(d, role, c.colour) === null);
  return withRefusal(found ?? wanted, wanted, refused);
}

/** Keeps with a colour that the wanted step could not be taken, and why. */
export function withRefusal(
  taken: RoleColour,
  wanted: RoleColour,
  refused: Omit<Refused, "scale" | "step"> | null,
): RoleColour {
  if (refused === null || taken.reason.kind !== "step") return taken;
  if (wanted.reason.kind !== "step" && wanted.reason.kind !== "brand") return taken;
  const { scale, step } = wanted.reason;
  return { ...taken, reason: { ...taken.reason, insteadOf: { scale, step, ...refused } } };
}
