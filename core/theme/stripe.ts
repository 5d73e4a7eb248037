import { type Hex, toHex } from "../colour/srgb.ts";
import type { Role, Scheme } from "./roles.ts";
import type { Theme } from "./theme.ts";

/** The roles that a stripe shows as bands, with each band's share of the width. */
export const STRIPE_BANDS: readonly { role: Role; width: number }[] = [
  { role: "header", width: 16 },
  { role: "action", width: 14 },
  { role: "action-soft", width: 8 },
  { role: "accent", width: 10 },
  { role: "panel", width: 6 },
  { role: "canvas", width: 6 },
  { role: "canvas-text", width: 4 },
];

/** The colours of a theme's stripe, band by band, for its light and its dark half. */
export type Stripe = Record<Scheme, Hex[]>;

/** The small picture by which a theme is recognised. */
export function stripeOf(theme: Theme): Stripe {
  const half = (scheme: Scheme) =>
    STRIPE_BANDS.map(({ role }) => toHex(theme.schemes[scheme].standard[role].colour));
  return { light: half("light"), dark: half("dark") };
}
