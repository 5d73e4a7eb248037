import { type Hex, toHex } from "#core/colour/srgb.ts";
import type { Conformance } from "#core/contrast/pairs.ts";
import { compareThemes } from "#core/theme/comparison.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { Role, Scheme } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { overrideWords } from "../../wording/reason.ts";
import { roleWords } from "../../wording/roles.ts";

/** What a draft changes since a release, in words and in colours. */
export interface Since {
  settings: { name: string; before: string; after: string }[];
  roles: { scheme: Scheme; role: Role; before: Hex; after: Hex; difference: number }[];
  gained: number;
  lost: number;
}

/** Compares a draft with a release, at the standard level, the largest changes first. */
export function changesSince(
  before: ThemeDocument,
  after: ThemeDocument,
  conformance: Conformance,
): Since {
  const { changes, gained, lost } = compareThemes(
    computeTheme(before, conformance),
    computeTheme(after, conformance),
  );
  const roles = changes
    .filter((change) => change.level === "standard")
    .map(({ scheme, role, before, after, difference }) => ({
      scheme,
      role,
      before: toHex(before),
      after: toHex(after),
      difference,
    }))
    .sort((a, b) => b.difference - a.difference);
  return {
    settings: settingsChanged(before, after),
    roles,
    gained: gained.length,
    lost: lost.length,
  };
}

function settingsChanged(a: ThemeDocument, b: ThemeDocument): Since["settings"] {
  const lines: [string, string, string][] = [
    ["Your colour", a.primary, b.primary],
    ["Accent", a.accent ?? "derived", b.accent ?? "derived"],
    ["Tint of the greys", `${a.neutralTint} %`, `${b.neutralTint} %`],
    [
      "Hue drift",
      `${a.hueDrift.light}°, ${a.hueDrift.dark}°`,
      `${b.hueDrift.light}°, ${b.hueDrift.dark}°`,
    ],
    ["Status lean", `${a.statusLean}°`, `${b.statusLean}°`],
    ["Headings", a.typography.headingFont, b.typography.headingFont],
    ["Text", a.typography.bodyFont, b.typography.bodyFont],
    ["Size of text", `${a.typography.base} rem`, `${b.typography.base} rem`],
    ["Type ratio", String(a.typography.ratio), String(b.typography.ratio)],
    ["Corners", `${a.shape.radius} rem`, `${b.shape.radius} rem`],
    ["Lines", `${a.shape.border} px`, `${b.shape.border} px`],
    ["Elevation", String(a.shape.elevation), String(b.shape.elevation)],
    ["Density", a.shape.density, b.shape.density],
  ];
  const byHand = (["light", "dark"] as const).flatMap((scheme) => {
    const roles = new Set([
      ...Object.keys(a.overrides[scheme]),
      ...Object.keys(b.overrides[scheme]),
    ] as Role[]);
    return [...roles].map((role): [string, string, string] => {
      const words = (document: ThemeDocument) => {
        const set = document.overrides[scheme][role];
        return set ? overrideWords(set) : "its rule";
      };
      return [`${roleWords(role)}, ${scheme}`, words(a), words(b)];
    });
  });
  return [...lines, ...byHand]
    .filter(([, before, after]) => before !== after)
    .map(([name, before, after]) => ({ name, before, after }));
}
