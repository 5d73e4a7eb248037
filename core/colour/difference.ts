import { oklab } from "./oklch.ts";
import type { Srgb } from "./srgb.ts";

/** ΔEOK: Euclidean distance in OKLab. CSS Color 4, "ΔEOK". About 0.02 is just noticeable. */
export function deltaEok(a: Srgb, b: Srgb): number {
  const [l1, a1, b1] = oklab(a);
  const [l2, a2, b2] = oklab(b);
  return Math.hypot(l1 - l2, a1 - a2, b1 - b2);
}
