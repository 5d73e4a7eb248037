import { blue, fromLinear, green, LINEAR, red, type Srgb } from "./srgb.ts";

/** Polar OKLab: lightness 0 to 1, chroma from 0 (about 0.32 at most in sRGB), hue in degrees. */
export interface Oklch {
  l: number;
  c: number;
  h: number;
}

/** Below this chroma the hue of an 8-bit colour is rounding noise; sRGB greys come out at 1e-8. */
const ACHROMATIC = 1e-4;

/**
 * OKLab as [L, a, b] of an sRGB colour. Matrices: B. Ottosson, "A perceptual color space for image
 * processing" (2020), in the precision of CSS Color 4, section 10 sample code.
 */
export function oklab(colour: Srgb): [number, number, number] {
  const r = LINEAR[red(colour)] as number;
  const g = LINEAR[green(colour)] as number;
  const b = LINEAR[blue(colour)] as number;
  const l = Math.cbrt(0.412221469470763 * r + 0.5363325372617348 * g + 0.0514459932675022 * b);
  const m = Math.cbrt(0.2119034958178252 * r + 0.6806995506452344 * g + 0.1073969535369406 * b);
  const s = Math.cbrt(0.0883024591900564 * r + 0.2817188391361215 * g + 0.6299787016738222 * b);
  return [
    0.210454268309314 * l + 0.7936177747023054 * m - 0.0040720430116193 * s,
    1.9779984951431815 * l - 2.4285922420485799 * m + 0.450593709617411 * s,
    0.0259040424655478 * l + 0.7827717124575296 * m - 0.8086757549230774 * s,
  ];
}

/** OKLCH of an sRGB colour; a grey has chroma 0 and hue 0. */
export function oklch(colour: Srgb): Oklch {
  const [l, a, b] = oklab(colour);
  const c = Math.hypot(a, b);
  if (c < ACHROMATIC) return { l, c: 0, h: 0 };
  const h = (Math.atan2(b, a) * 180) / Math.PI;
  return { l, c, h: h < 0 ? h + 360 : h };
}

/**
 * One hue of OKLCH, with what is constant along it worked out once. For a point (l, c) of the hue
 * each cone response is (l + k·c)³, so luminance and every linear channel are cubics in l and c.
 */
export interface HuePlane {
  kl: number;
  km: number;
  ks: number;
}

/** The plane of a hue given in degrees. Inverse matrices: CSS Color 4, sample code. */
export function huePlane(hue: number): HuePlane {
  const a = Math.cos((hue * Math.PI) / 180);
  const b = Math.sin((hue * Math.PI) / 180);
  return {
    kl: 0.3963377773761749 * a + 0.2158037573099136 * b,
    km: -0.1055613458156586 * a - 0.0638541728258133 * b,
    ks: -0.0894841775298119 * a - 1.2914855480194092 * b,
  };
}

/** Relative luminance (CIE Y, white = 1) at lightness l and chroma c of a hue. */
export function planeLuminance(p: HuePlane, l: number, c: number): number {
  const x = (l + p.kl * c) ** 3;
  const y = (l + p.km * c) ** 3;
  const z = (l + p.ks * c) ** 3;
  return (
    0.2126 * (4.0767416360759583 * x - 3.3077115392580629 * y + 0.2309699031821043 * z) +
    0.7152 * (-1.2684379732850315 * x + 2.6097573492876882 * y - 0.341319376002657 * z) +
    0.0722 * (-0.0041960761386756 * x - 0.7034186179359362 * y + 1.7076146940746117 * z)
  );
}

/** Whether (l, c) of a hue lies inside sRGB, within the given tolerance in linear light. */
function insideSrgb(p: HuePlane, l: number, c: number, tolerance: number): boolean {
  const x = (l + p.kl * c) ** 3;
  const y = (l + p.km * c) ** 3;
  const z = (l + p.ks * c) ** 3;
  const low = -tolerance;
  const high = 1 + tolerance;
  const r = 4.0767416360759583 * x - 3.3077115392580629 * y + 0.2309699031821043 * z;
  if (r < low || r > high) return false;
  const g = -1.2684379732850315 * x + 2.6097573492876882 * y - 0.341319376002657 * z;
  if (g < low || g > high) return false;
  const b = -0.0041960761386756 * x - 0.7034186179359362 * y + 1.7076146940746117 * z;
  return b >= low && b <= high;
}

/** The largest chroma that sRGB holds at a lightness of a hue, to 1e-5, by bisection. */
export function maxChroma(p: HuePlane, l: number): number {
  if (l <= 0 || l >= 1) return 0;
  let low = 0;
  let high = 0.34;
  for (let i = 0; i < 15; i++) {
    const mid = (low + high) / 2;
    if (insideSrgb(p, l, mid, 1e-6)) low = mid;
    else high = mid;
  }
  return low;
}

/**
 * The lightness at which a hue, at a given chroma, has relative luminance y (0 to 1): Newton's
 * method on the cubic, started from the grey of that luminance (l = cbrt(y)).
 */
export function lightnessForLuminance(p: HuePlane, c: number, y: number): number {
  let l = Math.cbrt(y);
  for (let i = 0; i < 8; i++) {
    const error = planeLuminance(p, l, c) - y;
    const slope = (planeLuminance(p, l + 1e-5, c) - planeLuminance(p, l - 1e-5, c)) / 2e-5;
    if (slope <= 1e-9) break;
    const next = Math.min(1, Math.max(0, l - error / slope));
    if (Math.abs(next - l) < 1e-9) return next;
    l = next;
  }
  return l;
}

/** The 8-bit sRGB colour nearest to (l, c) of a hue; channels outside are clipped. */
export function fromPlane(p: HuePlane, l: number, c: number): Srgb {
  const x = (l + p.kl * c) ** 3;
  const y = (l + p.km * c) ** 3;
  const z = (l + p.ks * c) ** 3;
  return fromLinear(
    4.0767416360759583 * x - 3.3077115392580629 * y + 0.2309699031821043 * z,
    -1.2684379732850315 * x + 2.6097573492876882 * y - 0.341319376002657 * z,
    -0.0041960761386756 * x - 0.7034186179359362 * y + 1.7076146940746117 * z,
  );
}
