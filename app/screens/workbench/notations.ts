import { oklch } from "#core/colour/oklch.ts";
import { type Srgb, toHex } from "#core/colour/srgb.ts";

/** Notations in which a step can be copied. */
export const NOTATIONS = ["hex", "rgb", "hsl", "oklch"] as const;
export type Notation = (typeof NOTATIONS)[number];

/** A colour written in a notation of CSS Color 4. */
export function written(colour: Srgb, notation: Notation): string {
  const [r, g, b] = [colour >> 16, (colour >> 8) & 0xff, colour & 0xff];
  switch (notation) {
    case "hex":
      return toHex(colour);
    case "rgb":
      return `rgb(${r} ${g} ${b})`;
    case "hsl":
      return hsl(r / 255, g / 255, b / 255);
    case "oklch": {
      const { l, c, h } = oklch(colour);
      return `oklch(${(l * 100).toFixed(2)}% ${c.toFixed(4)} ${h.toFixed(2)})`;
    }
  }
}

/** CSS Color 4, section "HSL", sample code. */
function hsl(r: number, g: number, b: number): string {
  const [max, min] = [Math.max(r, g, b), Math.min(r, g, b)];
  const [d, l] = [max - min, (max + min) / 2];
  const s = d === 0 ? 0 : d / (1 - Math.abs(2 * l - 1));
  let h = 0;
  if (d !== 0) {
    if (max === r) h = ((g - b) / d + 6) % 6;
    else if (max === g) h = (b - r) / d + 2;
    else h = (r - g) / d + 4;
  }
  return `hsl(${(h * 60).toFixed(2)} ${(s * 100).toFixed(2)}% ${(l * 100).toFixed(2)}%)`;
}
