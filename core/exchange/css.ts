import { toHex } from "../colour/srgb.ts";
import { STEPS } from "../scale/ladder.ts";
import { SCALE_NAMES } from "../scale/scales.ts";
import { type ContrastLevel, ROLES, type Role, type Scheme } from "../theme/roles.ts";
import type { Theme } from "../theme/theme.ts";
import { cssColour } from "./flat.ts";

/** The name of a role's, or a scale step's, custom property. */
export const propertyOf = (role: Role): string => `--livery-${role}`;
export const stepPropertyOf = (scale: string, step: number): string => `--livery-${scale}-${step}`;

/**
 * CSS system colours that roles take under forced colours: CSS Color 4, "System Colors". Roles that
 * are not named here are the browser's to force.
 */
const FORCED: Partial<Record<Role, string>> = {
  canvas: "Canvas",
  "canvas-text": "CanvasText",
  panel: "Canvas",
  "panel-text": "CanvasText",
  inset: "Canvas",
  "inset-text": "CanvasText",
  "line-strong": "CanvasText",
  field: "Field",
  "field-text": "FieldText",
  "field-line": "CanvasText",
  action: "ButtonFace",
  "action-text": "ButtonText",
  accent: "ButtonFace",
  "accent-text": "ButtonText",
  link: "LinkText",
  "link-visited": "VisitedText",
  selection: "Highlight",
  "selection-text": "HighlightText",
  mark: "Mark",
  "mark-text": "MarkText",
  focus: "Highlight",
  "disabled-text": "GrayText",
};

/**
 * A theme as custom properties. Both schemes follow the reader (or `data-scheme` on the root
 * element) through light-dark(), with a media query for browsers that lack it; the values of
 * contrast level `more` follow prefers-contrast; forced colours are left to the reader.
 */
export function toCss(theme: Theme): string {
  const plain = (scheme: Scheme, level: ContrastLevel) =>
    ROLES.map((role) => [propertyOf(role), cssColour(theme.schemes[scheme][level][role])] as const);
  const both = (level: ContrastLevel) =>
    ROLES.map((role) => {
      const light = cssColour(theme.schemes.light[level][role]);
      const dark = cssColour(theme.schemes.dark[level][role]);
      return [propertyOf(role), `light-dark(${light}, ${dark})`] as const;
    });
  const steps = SCALE_NAMES.flatMap((scale) =>
    STEPS.map(
      (step) => [stepPropertyOf(scale, step), toHex(theme.scales[scale].steps[step])] as const,
    ),
  );
  const forced = Object.entries(FORCED).map(
    ([role, colour]) => [propertyOf(role as Role), colour] as const,
  );
  const modern = "(color: light-dark(#fff, #000))";
  return [
    block(":root", [["color-scheme", "light dark"], ...steps, ...plain("light", "standard")]),
    block(':root[data-scheme="light"]', [["color-scheme", "light"]]),
    block(':root[data-scheme="dark"]', [["color-scheme", "dark"]]),
    `@supports not ${modern} {`,
    indent(
      `@media (prefers-color-scheme: dark) {\n${indent(block(':root:not([data-scheme="light"])', plain("dark", "standard")))}\n}`,
    ),
    indent(block(':root[data-scheme="dark"]', plain("dark", "standard"))),
    "}",
    `@supports ${modern} {`,
    indent(block(":root", both("standard"))),
    indent(`@media (prefers-contrast: more) {\n${indent(block(":root", both("more")))}\n}`),
    "}",
    `@media (forced-colors: active) {\n${indent(block(":root:root", forced))}\n}`,
    "",
  ].join("\n");
}

function block(selector: string, lines: readonly (readonly [string, string])[]): string {
  return `${selector} {\n${lines.map(([name, value]) => `  ${name}: ${value};`).join("\n")}\n}`;
}

const indent = (text: string): string => text.replace(/^/gm, "  ");
