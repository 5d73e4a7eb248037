import { STEPS } from "../scale/ladder.ts";
import { SCALE_NAMES } from "../scale/scales.ts";
import type { Theme } from "../theme/theme.ts";

/**
 * A theme's scales as a palette file in the plain-text form that general graphics programs read:
 * a header, then one line a colour with red, green, blue and a name.
 */
export function toPalette(theme: Theme, name: string): string {
  const lines = SCALE_NAMES.flatMap((scale) =>
    STEPS.map((step) => {
      const colour = theme.scales[scale].steps[step];
      const rgb = [colour >> 16, (colour >> 8) & 0xff, colour & 0xff];
      return `${rgb.map((v) => String(v).padStart(3)).join(" ")}\t${scale} ${step}`;
    }),
  );
  return [
    "GIMP Palette",
    `Name: ${name.replace(/\s+/g, " ")}`,
    `Columns: ${STEPS.length}`,
    "#",
    ...lines,
    "",
  ].join("\n");
}
