import { type Lab, labOfLinear } from "./lab.ts";
import { blue, encode, green, LINEAR, pack, red, type Srgb } from "./srgb.ts";

/** Kinds of colour vision that are simulated: everybody's, and three in which one cone is missing. */
export const DEFICIENCIES = ["protanopia", "deuteranopia", "tritanopia"] as const;
export type Deficiency = (typeof DEFICIENCIES)[number];
export const VISIONS = ["typical", ...DEFICIENCIES] as const;
export type Vision = (typeof VISIONS)[number];

/**
 * Severity 1.0 matrices on linear-light sRGB. G. M. Machado, M. M. Oliveira, L. A. F. Fernandes,
 * "A physiologically-based model for simulation of color vision deficiency", IEEE Transactions on
 * Visualization and Computer Graphics 15 (2009), and the tables on the authors' page.
 */
const MATRICES: Record<Deficiency, readonly number[]> = {
  protanopia: [
    0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998,
  ],
  deuteranopia: [
    0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881,
  ],
  tritanopia: [
    1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039,
  ],
};

/** A deficiency's matrix on linear-light sRGB, row by row. */
export const matrixOf = (deficiency: Deficiency): readonly number[] => MATRICES[deficiency];

/** Linear-light sRGB channels of a colour as seen with a kind of vision, clipped to 0 to 1. */
function seenLinear(colour: Srgb, vision: Vision): [number, number, number] {
  const r = LINEAR[red(colour)] as number;
  const g = LINEAR[green(colour)] as number;
  const b = LINEAR[blue(colour)] as number;
  if (vision === "typical") return [r, g, b];
  const m = MATRICES[vision];
  const row = (i: number) =>
    clip((m[i] as number) * r + (m[i + 1] as number) * g + (m[i + 2] as number) * b);
  return [row(0), row(3), row(6)];
}

const clip = (x: number): number => Math.min(1, Math.max(0, x));

/** A colour as seen with a kind of vision, as somebody with typical vision would see it. */
export function seen(colour: Srgb, vision: Vision): Srgb {
  if (vision === "typical") return colour;
  const [r, g, b] = seenLinear(colour, vision);
  const to8bit = (x: number) => Math.round(encode(x) * 255);
  return pack(to8bit(r), to8bit(g), to8bit(b));
}

/** Lab of a colour as seen with a kind of vision. */
export function labSeen(colour: Srgb, vision: Vision): Lab {
  return labOfLinear(...seenLinear(colour, vision));
}
