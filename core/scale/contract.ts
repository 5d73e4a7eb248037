import { contrastOfLuminances } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import { luminance } from "../colour/luminance.ts";
import { STEPS, type Step } from "./ladder.ts";
import type { Scale } from "./scale.ts";

/** Contrast that two steps owe each other, by how many places they lie apart. */
export const APART: readonly { places: number; owed: number }[] = [
  { places: 5, owed: 3 },
  { places: 6, owed: 4.5 },
  { places: 7, owed: 7 },
];

/** Contrast that a step and all darker ones owe white. */
export const ON_WHITE: readonly { from: Step; owed: number }[] = [
  { from: 500, owed: 3 },
  { from: 600, owed: 4.5 },
  { from: 700, owed: 7 },
];

/** ΔEOK that a step owes the one before it. */
export const neighbourDifference = (darker: Step): number => (darker <= 200 ? 0.01 : 0.02);

/** A bound of the contract that a scale breaks. `measured` is a contrast or, for neighbours, ΔEOK. */
export interface Breach {
  kind: "apart" | "apart-from-nominal" | "on-white" | "order" | "neighbours" | "brand";
  step: Step;
  other: Step | null;
  measured: number;
  owed: number;
}

/**
 * Every bound of the contract that a scale breaks, measured on its final 8-bit values; none if it
 * keeps it. `nominal` are scales on the nominal levels (neutral, statuses) that it is used with.
 */
export function breaches(scale: Scale, nominal: readonly Scale[] = []): Breach[] {
  const y = STEPS.map((step) => luminance(scale.steps[step]));
  return [
    ...apart(y, y, "apart"),
    ...nominal.flatMap((other) => {
      const z = STEPS.map((step) => luminance(other.steps[step]));
      return [...apart(y, z, "apart-from-nominal"), ...apart(z, y, "apart-from-nominal")];
    }),
    ...onWhite(y),
    ...neighbours(scale, y),
  ];
}

function apart(light: number[], dark: number[], kind: Breach["kind"]): Breach[] {
  const found: Breach[] = [];
  for (const { places, owed } of APART)
    for (let i = 0; i + places < STEPS.length; i++) {
      const measured = contrastOfLuminances(light[i] as number, dark[i + places] as number);
      if (measured < owed) found.push({ kind, step: at(i), other: at(i + places), measured, owed });
    }
  return found;
}

function onWhite(y: number[]): Breach[] {
  return ON_WHITE.flatMap(({ from, owed }) =>
    STEPS.flatMap((step, i) => {
      const measured = contrastOfLuminances(y[i] as number, 1);
      return step >= from && measured < owed
        ? [{ kind: "on-white" as const, step, other: null, measured, owed }]
        : [];
    }),
  );
}

function neighbours(scale: Scale, y: number[]): Breach[] {
  const found: Breach[] = [];
  for (let i = 1; i < STEPS.length; i++) {
    const [step, other] = [at(i), at(i - 1)];
    if ((y[i] as number) >= (y[i - 1] as number))
      found.push({
        kind: "order",
        step,
        other,
        measured: y[i] as number,
        owed: y[i - 1] as number,
      });
    const measured = deltaEok(scale.steps[step], scale.steps[other]);
    const owed = neighbourDifference(step);
    if (measured < owed) found.push({ kind: "neighbours", step, other, measured, owed });
  }
  return found;
}

const at = (i: number): Step => STEPS[i] as Step;
