import { contrastOfLuminances } from "../colour/contrast.ts";
import { luminance } from "../colour/luminance.ts";
import { type Oklch, oklch } from "../colour/oklch.ts";
import type { Srgb } from "../colour/srgb.ts";
import { type Envelope, envelopeOf, tone } from "./envelope.ts";
import { LADDER, nearestStep, STEPS, type Step } from "./ladder.ts";

/** An ordered run of eleven shades, light to dark. */
export interface Scale {
  steps: Record<Step, Srgb>;
  /** The step that holds the source colour bit for bit; none for a scale that stands on nominal levels. */
  brandStep: Step | null;
  /** What shades between the steps are drawn from. */
  envelope: Envelope;
}

/** The scale of a brand colour: the colour itself on the nearest step, the others on the ladder. */
export function brandScale(brand: Srgb): Scale {
  const scale = nominalScale(oklch(brand));
  const brandStep = nearestStep(contrastOfLuminances(luminance(brand), 1));
  return { ...scale, brandStep, steps: { ...scale.steps, [brandStep]: brand } };
}

/** A scale on the nominal levels of the ladder, of a source's hue and relative chroma. */
export function nominalScale(source: Oklch): Scale {
  const envelope = envelopeOf(source);
  const steps = {} as Record<Step, Srgb>;
  for (const step of STEPS) steps[step] = tone(envelope, LADDER[step]);
  return { steps, brandStep: null, envelope };
}
