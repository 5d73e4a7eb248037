import { toHex } from "#core/colour/srgb.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { SchemeColours } from "#core/theme/reason.ts";
import { ROLES, type Scheme } from "#core/theme/roles.ts";
import { cssValues } from "#core/theme/typography.ts";

/** A scheme's roles, type and shape as declarations for a preview's root element. */
export function declarationsOf(
  colours: SchemeColours,
  scheme: Scheme,
  { typography, shape }: ThemeDocument,
): string {
  let css = `--r-scheme:${scheme};`;
  for (const role of ROLES) css += `--r-${role}:${toHex(colours[role].colour)};`;
  for (const [name, value] of Object.entries(cssValues(typography, shape)))
    css += `--r-${name}:${value};`;
  return css;
}
