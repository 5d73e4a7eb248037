import { blue, green, LINEAR, red, type Srgb } from "./srgb.ts";

/**
 * Relative luminance, 0 (black) to 1 (white). WCAG 2.2, "relative luminance", with the decoding
 * threshold 0.04045 of IEC 61966-2-1; for 8-bit channels it gives the same values as the 0.03928
 * that older texts print.
 */
export function luminance(colour: Srgb): number {
  return (
    0.2126 * (LINEAR[red(colour)] as number) +
    0.7152 * (LINEAR[green(colour)] as number) +
    0.0722 * (LINEAR[blue(colour)] as number)
  );
}

/** The luminance that has contrast c (1 to 21) against white: Y = 1.05 / c − 0.05. */
export const luminanceAt = (contrastOnWhite: number): number => 1.05 / contrastOnWhite - 0.05;
