import { luminance } from "./luminance.ts";
import type { Srgb } from "./srgb.ts";

/** Contrast ratio of two opaque colours, 1 to 21. WCAG 2.2, "contrast ratio". */
export function contrast(a: Srgb, b: Srgb): number {
  return contrastOfLuminances(luminance(a), luminance(b));
}

/** Contrast ratio of two relative luminances, in either order. */
export function contrastOfLuminances(a: number, b: number): number {
  return a > b ? (a + 0.05) / (b + 0.05) : (b + 0.05) / (a + 0.05);
}

/** A ratio to two decimals, cut rather than rounded, so that 4.499 never reads as 4.5. */
export const shownRatio = (ratio: number): string =>
  (Math.floor(ratio * 100 + 1e-9) / 100).toFixed(2);
