import { blue, green, LINEAR, red, type Srgb } from "./srgb.ts";

/** CIE L*a*b* against the D65 white of sRGB: L 0 to 100, a and b about −128 to 128. */
export type Lab = readonly [l: number, a: number, b: number];

/** Lab of linear-light sRGB channels, 0 to 1. XYZ matrix of IEC 61966-2-1, as in CSS Color 4. */
export function labOfLinear(r: number, g: number, b: number): Lab {
  const x = f(
    (0.41239079926595934 * r + 0.357584339383878 * g + 0.1804807884018343 * b) / 0.9504559270516716,
  );
  const y = f(0.21263900587151027 * r + 0.715168678767756 * g + 0.07219231536073371 * b);
  const z = f(
    (0.01933081871559182 * r + 0.11919477979462598 * g + 0.9505321522496607 * b) /
      1.0890577507598784,
  );
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** CIE 15:2018: cube root above (6/29)³, a straight line below. */
function f(t: number): number {
  return t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116;
}

export function lab(colour: Srgb): Lab {
  return labOfLinear(
    LINEAR[red(colour)] as number,
    LINEAR[green(colour)] as number,
    LINEAR[blue(colour)] as number,
  );
}
