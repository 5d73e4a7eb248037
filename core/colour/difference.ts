import { type Lab, lab } from "./lab.ts";
import { oklab } from "./oklch.ts";
import type { Srgb } from "./srgb.ts";

/** ΔEOK: Euclidean distance in OKLab. CSS Color 4, "ΔEOK". About 0.02 is just noticeable. */
export function deltaEok(a: Srgb, b: Srgb): number {
  const [l1, a1, b1] = oklab(a);
  const [l2, a2, b2] = oklab(b);
  return Math.sqrt(square(l1 - l2) + square(a1 - a2) + square(b1 - b2));
}

/** CIEDE2000 of two sRGB colours, in Lab against D65. About 1 is just noticeable, side by side. */
export const deltaE2000 = (a: Srgb, b: Srgb): number => ciede2000(lab(a), lab(b));

const square = (x: number): number => x * x;
const length = (x: number, y: number): number => Math.sqrt(x * x + y * y);

function seventh(x: number): number {
  const cubed = x * x * x;
  return cubed * cubed * x;
}

const RADIAN = Math.PI / 180;
const TWENTY_FIVE_7 = 25 ** 7;

/**
 * CIEDE2000 of two Lab colours with all weights 1. G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000
 * color-difference formula", Color Research and Application 30 (2005); numbers in comments are its
 * equations.
 */
export function ciede2000(first: Lab, second: Lab): number {
  const [l1, a1, b1] = first;
  const [l2, a2, b2] = second;
  // (2)–(6)
  const meanC7 = seventh((length(a1, b1) + length(a2, b2)) / 2);
  const stretch = 1.5 - 0.5 * Math.sqrt(meanC7 / (meanC7 + TWENTY_FIVE_7));
  const c1 = length(stretch * a1, b1);
  const c2 = length(stretch * a2, b2);
  // (7)
  const h1 = hue(stretch * a1, b1);
  const h2 = hue(stretch * a2, b2);
  // (8)–(11)
  const grey = c1 * c2 === 0;
  let turn = grey ? 0 : h2 - h1;
  if (turn > 180) turn -= 360;
  else if (turn < -180) turn += 360;
  const dL = l2 - l1;
  const dC = c2 - c1;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * RADIAN);
  // (12)–(14)
  const l = (l1 + l2) / 2;
  const c = (c1 + c2) / 2;
  const h = grey ? h1 + h2 : meanHue(h1, h2);
  // (15)–(20)
  const t =
    1 -
    0.17 * Math.cos((h - 30) * RADIAN) +
    0.24 * Math.cos(2 * h * RADIAN) +
    0.32 * Math.cos((3 * h + 6) * RADIAN) -
    0.2 * Math.cos((4 * h - 63) * RADIAN);
  const c7 = seventh(c);
  const rotation =
    -2 *
    Math.sqrt(c7 / (c7 + TWENTY_FIVE_7)) *
    Math.sin(60 * RADIAN * Math.exp(-square((h - 275) / 25)));
  const off = square(l - 50);
  const sL = 1 + (0.015 * off) / Math.sqrt(20 + off);
  const sC = 1 + 0.045 * c;
  const sH = 1 + 0.015 * c * t;
  // (22)
  const [x, y, z] = [dL / sL, dC / sC, dH / sH];
  return Math.sqrt(x * x + y * y + z * z + rotation * y * z);
}

/** The largest S_L of equation (15), at L 0 or 100: a difference is never below ΔL / this, as |R_T| ≤ 2. */
const LARGEST_SL = 1 + (0.015 * 2500) / Math.sqrt(2520);

/** A lower bound of ciede2000 that costs next to nothing. */
export const atLeastCiede2000 = (first: Lab, second: Lab): number =>
  Math.abs(first[0] - second[0]) / LARGEST_SL;

function hue(a: number, b: number): number {
  if (a === 0 && b === 0) return 0;
  const degrees = Math.atan2(b, a) / RADIAN;
  return degrees < 0 ? degrees + 360 : degrees;
}

function meanHue(h1: number, h2: number): number {
  const sum = h1 + h2;
  if (Math.abs(h1 - h2) <= 180) return sum / 2;
  return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
}
