import { z } from "zod";
import type { Hex } from "../colour/srgb.ts";

const hex = z.custom<Hex>((value) => typeof value === "string" && /^#[0-9a-f]{6}$/.test(value), {
  message: "not a colour of the form #rrggbb",
});

/**
 * A theme as it is stored: brand colours and settings. Everything else is computed from it, so that
 * a theme gains from a better core.
 */
export const themeDocument = z.strictObject({
  version: z.literal(1),
  primary: hex,
  accent: hex.nullable(),
  /** How much of the primary's hue the neutral scale takes, in per cent. */
  neutralTint: z.int().min(0).max(100),
});

export type ThemeDocument = z.infer<typeof themeDocument>;

/** A theme that is built on one colour, with nothing else set. */
export const fromPrimary = (primary: Hex): ThemeDocument => ({
  version: 1,
  primary,
  accent: null,
  neutralTint: 30,
});
