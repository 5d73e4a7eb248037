import { contrast, contrastOfLuminances } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import { luminance } from "../colour/luminance.ts";
import { oklch } from "../colour/oklch.ts";
import type { Srgb } from "../colour/srgb.ts";
import { OWED } from "../contrast/pairs.ts";
import { envelopeOf, tone } from "../scale/envelope.ts";
import type { Step } from "../scale/ladder.ts";
import type { ScaleName } from "../scale/scales.ts";
import {
  black,
  byDistance,
  type Derivation,
  shortfall,
  stepColour,
  white,
  withRefusal,
} from "./derivation.ts";
import type { RoleColour } from "./reason.ts";
import type { Role } from "./roles.ts";

/** A fill that is pressed or read: the fill, its text partner, and its states in order of strength. */
export interface FillPlan {
  fill: RoleColour;
  text: RoleColour;
  states: RoleColour[];
}

/** The roles that a fill is planned for. */
export interface FillRoles {
  fill: Role;
  text: Role;
  states: readonly Role[];
}

/** Contrast factor between a fill and its next state, strongest first; below 1.08 it hardly shows. */
const STRIDES = [1.18, 1.14, 1.11, 1.08, 1.06, 1.04] as const;
const PLAIN_STRIDE = 1.08;

/**
 * Fills take the wanted step where every pair holds with it, else the nearest step where one does.
 * Fill, states and text are sought together, since each limits the others: the text is the first
 * of white, the scale's dark end, neutral's dark end, black and the light ends that reads on all of
 * them; states move away from the text, or toward it where the ground leaves no other room. A fill
 * or a text that was set by hand is taken as it is, and the rest is planned around it.
 */
export function planFill(
  d: Derivation,
  roles: FillRoles,
  scale: ScaleName,
  wanted: Step,
): FillPlan {
  const byHand = d.setByHand(roles.fill);
  if (byHand !== null)
    return complete(d, roles, scale, byHand) ?? fallback(d, roles, scale, byHand);
  const first = stepColour(d, scale, wanted);
  let refused: ReturnType<typeof shortfall> = null;
  for (const candidate of byDistance(d, scale, wanted)) {
    const short = shortfall(d, roles.fill, candidate.colour);
    const plan = short === null ? complete(d, roles, scale, candidate) : null;
    if (plan !== null) return { ...plan, fill: withRefusal(candidate, first, refused) };
    refused ??= short ?? textShortfall(d, roles, scale, candidate.colour);
  }
  return fallback(d, roles, scale, first);
}

/** Where no plan holds, for what was set by hand forbids it: the text that reads best, and no states. */
function fallback(d: Derivation, roles: FillRoles, scale: ScaleName, fill: RoleColour): FillPlan {
  return {
    fill,
    text: bestText(d, roles, scale, fill.colour),
    states: roles.states.map(() => fill),
  };
}

function complete(
  d: Derivation,
  roles: FillRoles,
  scale: ScaleName,
  fill: RoleColour,
): FillPlan | null {
  const texts = textCandidates(d, roles, scale);
  for (const least of [PLAIN_STRIDE, 1]) {
    for (const text of texts) {
      if (!reads(d, text.colour, fill.colour)) continue;
      const states = planStates(d, roles, fill.colour, text.colour, least);
      if (states !== null) return { fill, text, states };
    }
  }
  return null;
}

const reads = (d: Derivation, text: Srgb, fill: Srgb) => contrast(text, fill) >= OWED.text[d.bar];

function textCandidates(d: Derivation, roles: FillRoles, scale: ScaleName): RoleColour[] {
  const byHand = d.setByHand(roles.text);
  if (byHand !== null) return [byHand];
  return [
    white,
    stepColour(d, scale, 950),
    stepColour(d, "neutral", 950),
    black,
    stepColour(d, scale, 50),
    stepColour(d, "neutral", 50),
  ];
}

function bestText(d: Derivation, roles: FillRoles, scale: ScaleName, fill: Srgb): RoleColour {
  return textCandidates(d, roles, scale).reduce((best, t) =>
    contrast(t.colour, fill) > contrast(best.colour, fill) ? t : best,
  );
}

function textShortfall(d: Derivation, roles: FillRoles, scale: ScaleName, fill: Srgb) {
  const best = bestText(d, roles, scale, fill).colour;
  return { ground: roles.text, measured: contrast(best, fill), owed: OWED.text[d.bar] };
}

function planStates(
  d: Derivation,
  roles: FillRoles,
  fill: Srgb,
  text: Srgb,
  least: number,
): RoleColour[] | null {
  if (roles.states.length === 0) return [];
  const onWhite = contrastOfLuminances(luminance(fill), 1);
  const away = luminance(text) > luminance(fill) ? "darker" : "lighter";
  const envelope = envelopeOf(oklch(fill));
  for (const towards of [away, away === "darker" ? "lighter" : "darker"] as const) {
    for (const stride of STRIDES) {
      if (stride < least) break;
      const factor = towards === "darker" ? stride : 1 / stride;
      const states: RoleColour[] = [];
      let before = fill;
      for (const [i, state] of roles.states.entries()) {
        const c = Math.min(21, Math.max(1, onWhite * factor ** (i + 1)));
        const colour = d.setByHand(state)?.colour ?? tone(envelope, c);
        if (!stateHolds(d, state, colour, text, before)) break;
        states.push({ colour, reason: { kind: "state", of: roles.fill, towards } });
        before = colour;
      }
      if (states.length === roles.states.length) return states;
    }
  }
  return null;
}

/** Below this ΔEOK a state can't be told from the one before. */
const STATE_DIFFERENCE = 0.01;

function stateHolds(d: Derivation, state: Role, colour: Srgb, text: Srgb, before: Srgb): boolean {
  return (
    reads(d, text, colour) &&
    shortfall(d, state, colour) === null &&
    deltaEok(colour, before) >= STATE_DIFFERENCE
  );
}
