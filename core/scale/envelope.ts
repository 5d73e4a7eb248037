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
  hue: number;
  /** Lightness of the source, 0 to 1: the drift starts there. */
  centre: number;
  drift: HueDrift;
  /** Share of the chroma that sRGB allows, 0 to 1, before easing. */
  share: number;
  /** Easing at the source's own lightness: no step is eased more, relative to the source, than beyond it. */
  ease: number;
  /** Chroma that no step exceeds: a muted brand keeps muted steps. */
  ceiling: number;
}

/** Degrees by which the hue turns toward the light end and the dark end; 0 keeps it constant. */
export interface HueDrift {
  light: number;
  dark: number;
}

export const NO_DRIFT: HueDrift = { light: 0, dark: 0 };

/** A step may be this much more colourful than the brand colour. Judged by eye, no source. */
const CEILING_OVER_BRAND = 1.35;

/** The envelope through a source colour: at the source's own lightness it gives its own chroma. */
export function envelopeOf(source: Oklch, drift: HueDrift = NO_DRIFT): Envelope {
  const plane = huePlane(source.h);
  const allowed = source.c === 0 ? 0 : maxChroma(plane, source.l);
  const share = allowed < 1e-4 ? 0 : Math.min(1, source.c / allowed);
  return {
    plane,
    hue: source.h,
    centre: source.l,
    drift,
    share,
    ease: ease(source.l),
    ceiling: source.c * CEILING_OVER_BRAND,
  };
}

/** The hue plane at a lightness: the source's own, turned in proportion toward either end. */
function planeAt(e: Envelope, l: number): HuePlane {
  const { light, dark } = e.drift;
  if (light === 0 && dark === 0) return e.plane;
  const turn =
    l > e.centre
      ? (light * (l - e.centre)) / Math.max(1e-6, 1 - e.centre)
      : (dark * (e.centre - l)) / Math.max(1e-6, e.centre);
  return huePlane(e.hue + turn);
}

/**
 * Weight of the chroma by lightness, 0 to 1: eased toward both ends so that tints are not neon and
 * shades not muddy. Judged by eye, no source.
 */
function ease(l: number): number {
  if (l > 0.7) return 1 - 0.6 * smooth((l - 0.7) / 0.3);
  if (l < 0.42) return 1 - 0.35 * smooth((0.42 - l) / 0.3);
  return 1;
}

function smooth(x: number): number {
  const t = Math.min(1, Math.max(0, x));
  return t * t * (3 - 2 * t);
}

/** Chroma of the envelope at a lightness (0 to 1) of one of its planes. */
function chromaAt(e: Envelope, plane: HuePlane, l: number): number {
  const eased = Math.min(1, ease(l) / e.ease);
  return eased * Math.min(e.ceiling, e.share * maxChroma(plane, l));
}

const ROUNDS = 3;

/**
 * The colour of an envelope that has contrast c (1 to 21) against white, to 8 bits. Lightness and
 * chroma depend on each other; three rounds bring them within an 8-bit step.
 */
export function tone(e: Envelope, contrastOnWhite: number): Srgb {
  const y = luminanceAt(contrastOnWhite);
  let l = Math.cbrt(y);
  if (e.share === 0) return fromPlane(e.plane, l, 0, y);
  let c = 0;
  let plane = e.plane;
  for (let i = 0; i < ROUNDS; i++) {
    plane = planeAt(e, l);
    c = chromaAt(e, plane, l);
    l = lightnessForLuminance(plane, c, y, l);
  }
  return fromPlane(plane, l, c, y);
}
