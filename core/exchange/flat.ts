import { type Hex, type Srgb, toHex } from "../colour/srgb.ts";
import { STEPS, type Step } from "../scale/ladder.ts";
import { SCALE_NAMES, type ScaleName } from "../scale/scales.ts";
import type { RoleColour } from "../theme/reason.ts";
import { type ContrastLevel, ROLES, type Role, type Scheme } from "../theme/roles.ts";
import type { Theme } from "../theme/theme.ts";

/** A scheme at a contrast level, by one name. */
export const VARIANTS = ["light", "dark", "light-more", "dark-more"] as const;
export type Variant = (typeof VARIANTS)[number];

export const variantOf = (scheme: Scheme, level: ContrastLevel): Variant =>
  level === "standard" ? scheme : `${scheme}-more`;

/** A theme as plain names and values: what most formats write. */
export interface FlatTheme {
  brand: Hex;
  scales: Record<ScaleName, Record<string, Hex>>;
  /** The step of each brand-anchored scale that holds its source colour. */
  brandSteps: Partial<Record<ScaleName, Step>>;
  schemes: Record<Variant, Record<Role, Hex>>;
}

/** A theme whose primary is given, flattened. */
export function flatten(theme: Theme): FlatTheme {
  const scales = {} as FlatTheme["scales"];
  const brandSteps: FlatTheme["brandSteps"] = {};
  for (const name of SCALE_NAMES) {
    const { steps, brandStep } = theme.scales[name];
    scales[name] = Object.fromEntries(STEPS.map((step) => [step, toHex(steps[step])]));
    if (brandStep !== null) brandSteps[name] = brandStep;
  }
  const rolesOf = (scheme: Scheme, level: ContrastLevel) => {
    const colours = theme.schemes[scheme][level];
    return Object.fromEntries(ROLES.map((role) => [role, toHex(colours[role].colour)])) as Record<
      Role,
      Hex
    >;
  };
  const schemes: FlatTheme["schemes"] = {
    light: rolesOf("light", "standard"),
    dark: rolesOf("dark", "standard"),
    "light-more": rolesOf("light", "more"),
    "dark-more": rolesOf("dark", "more"),
  };
  const brandStep = theme.scales.brand.brandStep as Step;
  return { brand: toHex(theme.scales.brand.steps[brandStep]), scales, brandSteps, schemes };
}

/** A colour as CSS: hex, or with its opacity where it is translucent. */
export function cssColour({ colour, translucent }: RoleColour): string {
  if (!translucent) return toHex(colour);
  const { colour: own, alpha } = translucent;
  return `rgb(${own >> 16} ${(own >> 8) & 0xff} ${own & 0xff} / ${alpha})`;
}

/** Components of an sRGB colour, each 0 to 1, to five decimals. */
export const components = (colour: Srgb): [number, number, number] => {
  const part = (channel: number) => Math.round((channel / 255) * 1e5) / 1e5;
  return [part(colour >> 16), part((colour >> 8) & 0xff), part(colour & 0xff)];
};
