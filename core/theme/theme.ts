import { fromHex } from "../colour/srgb.ts";
import { type Finding, findings } from "../contrast/verdict.ts";
import { type Scales, themeScales } from "../scale/scales.ts";
import { derive } from "./derive.ts";
import type { ThemeDocument } from "./document.ts";
import type { SchemeColours } from "./reason.ts";
import { CONTRAST_LEVELS, type ContrastLevel, SCHEMES, type Scheme } from "./roles.ts";

/** Everything that follows from a theme document. */
export interface Theme {
  scales: Scales;
  schemes: Record<Scheme, Record<ContrastLevel, SchemeColours>>;
  findings: Finding[];
}

/** Computes a whole theme: scales, roles in both schemes and contrast levels, and what falls short. */
export function computeTheme(document: ThemeDocument): Theme {
  const accent = document.accent === null ? null : fromHex(document.accent);
  const scales = themeScales(fromHex(document.primary), accent, document.neutralTint);
  const of = (scheme: Scheme) => ({
    standard: derive(scales, scheme, "standard"),
    more: derive(scales, scheme, "more"),
  });
  const schemes = { light: of("light"), dark: of("dark") };
  return {
    scales,
    schemes,
    findings: SCHEMES.flatMap((scheme) =>
      CONTRAST_LEVELS.flatMap((level) => findings(schemes[scheme][level], scheme, level)),
    ),
  };
}
