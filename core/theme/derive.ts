import type { Scales } from "../scale/scales.ts";
import type { Derivation } from "./derivation.ts";
import type { SchemeColours } from "./reason.ts";
import { type ContrastLevel, ROLES, type Role, type Scheme } from "./roles.ts";
import { RULES } from "./rules.ts";

/**
 * Every role of a scheme at a contrast level, by its rule. A rule that looks at another role gets
 * it derived first, so the order is found here and nowhere written down.
 */
export function derive(scales: Scales, scheme: Scheme, level: ContrastLevel): SchemeColours {
  const colours = {} as SchemeColours;
  const resolve = (role: Role) => {
    colours[role] ??= RULES[role](derivation);
    return colours[role];
  };
  const derivation: Derivation = {
    scales,
    scheme,
    level,
    colourOf: (role) => resolve(role).colour,
  };
  for (const role of ROLES) resolve(role);
  return colours;
}
