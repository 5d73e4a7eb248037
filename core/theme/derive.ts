import { contrastOfLuminances } from "../colour/contrast.ts";
import { luminance } from "../colour/luminance.ts";
import { oklch } from "../colour/oklch.ts";
import { composite, fromHex } from "../colour/srgb.ts";
import type { Bar } from "../contrast/pairs.ts";
import { envelopeOf, tone } from "../scale/envelope.ts";
import type { Scales } from "../scale/scales.ts";
import { type Derivation, type StepColours, shortfall, stepColour } from "./derivation.ts";
import type { Override, Overrides } from "./override.ts";
import type { RoleColour, SchemeColours } from "./reason.ts";
import { ROLES, type Role, type Scheme } from "./roles.ts";
import { RULES } from "./rules.ts";

/** All roles, none derived yet: one shape for every derivation, which engines find faster. */
const UNKNOWN = Object.fromEntries(
  ROLES.map((role) => [role, undefined]),
) as unknown as SchemeColours;

/**
 * Every role of a scheme, held to a bar: what was set by hand, else by its rule. A rule that
 * looks at another role gets it derived first, so the order is found here and nowhere written down.
 * A role set to another that in turn depends on it is left to its rule.
 */
export function derive(
  scales: Scales,
  steps: StepColours,
  overrides: Overrides,
  scheme: Scheme,
  bar: Bar,
): SchemeColours {
  const colours: SchemeColours = { ...UNKNOWN };
  const anyByHand = Object.keys(overrides).length > 0;
  const underWay = new Set<Role>();
  const byHand = new Map<Role, RoleColour | null>();

  const setByHand = (role: Role): RoleColour | null => {
    const override = overrides[role];
    if (override === undefined) return null;
    const known = byHand.get(role);
    if (known !== undefined) return known;
    byHand.set(role, null);
    const taken = take(derivation, override);
    byHand.set(role, taken);
    return taken;
  };

  const resolve = (role: Role): RoleColour => {
    const known = colours[role];
    if (known !== undefined) return known;
    if (!anyByHand) {
      colours[role] = RULES[role](derivation);
      return colours[role];
    }
    if (underWay.has(role)) return RULES[role]({ ...derivation, setByHand: () => null });
    underWay.add(role);
    const set = setByHand(role);
    const colour = set === null ? RULES[role](derivation) : holding(derivation, role, set);
    underWay.delete(role);
    colours[role] = colour;
    return colour;
  };

  const derivation: Derivation = {
    scales,
    steps,
    scheme,
    bar,
    colourOf: (role) => resolve(role).colour,
    setByHand,
    plans: new Map(),
    charts: null,
  };
  for (const role of ROLES) resolve(role);
  return colours;
}

/** The colour that an override stands for. */
function take(d: Derivation, override: Override): RoleColour {
  const reason = { kind: "override" as const, override, moved: false };
  switch (override.kind) {
    case "colour": {
      const colour = fromHex(override.colour);
      const alpha = override.alpha ?? 1;
      if (alpha === 1) return { colour, reason };
      const laid = composite(colour, alpha, d.colourOf("canvas"));
      return { colour: laid, reason, translucent: { colour, alpha } };
    }
    case "step":
      return { colour: stepColour(d, override.scale, override.step).colour, reason };
    case "role":
      return { colour: d.colourOf(override.role), reason };
  }
}

/** Steps of ln c in which a colour is moved until it holds, and how many. */
const STRIDE = 0.05;
const MOST_STRIDES = 61;

/**
 * At the standard level a colour set by hand is taken as it is, and a finding where it falls short.
 * At level `more`, which nobody sets by hand, it is made lighter or darker until it holds.
 */
function holding(d: Derivation, role: Role, set: RoleColour): RoleColour {
  if (d.bar !== "more" || shortfall(d, role, set.colour) === null) return set;
  if (set.reason.kind !== "override") return set;
  const envelope = envelopeOf(oklch(set.colour));
  const level = Math.log(contrastOfLuminances(luminance(set.colour), 1));
  for (let n = 1; n <= MOST_STRIDES; n++)
    for (const way of [1, -1]) {
      const c = Math.exp(Math.min(Math.log(21), Math.max(0, level + way * n * STRIDE)));
      const colour = tone(envelope, c);
      if (shortfall(d, role, colour) === null)
        return { colour, reason: { ...set.reason, moved: true } };
    }
  return set;
}
