import {
  type Color,
  converter,
  useMode as define,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeP3,
  modeRgb,
  modeXyz65,
  parse,
  toGamut,
} from "culori/fn";
import { pack, type Srgb } from "./srgb.ts";

for (const mode of [
  modeRgb,
  modeHsl,
  modeHwb,
  modeXyz65,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeP3,
])
  define(mode as typeof modeRgb);

const toRgb = converter("rgb");

/** CSS Color 4 gamut mapping: reduce OKLCH chroma, local clip, ΔEOK just-noticeable difference 0.02. */
const intoSrgb = toGamut("rgb", "oklch");

/** What a person typed, read. */
export interface ReadColour {
  colour: Srgb;
  /** Opacity, 0 to 1. */
  alpha: number;
  /** Whether the colour lay outside sRGB and was mapped into it. */
  mapped: boolean;
}

/** Why a text is no colour: which part, in data; the words and a form that works are the edge's. */
export type NotationError =
  | { code: "empty" }
  | { code: "hex-length"; part: string; digits: number }
  | { code: "hex-digit"; part: string }
  | { code: "unknown-name"; part: string }
  | { code: "unknown-function"; part: string }
  | { code: "unclosed"; part: string }
  | { code: "arguments"; part: string; arguments: string }
  | { code: "triple-range"; part: string };

export type NotationResult = { ok: true; value: ReadColour } | { ok: false; error: NotationError };

const FUNCTIONS = ["rgb", "rgba", "hsl", "hsla", "hwb", "lab", "lch", "oklab", "oklch", "color"];

/** Longer texts are no colour; the part that is named is cut to this. */
const LONGEST_PART = 40;

/**
 * Reads any CSS Color 4 notation, hex without `#`, and the bare `r, g, b` triple people paste.
 * Never throws; what can't be read comes back as an error that names the part.
 */
export function readColour(text: string): NotationResult {
  const trimmed = text.trim().replace(/;+$/, "").trim();
  if (trimmed === "") return fail({ code: "empty" });
  const lower = trimmed.toLowerCase();
  if (lower.startsWith("#")) return readHex(lower.slice(1), cut(trimmed));
  if (/^[\d.]+(\s*,\s*|\s+)[\d.]+(\s*,\s*|\s+)[\d.]+$/.test(lower)) return readTriple(lower);
  const call = /^([a-z][a-z0-9-]*)\s*\(/.exec(lower);
  if (call) return readFunction(call[1] as string, lower, trimmed);
  const named = /^[a-z]+$/.test(lower) ? parseCss(lower) : undefined;
  if (named) return fromCulori(named);
  if (/^[0-9a-f]+$/.test(lower) && [3, 4, 6, 8].includes(lower.length))
    return readHex(lower, cut(trimmed));
  if (/^[0-9a-f]*\d[0-9a-f]*$/.test(lower))
    return fail({ code: "hex-length", part: cut(trimmed), digits: lower.length });
  return fail({ code: "unknown-name", part: cut(trimmed) });
}

const fail = (error: NotationError): NotationResult => ({ ok: false, error });
const cut = (text: string): string =>
  text.length > LONGEST_PART ? `${text.slice(0, LONGEST_PART)}…` : text;

function readHex(digits: string, part: string): NotationResult {
  const wrong = /[^0-9a-f]/u.exec(digits);
  if (wrong) return fail({ code: "hex-digit", part: wrong[0] });
  if (![3, 4, 6, 8].includes(digits.length))
    return fail({ code: "hex-length", part, digits: digits.length });
  const full = digits.length < 6 ? [...digits].map((d) => d + d).join("") : digits;
  const alpha = full.length === 8 ? Number.parseInt(full.slice(6), 16) / 255 : 1;
  return {
    ok: true,
    value: { colour: Number.parseInt(full.slice(0, 6), 16), alpha, mapped: false },
  };
}

function readTriple(text: string): NotationResult {
  const parts = text.split(/\s*,\s*|\s+/);
  const wrong = parts.find((p) => !(Number(p) >= 0 && Number(p) <= 255));
  if (wrong !== undefined) return fail({ code: "triple-range", part: cut(wrong) });
  const [r, g, b] = parts.map((p) => Math.round(Number(p))) as [number, number, number];
  return { ok: true, value: { colour: pack(r, g, b), alpha: 1, mapped: false } };
}

function readFunction(name: string, lower: string, original: string): NotationResult {
  if (!FUNCTIONS.includes(name)) return fail({ code: "unknown-function", part: cut(name) });
  if (!lower.endsWith(")")) return fail({ code: "unclosed", part: cut(original) });
  const colour = parseCss(lower.replace(/\s*\(\s*/, "(").replace(/\s*\)$/, ")"));
  if (colour && Object.values(colour).every((v) => typeof v !== "number" || Number.isFinite(v)))
    return fromCulori(colour);
  const args = original.slice(original.indexOf("(") + 1, -1).trim();
  return fail({ code: "arguments", part: name, arguments: cut(args) });
}

/** culori's parser; on some malformed texts it throws, which means no more than that it can't read them. */
function parseCss(text: string): Color | undefined {
  try {
    return parse(text);
  } catch {
    return undefined;
  }
}

/** A channel this far outside 0 to 1 is rounding noise of a conversion, well under half an 8-bit step. */
const NOISE = 0.0005;

function fromCulori(colour: Color): NotationResult {
  const rgb = toRgb(colour);
  const inside = [rgb.r, rgb.g, rgb.b].every((v) => v >= -NOISE && v <= 1 + NOISE);
  const { r, g, b } = inside || isClipped(colour) ? rgb : (intoSrgb(colour) as typeof rgb);
  const channel = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * 255);
  return {
    ok: true,
    value: {
      colour: pack(channel(r), channel(g), channel(b)),
      alpha: Math.min(1, Math.max(0, colour.alpha ?? 1)),
      mapped: !inside,
    },
  };
}

/** rgb(), hsl() and hwb() clip to sRGB by their own definition; the others are mapped. */
const isClipped = (colour: Color) => ["rgb", "hsl", "hwb"].includes(colour.mode);
