import { type Srgb, toHex } from "../colour/srgb.ts";
import { STEPS } from "../scale/ladder.ts";
import { SCALE_NAMES } from "../scale/scales.ts";
import type { RoleColour } from "../theme/reason.ts";
import { CONTRAST_LEVELS, ROLES, SCHEMES } from "../theme/roles.ts";
import type { Theme } from "../theme/theme.ts";
import { components, variantOf } from "./flat.ts";

interface ColourValue {
  colorSpace: "srgb";
  components: [number, number, number];
  alpha: number;
  hex: string;
}

interface Token {
  $value: ColourValue | string;
  $description?: string;
}

/**
 * A theme in the Design Tokens Format Module (2025.10): a group `scale` with every step, and a
 * group for each scheme and contrast level whose roles are aliases of steps wherever they are one.
 */
export function toTokens(theme: Theme): string {
  const scale = Object.fromEntries(
    SCALE_NAMES.map((name) => [
      name,
      Object.fromEntries(
        STEPS.map((step) => [step, { $value: value(theme.scales[name].steps[step], 1) }]),
      ),
    ]),
  );
  const variants = SCHEMES.flatMap((scheme) =>
    CONTRAST_LEVELS.map((level) => {
      const colours = theme.schemes[scheme][level];
      return [
        variantOf(scheme, level),
        Object.fromEntries(ROLES.map((role) => [role, token(colours[role])])),
      ];
    }),
  );
  const document = {
    $schema: "https://www.designtokens.org/schemas/2025.10/format.json",
    $type: "color",
    scale,
    ...Object.fromEntries(variants),
  };
  return `${JSON.stringify(document, null, 2)}\n`;
}

function value(colour: Srgb, alpha: number): ColourValue {
  return { colorSpace: "srgb", components: components(colour), alpha, hex: toHex(colour) };
}

function token({ colour, reason, translucent }: RoleColour): Token {
  if (reason.kind === "step" || reason.kind === "brand")
    return { $value: `{scale.${reason.scale}.${reason.step}}` };
  if (reason.kind === "override" && reason.override.kind === "step" && !reason.moved)
    return {
      $value: `{scale.${reason.override.scale}.${reason.override.step}}`,
      $description: "set by hand",
    };
  const own = translucent ?? { colour, alpha: 1 };
  const token: Token = { $value: value(own.colour, own.alpha) };
  return reason.kind === "override" ? { ...token, $description: "set by hand" } : token;
}
