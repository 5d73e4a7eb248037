/** The steps of every scale, light to dark. */
export const STEPS = [50, 100, 200, 300, 400, 500, 600, 700, 800, 900, 950] as const;
export type Step = (typeof STEPS)[number];

/** Nominal contrast of each step against white. */
export const LADDER: Record<Step, number> = {
  50: 1.055,
  100: 1.14,
  200: 1.32,
  300: 1.62,
  400: 2.2,
  500: 3.25,
  600: 4.85,
  700: 7.55,
  800: 10,
  900: 13.2,
  950: 16.5,
};

/** The step whose nominal level is nearest, in ln c, to a contrast against white (1 to 21). */
export function nearestStep(contrastOnWhite: number): Step {
  let best: Step = 50;
  let least = Number.POSITIVE_INFINITY;
  for (const step of STEPS) {
    const distance = Math.abs(Math.log(contrastOnWhite / LADDER[step]));
    if (distance < least) {
      least = distance;
      best = step;
    }
  }
  return best;
}
