import { contrastOfLuminances } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import { luminance } from "../colour/luminance.ts";
import { type Oklch, oklch } from "../colour/oklch.ts";
import type { Srgb } from "../colour/srgb.ts";
import { neighbourDifference } from "./contract.ts";
import { type Envelope, envelopeOf, type HueDrift, NO_DRIFT, tone } from "./envelope.ts";
import { LADDER, STEPS, type Step } from "./ladder.ts";
import { anchorOf, settle } from "./settle.ts";

/** An ordered run of eleven shades, light to dark. */
export interface Scale {
  steps: Record<Step, Srgb>;
  /** The step that holds the source colour bit for bit; none for a scale that stands on nominal levels. */
  brandStep: Step | null;
  /** What shades between the steps are drawn from. */
  envelope: Envelope;
}

/**
 * The scale of a brand colour: the colour itself on the nearest step that can hold it, the others
 * settled around it so that the contract of `contract.ts` is kept.
 */
export function brandScale(brand: Srgb, drift: HueDrift = NO_DRIFT): Scale {
  const level = Math.log(contrastOfLuminances(luminance(brand), 1));
  const brandStep = anchorOf(level);
  const levels = settle(brandStep, level);
  const envelope = envelopeOf(oklch(brand), drift);
  const fixed = STEPS.indexOf(brandStep);
  const colours: Srgb[] = STEPS.map((_, i) =>
    i === fixed ? brand : tone(envelope, Math.exp(levels[i] as number)),
  );
  for (let i = fixed - 1; i >= 0; i--) part(colours, i, i + 1, levels, envelope);
  for (let i = fixed + 1; i < STEPS.length; i++) part(colours, i, i - 1, levels, envelope);
  return { steps: byStep(colours), brandStep, envelope };
}

/** The scale on the nominal levels of the ladder, of a source's hue and relative chroma. */
export function nominalScale(source: Oklch, drift: HueDrift = NO_DRIFT): Scale {
  const envelope = envelopeOf(source, drift);
  return {
    steps: byStep(STEPS.map((step) => tone(envelope, LADDER[step]))),
    brandStep: null,
    envelope,
  };
}

/** How far a level is moved at once, in ln c, when rounding left two neighbours too alike. */
const NUDGE = 0.004;
const MOST_NUDGES = 12;

/**
 * Moves a step away from the neighbour nearer to the brand while, after rounding to 8 bits, they
 * differ by less than they owe or their luminance does not fall.
 */
function part(
  colours: Srgb[],
  i: number,
  settled: number,
  levels: Float64Array,
  envelope: Envelope,
): void {
  const owed = neighbourDifference(STEPS[Math.max(i, settled)] as Step);
  const away = i > settled ? NUDGE : -NUDGE;
  const other = colours[settled] as Srgb;
  for (let n = 0; n < MOST_NUDGES; n++) {
    const colour = colours[i] as Srgb;
    const falls = luminance(colour) < luminance(other) === i > settled;
    if (falls && deltaEok(colour, other) >= owed) return;
    levels[i] = Math.min(Math.log(21), Math.max(0, (levels[i] as number) + away));
    colours[i] = tone(envelope, Math.exp(levels[i] as number));
  }
}

const byStep = (colours: Srgb[]): Record<Step, Srgb> =>
  Object.fromEntries(STEPS.map((step, i) => [step, colours[i]])) as Record<Step, Srgb>;
