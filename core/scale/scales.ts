import { type Oklch, oklch } from "../colour/oklch.ts";
import type { Srgb } from "../colour/srgb.ts";
import { brandScale, nominalScale, type Scale } from "./scale.ts";

export const STATUSES = ["success", "warning", "danger", "info"] as const;
export type Status = (typeof STATUSES)[number];

export const SCALE_NAMES = ["brand", "accent", "neutral", ...STATUSES] as const;
export type ScaleName = (typeof SCALE_NAMES)[number];
export type Scales = Record<ScaleName, Scale>;

/** Strongest tint of the neutral scale, as OKLCH chroma at mid lightness. Judged by eye, no source. */
const FULL_TINT = 0.04;

/**
 * Status colours as people know them: green, amber, red, blue (common practice, no source), as
 * OKLCH. Their scales stand on the nominal levels, so only hue and relative chroma count.
 */
const STATUS_SOURCES: Record<Status, Oklch> = {
  success: { l: 0.55, c: 0.13, h: 150 },
  warning: { l: 0.7, c: 0.145, h: 75 },
  danger: { l: 0.55, c: 0.19, h: 27 },
  info: { l: 0.55, c: 0.14, h: 250 },
};

const STATUS_SCALES = Object.fromEntries(
  STATUSES.map((status) => [status, nominalScale(STATUS_SOURCES[status])]),
) as Record<Status, Scale>;

/**
 * The seven scales of a theme. Without an accent the accent scale is drawn from the primary's
 * complement at its own lightness and chroma. `neutralTint` is 0 to 100 %.
 */
export function themeScales(primary: Srgb, accent: Srgb | null, neutralTint: number): Scales {
  const source = oklch(primary);
  return {
    brand: brandScale(primary),
    accent: accent === null ? nominalScale(complement(source)) : brandScale(accent),
    neutral: nominalScale(tint(source, neutralTint)),
    ...STATUS_SCALES,
  };
}

function complement(source: Oklch): Oklch {
  return { ...source, h: (source.h + 180) % 360 };
}

function tint(source: Oklch, percent: number): Oklch {
  const strength = (FULL_TINT * percent) / 100;
  return { l: 0.55, c: Math.min(strength, source.c), h: source.h };
}
