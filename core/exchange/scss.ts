import type { Theme } from "../theme/theme.ts";
import { flatten, VARIANTS } from "./flat.ts";

/** A theme as SCSS: a map of scales, and a map of roles for each scheme and contrast level. */
export function toScss(theme: Theme): string {
  const { scales, schemes } = flatten(theme);
  const map = (entries: [string, string][], pad: string) =>
    `(\n${entries.map(([name, value]) => `${pad}  "${name}": ${value},`).join("\n")}\n${pad})`;
  const scaleMaps = Object.entries(scales).map(([name, steps]): [string, string] => [
    name,
    map(Object.entries(steps), "  "),
  ]);
  const parts = [`$scales: ${map(scaleMaps, "")};`];
  for (const variant of VARIANTS)
    parts.push(`$${variant}: ${map(Object.entries(schemes[variant]), "")};`);
  return `${parts.join("\n\n")}\n`;
}
