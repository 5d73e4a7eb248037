import { type Oklch, oklch } from "../colour/oklch.ts";
import type { Srgb } from "../colour/srgb.ts";
import type { HueDrift } from "./envelope.ts";
import { brandScale, nominalScale, type Scale } from "./scale.ts";

export const STATUSES = ["success", "warning", "danger", "info"] as const;
export type Status = (typeof STATUSES)[number];

export const SCALE_NAMES = ["brand", "accent", "neutral", ...STATUSES] as const;
export type ScaleName = (typeof SCALE_NAMES)[number];
export type Scales = Record<ScaleName, Scale>;

/** Scales on the nominal levels: the contract holds between them and any other. */
export const NOMINAL_SCALES = ["neutral", ...STATUSES] as const;

/** Strongest tint of the neutral scale, as OKLCH chroma at mid lightness. Judged by eye, no source. */
const FULL_TINT = 0.04;

/**
 * Status colours as people know them: green, amber, red, blue (common practice, no source), as
 * OKLCH; the green leans to blue so that it keeps apart from the red without red or green cones.
 * Their scales stand on the nominal levels, so only hue and relative chroma count.
 */
const STATUS_SOURCES: Record<Status, Oklch> = {
  success: { l: 0.55, c: 0.12, h: 163 },
  warning: { l: 0.7, c: 0.145, h: 75 },
  danger: { l: 0.55, c: 0.19, h: 27 },
  info: { l: 0.55, c: 0.14, h: 250 },
};

const STATUS_SCALES = Object.fromEntries(
  STATUSES.map((status) => [status, nominalScale(STATUS_SOURCES[status])]),
) as Record<Status, Scale>;

/** What the scales of a theme are made from. */
export interface ScaleSources {
  primary: Srgb;
  /** Without one the accent is the primary's complement at its own lightness and chroma. */
  accent: Srgb | null;
  /** Strength of the neutral scale's tint, 0 to 100 %. */
  neutralTint: number;
  hueDrift: HueDrift;
  /** Degrees by which status hues lean toward the primary's, 0 to 8. */
  statusLean: number;
}

/** The seven scales of a theme. */
export function themeScales(sources: ScaleSources): Scales {
  const source = oklch(sources.primary);
  const { hueDrift } = sources;
  return {
    brand: brandScale(sources.primary, hueDrift),
    accent:
      sources.accent === null
        ? nominalScale(complement(source), hueDrift)
        : brandScale(sources.accent, hueDrift),
    neutral: nominalScale(tint(source, sources.neutralTint)),
    ...statusScales(source, sources.statusLean),
  };
}

function statusScales(source: Oklch, lean: number): Record<Status, Scale> {
  if (lean === 0 || source.c === 0) return STATUS_SCALES;
  return Object.fromEntries(
    STATUSES.map((status) => {
      const own = STATUS_SOURCES[status];
      return [status, nominalScale({ ...own, h: leaned(own.h, source.h, lean) })];
    }),
  ) as Record<Status, Scale>;
}

/** A hue moved toward another by at most so many degrees, the shorter way round. */
function leaned(hue: number, toward: number, most: number): number {
  const turn = ((toward - hue + 540) % 360) - 180;
  return (hue + Math.sign(turn) * Math.min(Math.abs(turn), most) + 360) % 360;
}

function complement(source: Oklch): Oklch {
  return { ...source, h: (source.h + 180) % 360 };
}

function tint(source: Oklch, percent: number): Oklch {
  const strength = (FULL_TINT * percent) / 100;
  return { l: 0.55, c: Math.min(strength, source.c), h: source.h };
}
