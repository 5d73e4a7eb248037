/**
 * An opaque 8-bit sRGB colour packed as 0xRRGGBB, 0 to 16 777 215. Hot loops pass these plain
 * numbers; documents and screens carry the hex form.
 */
export type Srgb = number;

/** The hex form, always six lower-case digits: `#0b5e55`. */
export type Hex = `#${string}`;

export const WHITE: Srgb = 0xffffff;
export const BLACK: Srgb = 0x000000;

export const red = (colour: Srgb): number => colour >> 16;
export const green = (colour: Srgb): number => (colour >> 8) & 0xff;
export const blue = (colour: Srgb): number => colour & 0xff;

/** Packs three 8-bit channels (integers 0 to 255). */
export const pack = (r: number, g: number, b: number): Srgb => (r << 16) | (g << 8) | b;

/** Writes a colour as `#rrggbb`. */
export const toHex = (colour: Srgb): Hex => `#${colour.toString(16).padStart(6, "0")}`;

/** Reads `#rrggbb` that is already known to be one (validated at the edge). */
export const fromHex = (hex: string): Srgb => Number.parseInt(hex.slice(1), 16);

/** Decodes one sRGB channel, 0 to 1, to linear light. CSS Color 4, sample code `lin_sRGB`. */
export function decode(channel: number): number {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}

/** Encodes one linear-light channel, 0 to 1, for sRGB. CSS Color 4, sample code `gam_sRGB`. */
export function encode(channel: number): number {
  return channel > 0.0031308 ? 1.055 * channel ** (1 / 2.4) - 0.055 : 12.92 * channel;
}

/** Linear light of each 8-bit channel value. */
export const LINEAR: Float64Array = Float64Array.from({ length: 256 }, (_, i) => decode(i / 255));

/** Lays a colour of the given alpha (0 to 1) over an opaque ground, in gamma-encoded sRGB as CSS does. */
export function composite(over: Srgb, alpha: number, ground: Srgb): Srgb {
  const mix = (a: number, b: number) => Math.round(a * alpha + b * (1 - alpha));
  return pack(
    mix(red(over), red(ground)),
    mix(green(over), green(ground)),
    mix(blue(over), blue(ground)),
  );
}
