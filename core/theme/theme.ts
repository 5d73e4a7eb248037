import { fromHex } from "../colour/srgb.ts";
import { alikeFindings } from "../contrast/alike.ts";
import { barOf, type Conformance } from "../contrast/pairs.ts";
import { type Finding, pairFindings } from "../contrast/verdict.ts";
import { type Scales, themeScales } from "../scale/scales.ts";
import { stepColoursOf } from "./derivation.ts";
import { derive } from "./derive.ts";
import type { ThemeDocument } from "./document.ts";
import type { SchemeColours } from "./reason.ts";
import { CONTRAST_LEVELS, type ContrastLevel, SCHEMES, type Scheme } from "./roles.ts";

/** Everything that follows from a theme document. */
export interface Theme {
  scales: Scales;
  schemes: Record<Scheme, Record<ContrastLevel, SchemeColours>>;
  /** Pairs that fall short, in the order of schemes, levels and pairs. */
  findings: Finding[];
}

/**
 * Computes a whole theme: scales, roles in both schemes and contrast levels, and what falls short.
 * Under AAA the standard level already gives text 7:1.
 */
export function computeTheme(document: ThemeDocument, conformance: Conformance = "AA"): Theme {
  const scales = scalesOf(document);
  const steps = stepColoursOf(scales);
  const of = (scheme: Scheme) => {
    const overrides = document.overrides[scheme];
    return {
      standard: derive(scales, steps, overrides, scheme, conformance),
      more: derive(scales, steps, overrides, scheme, "more"),
    };
  };
  const schemes = { light: of("light"), dark: of("dark") };
  return {
    scales,
    schemes,
    findings: SCHEMES.flatMap((scheme) =>
      CONTRAST_LEVELS.flatMap((level) => {
        const colours = schemes[scheme][level];
        return [
          ...pairFindings(colours, scheme, level, barOf(level, conformance)),
          ...alikeFindings(colours, scheme, level),
        ];
      }),
    ),
  };
}

/** The seven scales of a document. */
export function scalesOf(document: ThemeDocument): Scales {
  return themeScales({
    primary: fromHex(document.primary),
    accent: document.accent === null ? null : fromHex(document.accent),
    neutralTint: document.neutralTint,
    hueDrift: document.hueDrift,
    statusLean: document.statusLean,
  });
}
