import { luminanceAt } from "../colour/luminance.ts";
import {
  fromPlane,
  type HuePlane,
  huePlane,
  lightnessForLuminance,
  maxChroma,
  type Oklch,
} from "../colour/oklch.ts";
import type { Srgb } from "../colour/srgb.ts";

/** How strongly a scale is coloured at each lightness, worked out from its source colour. */
export interface Envelope {
  plane: HuePlane;
  /** Share of the chroma that sRGB allows, 0 to 1, before easing. */
  share: number;
  /** Chroma that no step exceeds: a muted brand keeps muted steps. */
  ceiling: number;
}

/** A step may be this much more colourful than the brand colour. Judged by eye, no source. */
const CEILING_OVER_BRAND = 1.35;

/** The envelope through a source colour: at the source's own lightness it gives its own chroma. */
export function envelopeOf(source: Oklch): Envelope {
  const plane = huePlane(source.h);
  const allowed = maxChroma(plane, source.l);
  const share = allowed < 1e-4 ? 0 : Math.min(1, source.c / allowed / ease(source.l));
  return { plane, share, ceiling: source.c * CEILING_OVER_BRAND };
}

/**
 * Weight of the chroma by lightness, 0 to 1: eased toward both ends so that tints are not neon and
 * shades not muddy. Judged by eye, no source.
 */
function ease(l: number): number {
  if (l > 0.82) return 1 - 0.5 * smooth((l - 0.82) / 0.18);
  if (l < 0.42) return 1 - 0.35 * smooth((0.42 - l) / 0.3);
  return 1;
}

function smooth(x: number): number {
  const t = Math.min(1, Math.max(0, x));
  return t * t * (3 - 2 * t);
}

/** Chroma of the envelope at a lightness (0 to 1). */
export function chromaAt(e: Envelope, l: number): number {
  if (e.share === 0) return 0;
  return Math.min(e.ceiling, e.share * ease(l) * maxChroma(e.plane, l));
}

/**
 * The colour of an envelope that has contrast c (1 to 21) against white, to 8 bits. Lightness and
 * chroma depend on each other; three rounds bring them within an 8-bit step.
 */
export function tone(e: Envelope, contrastOnWhite: number): Srgb {
  const y = luminanceAt(contrastOnWhite);
  let l = Math.cbrt(y);
  let c = 0;
  for (let i = 0; i < 3; i++) {
    c = chromaAt(e, l);
    l = lightnessForLuminance(e.plane, c, y);
  }
  return fromPlane(e.plane, l, Math.min(c, maxChroma(e.plane, l)));
}
