import { z } from "zod";

/** Fonts that ship with Livery, and the reader's own. */
export const FONTS = {
  "atkinson-hyperlegible": "Atkinson Hyperlegible Next Variable",
  "public-sans": "Public Sans Variable",
  "source-serif": "Source Serif 4 Variable",
  "system-sans": "system-ui",
  "system-serif": "ui-serif",
} as const;
export type Font = keyof typeof FONTS;
const font = z.enum(Object.keys(FONTS) as [Font, ...Font[]]);

/** Type: sizes are relative to the reader's own (1 rem is usually 16 px). */
export const typography = z.strictObject({
  headingFont: font,
  bodyFont: font,
  /** Base size in rem, 0.75 to 1.5. */
  base: z.number().min(0.75).max(1.5),
  /** Ratio of one size of the type scale to the next, 1.05 to 1.5. */
  ratio: z.number().min(1.05).max(1.5),
});
export type Typography = z.infer<typeof typography>;

export const DENSITIES = ["compact", "regular", "roomy"] as const;

export const shape = z.strictObject({
  /** Corner radius in rem, 0 to 1.5. */
  radius: z.number().min(0).max(1.5),
  /** Width of lines in px, 1 to 3. */
  border: z.int().min(1).max(3),
  /** Height over the ground, 0 (flat) to 3. */
  elevation: z.int().min(0).max(3),
  density: z.enum(DENSITIES),
});
export type Shape = z.infer<typeof shape>;

export const DEFAULT_TYPOGRAPHY: Typography = {
  headingFont: "atkinson-hyperlegible",
  bodyFont: "atkinson-hyperlegible",
  base: 1,
  ratio: 1.2,
};
export const DEFAULT_SHAPE: Shape = { radius: 0.125, border: 1, elevation: 0, density: "regular" };

/** Text below 16 px at the reader's usual size is hard to read for many (common practice, no source). */
export const isSmallType = (t: Typography): boolean => t.base < 1;

const DENSITY_FACTOR: Record<Shape["density"], number> = { compact: 0.7, regular: 1, roomy: 1.35 };
const SHADOWS = [
  "none",
  "0 1px 3px rgb(0 0 0 / 0.18)",
  "0 3px 8px rgb(0 0 0 / 0.2)",
  "0 6px 18px rgb(0 0 0 / 0.24)",
] as const;

/** Type and shape as CSS values, by the names that stylesheets know them by. */
export function cssValues(t: Typography, s: Shape): Record<string, string> {
  return {
    "heading-font": `"${FONTS[t.headingFont]}"`,
    "body-font": `"${FONTS[t.bodyFont]}"`,
    base: String(t.base),
    ratio: String(t.ratio),
    radius: `${s.radius}rem`,
    border: `${s.border}px`,
    shadow: SHADOWS[s.elevation] ?? SHADOWS[0],
    density: String(DENSITY_FACTOR[s.density]),
  };
}
