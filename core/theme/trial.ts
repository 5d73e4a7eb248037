import { contrastOfLuminances } from "../colour/contrast.ts";
import { luminance } from "../colour/luminance.ts";
import { oklch } from "../colour/oklch.ts";
import { toHex } from "../colour/srgb.ts";
import { barOf, type Conformance } from "../contrast/pairs.ts";
import { pairFindings } from "../contrast/verdict.ts";
import { envelopeOf, tone } from "../scale/envelope.ts";
import { STEPS, type Step } from "../scale/ladder.ts";
import type { ScaleName } from "../scale/scales.ts";
import { stepColoursOf } from "./derivation.ts";
import { derive } from "./derive.ts";
import type { ThemeDocument } from "./document.ts";
import type { Override } from "./override.ts";
import { keyOf } from "./repairs.ts";
import type { Role, Scheme } from "./roles.ts";
import type { Theme } from "./theme.ts";

/** Says of an override whether, with it, a pair would fall short in its scheme that does not now. */
export type Trial = (role: Role, override: Override) => boolean;

/** Tries overrides in one scheme of a theme, at the standard level. */
export function trialsOf(
  document: ThemeDocument,
  theme: Theme,
  scheme: Scheme,
  conformance: Conformance = "AA",
): Trial {
  const steps = stepColoursOf(theme.scales);
  const bar = barOf("standard", conformance);
  const now = new Set(
    pairFindings(theme.schemes[scheme].standard, scheme, "standard", bar).map(keyOf),
  );
  return (role, override) => {
    const overrides = { ...document.overrides[scheme], [role]: override };
    const colours = derive(theme.scales, steps, overrides, scheme, bar);
    const short = pairFindings(colours, scheme, "standard", bar);
    return short.every((f) => now.has(keyOf(f)) && f.over !== role);
  };
}

/** Factor of contrast by which a colour that is no step is moved at once. */
const STRIDE = 1.12;

/**
 * The override that makes a role one step darker or lighter: the next step of its scale, or a shade
 * of its own hue where it is no step. Null at the end.
 */
export function nextShade(
  theme: Theme,
  scheme: Scheme,
  role: Role,
  towards: "darker" | "lighter",
): Override | null {
  const { colour, reason } = theme.schemes[scheme].standard[role];
  const at = stepOf(reason);
  if (at) {
    const next = STEPS[STEPS.indexOf(at.step) + (towards === "darker" ? 1 : -1)];
    return next === undefined ? null : { kind: "step", scale: at.scale, step: next };
  }
  const onWhite = contrastOfLuminances(luminance(colour), 1);
  const moved = onWhite * (towards === "darker" ? STRIDE : 1 / STRIDE);
  const shade = tone(envelopeOf(oklch(colour)), Math.min(21, Math.max(1, moved)));
  return shade === colour ? null : { kind: "colour", colour: toHex(shade) };
}

function stepOf(
  reason: Theme["schemes"]["light"]["standard"]["canvas"]["reason"],
): { scale: ScaleName; step: Step } | null {
  if (reason.kind === "step" || reason.kind === "brand") return reason;
  if (reason.kind === "override" && reason.override.kind === "step") return reason.override;
  return null;
}
