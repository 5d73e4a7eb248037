import { blue, encode, green, LINEAR, pack, red, type Srgb } from "./srgb.ts";

/** Polar OKLab: lightness 0 to 1, chroma from 0 (about 0.32 at most in sRGB), hue in degrees. */
export interface Oklch {
  l: number;
  c: number;
  h: number;
}

/** Lightness 0 to 1, and two opponent axes of about −0.3 to 0.3. */
export type Oklab = readonly [l: number, a: number, b: number];

/** Below this chroma the hue of an 8-bit colour is rounding noise; sRGB greys come out at 1e-8. */
const ACHROMATIC = 1e-4;

/**
 * OKLab of an sRGB colour. Matrices: B. Ottosson, "A perceptual color space for image
 * processing" (2020), in the precision of CSS Color 4, section 10 sample code.
 */
export function oklab(colour: Srgb): Oklab {
  return oklabOfLinear(
    LINEAR[red(colour)] as number,
    LINEAR[green(colour)] as number,
    LINEAR[blue(colour)] as number,
  );
}

/** OKLab of linear-light sRGB channels, 0 to 1. */
export function oklabOfLinear(r: number, g: number, b: number): Oklab {
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

/** x³ by multiplication; the power operator costs ten times as much. */
const cube = (x: number): number => x * x * x;

/** Whether (l, c) of a hue lies inside sRGB, within the given tolerance in linear light. */
function insideSrgb(p: HuePlane, l: number, c: number, tolerance: number): boolean {
  const x = cube(l + p.kl * c);
  const y = cube(l + p.km * c);
  const z = cube(l + p.ks * c);
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

/** Weights of the cubed cone responses in the luminance: rows of the inverse matrix by (0.2126, 0.7152, 0.0722). */
const YX = 0.2126 * 4.0767416360759583 - 0.7152 * 1.2684379732850315 - 0.0722 * 0.0041960761386756;
const YY = -0.2126 * 3.3077115392580629 + 0.7152 * 2.6097573492876882 - 0.0722 * 0.7034186179359362;
const YZ = 0.2126 * 0.2309699031821043 - 0.7152 * 0.341319376002657 + 0.0722 * 1.7076146940746117;

/**
 * The lightness at which a hue, at a given chroma, has relative luminance y (0 to 1): Newton's
 * method on the cubic, started from a lightness nearby.
 */
export function lightnessForLuminance(p: HuePlane, c: number, y: number, start: number): number {
  let l = start;
  for (let i = 0; i < 8; i++) {
    const a = l + p.kl * c;
    const b = l + p.km * c;
    const d = l + p.ks * c;
    const slope = 3 * (YX * a * a + YY * b * b + YZ * d * d);
    if (slope <= 1e-9) break;
    const error = YX * a * a * a + YY * b * b * b + YZ * d * d * d - y;
    const next = Math.min(1, Math.max(0, l - error / slope));
    if (Math.abs(next - l) < 1e-9) return next;
    l = next;
  }
  return l;
}

/** A relative error of (Y + 0.05) that weighs as much as a channel rounded a whole step off. */
const LUMINANCE_TOLERANCE = 0.003;

/**
 * The 8-bit sRGB colour of (l, c) of a hue: of the eight ways of rounding the channels up or down,
 * the one that is best in luminance (wanted: y) and nearest in colour together, so that levels are
 * met and faint hues do not flicker. A grey is rounded alike in all channels.
 */
export function fromPlane(p: HuePlane, l: number, c: number, y: number): Srgb {
  const a = cube(l + p.kl * c);
  const b = cube(l + p.km * c);
  const d = cube(l + p.ks * c);
  const r = channel(4.0767416360759583 * a - 3.3077115392580629 * b + 0.2309699031821043 * d);
  if (c === 0) return roundGrey(r, y);
  const g = channel(-1.2684379732850315 * a + 2.6097573492876882 * b - 0.341319376002657 * d);
  const z = channel(-0.0041960761386756 * a - 0.7034186179359362 * b + 1.7076146940746117 * d);
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let way = 0; way < 8; way++) {
    const R = up(r, way & 1);
    const G = up(g, way & 2);
    const B = up(z, way & 4);
    const offLevel =
      (y - 0.2126 * lin(R) - 0.7152 * lin(G) - 0.0722 * lin(B)) / (y + 0.05) / LUMINANCE_TOLERANCE;
    const error = offLevel * offLevel + (R - r) ** 2 + (G - g) ** 2 + (B - z) ** 2;
    if (error < least) {
      least = error;
      best = pack(R, G, B);
    }
  }
  return best;
}

/** One channel of linear light as a real number of 8-bit steps, 0 to 255. */
const channel = (linear: number): number => encode(Math.min(1, Math.max(0, linear))) * 255;
const up = (steps: number, doUp: number): number =>
  doUp ? Math.min(255, Math.floor(steps) + 1) : Math.floor(steps);
const lin = (steps: number): number => LINEAR[steps] as number;

function roundGrey(steps: number, y: number): Srgb {
  const [low, high] = [up(steps, 0), up(steps, 1)];
  const grey = Math.abs(y - lin(low)) <= Math.abs(y - lin(high)) ? low : high;
  return pack(grey, grey, grey);
}

/**
 * The colour of a hue (degrees, any turn) and lightness (0 to 1) at a share (0 to 1) of the chroma
 * that sRGB holds there, to the nearest 8 bits.
 */
export function fromPlaneAt(hue: number, l: number, share: number): Srgb {
  const plane = huePlane(((hue % 360) + 360) % 360);
  const c = share === 0 ? 0 : Math.min(1, share) * maxChroma(plane, l);
  return fromPlane(plane, l, c, luminanceOn(plane, l, c));
}

/** Relative luminance at lightness l and chroma c of a hue. */
const luminanceOn = (p: HuePlane, l: number, c: number): number =>
  YX * cube(l + p.kl * c) + YY * cube(l + p.km * c) + YZ * cube(l + p.ks * c);
