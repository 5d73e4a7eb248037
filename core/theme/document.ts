import { z } from "zod";
import type { Hex } from "../colour/srgb.ts";
import { hex, type Override, type Overrides, overrides } from "./override.ts";
import type { Role, Scheme } from "./roles.ts";
import { DEFAULT_SHAPE, DEFAULT_TYPOGRAPHY, shape, typography } from "./typography.ts";

/** Degrees of hue drift that a setting may take, either way. */
const drift = z.number().min(-60).max(60);

/**
 * A theme as it is stored: brand colours, settings and what was set by hand. Everything else is
 * computed from it, so that a theme gains from a better core. What is left out takes its default,
 * so that documents of earlier days stay readable.
 */
export const themeDocument = z.strictObject({
  version: z.literal(1),
  primary: hex,
  accent: hex.nullable(),
  /** How much of the primary's hue the neutral scale takes, in per cent. */
  neutralTint: z.int().min(0).max(100),
  /** Degrees by which the brand's hue turns toward the light end and the dark end of its scale. */
  hueDrift: z.strictObject({ light: drift, dark: drift }).default({ light: 0, dark: 0 }),
  /** Degrees by which status hues may lean toward the brand. */
  statusLean: z.number().min(0).max(8).default(0),
  overrides: overrides.default({ light: {}, dark: {} }),
  typography: typography.default(DEFAULT_TYPOGRAPHY),
  shape: shape.default(DEFAULT_SHAPE),
});

export type ThemeDocument = z.infer<typeof themeDocument>;

/** A theme that is built on one colour, with nothing else set. */
export const fromPrimary = (primary: Hex): ThemeDocument => ({
  version: 1,
  primary,
  accent: null,
  neutralTint: 30,
  hueDrift: { light: 0, dark: 0 },
  statusLean: 0,
  overrides: { light: {}, dark: {} },
  typography: DEFAULT_TYPOGRAPHY,
  shape: DEFAULT_SHAPE,
});

/** The document with one role set by hand in one scheme. */
export function setOverride(
  document: ThemeDocument,
  scheme: Scheme,
  role: Role,
  override: Override,
): ThemeDocument {
  const inScheme: Overrides = { ...document.overrides[scheme], [role]: override };
  return { ...document, overrides: { ...document.overrides, [scheme]: inScheme } };
}

/** The document with one role of one scheme left to its rule again. */
export function resetOverride(document: ThemeDocument, scheme: Scheme, role: Role): ThemeDocument {
  const { [role]: _, ...rest } = document.overrides[scheme];
  return { ...document, overrides: { ...document.overrides, [scheme]: rest } };
}
