import { contrast, contrastOfLuminances } from "../colour/contrast.ts";
import { luminance } from "../colour/luminance.ts";
import { oklch } from "../colour/oklch.ts";
import { BLACK, WHITE } from "../colour/srgb.ts";
import { OWED } from "../contrast/pairs.ts";
import { envelopeOf, tone } from "../scale/envelope.ts";
import { STEPS, type Step } from "../scale/ladder.ts";
import { type ScaleName, STATUSES, type Status } from "../scale/scales.ts";
import { chartColour } from "./charts.ts";
import {
  type ByScheme,
  type Derivation,
  isLight,
  nearestStepThatHolds,
  readableStep,
  shortfall,
  stepColour,
  toneColour,
  white,
} from "./derivation.ts";
import { type FillPlan, type FillRoles, planFill } from "./fill.ts";
import type { RoleColour } from "./reason.ts";
import { ROLE_GROUPS, type Role } from "./roles.ts";

/** How one role gets its colour. */
export type Rule = (d: Derivation) => RoleColour;

const at =
  (scale: ScaleName, light: Step, dark: Step): Rule =>
  (d) =>
    stepColour(d, scale, d.scheme === "light" ? light : dark);

/** A text or line: the wanted step, or the first further from its ground that holds. */
const readable =
  (role: Role, scale: ScaleName, light: Step, dark: Step): Rule =>
  (d) =>
    readableStep(d, role, scale, { light, dark });

/** Another rule for each scheme. */
const inScheme =
  (rules: ByScheme<Rule>): Rule =>
  (d) =>
    rules[d.scheme](d);

/**
 * A soft ground that its text's end (black in light, white in dark) must read on: the wanted step,
 * or the next toward the scheme's ground where it does.
 */
const softGround =
  (scale: ScaleName, light: Step, dark: Step): Rule =>
  (d) => {
    const end = d.scheme === "light" ? BLACK : WHITE;
    const from = STEPS.indexOf(d.scheme === "light" ? light : dark);
    const by = d.scheme === "light" ? -1 : 1;
    for (let i = from; i >= 0 && i < STEPS.length; i += by) {
      const found = stepColour(d, scale, STEPS[i] as Step);
      if (contrast(end, found.colour) >= OWED.text[d.bar]) return found;
    }
    return stepColour(d, scale, STEPS[from] as Step);
  };

/** Another rule at contrast level `more`. */
const atMore =
  (standard: Rule, more: Rule): Rule =>
  (d) =>
    d.bar !== "AA" ? more(d) : standard(d);

/** Dark wells lie below the canvas, beyond the neutral scale's end: contrast on white of the well. */
const DARK_WELL = 19;

/** The plan of a fill, made once a derivation and shared by the fill, its text and its states. */
function plan(d: Derivation, roles: FillRoles, scale: ScaleName, wanted: ByScheme<Step>): FillPlan {
  const known = d.plans.get(roles.fill);
  if (known) return known;
  const fresh = planFill(d, roles, scale, wanted[d.scheme]);
  d.plans.set(roles.fill, fresh);
  return fresh;
}

function fillRules(roles: FillRoles, scale: ScaleName, wanted: (d: Derivation) => ByScheme<Step>) {
  const planned = (d: Derivation) => plan(d, roles, scale, wanted(d));
  const rules: Partial<Record<Role, Rule>> = {
    [roles.fill]: (d: Derivation) => planned(d).fill,
    [roles.text]: (d: Derivation) => planned(d).text,
  };
  for (const [i, state] of roles.states.entries())
    rules[state] = (d) => planned(d).states[i] as RoleColour;
  return rules;
}

/** The step that a scale would fill with: its brand step, or the usual one where it has none. */
const brandStepOr =
  (scale: ScaleName, light: Step, dark: Step) =>
  (d: Derivation): ByScheme<Step> => {
    const step = d.scales[scale].brandStep;
    return step === null ? { light, dark } : { light: step, dark: step };
  };

/**
 * The steps that status fills take. They differ in lightness too, so that no two are alike without
 * one kind of cone: found by search over all steps that hold their pairs, for the largest smallest
 * CIEDE2000 under the three simulations.
 */
const STATUS_STEPS: Record<Status, { standard: ByScheme<Step>; more: ByScheme<Step> }> = {
  success: { standard: { light: 600, dark: 400 }, more: { light: 700, dark: 200 } },
  warning: { standard: { light: 500, dark: 400 }, more: { light: 700, dark: 300 } },
  danger: { standard: { light: 700, dark: 500 }, more: { light: 800, dark: 400 } },
  info: { standard: { light: 700, dark: 300 }, more: { light: 700, dark: 400 } },
};

function statusRules(s: Status): Partial<Record<Role, Rule>> {
  const roles: FillRoles = { fill: s, text: `${s}-text`, states: [] };
  return {
    ...fillRules(roles, s, (d) => STATUS_STEPS[s][d.bar === "AA" ? "standard" : "more"]),
    [`${s}-soft`]: at(s, 100, 900),
    [`${s}-soft-text`]: readable(`${s}-soft-text`, s, 700, 200),
    [`${s}-line`]: readable(`${s}-line`, s, 600, 500),
  };
}

/** A link in the brand colour where it reads, else in the nearest step that does. */
const link: Rule = (d) => nearestStepThatHolds(d, "link", "brand", d.scales.brand.brandStep ?? 600);

/** How far a shade beside the link may go, in strides, until it holds. */
const MOST_STRIDES = 12;

/**
 * A shade of the link's own hue, turned and moved in contrast, that meets its role's duties: a
 * stride stronger than the link, or weaker where the end is near, or as many stronger as it takes.
 */
function besideLink(d: Derivation, role: Role, degrees: number, stride: number): RoleColour {
  const base = d.colourOf("link");
  const source = oklch(base);
  const envelope = envelopeOf({ ...source, h: (source.h + degrees) % 360 });
  const onWhite = contrastOfLuminances(luminance(base), 1);
  const stronger = isLight(d.colourOf("canvas")) ? stride : 1 / stride;
  for (let n = 0; n <= MOST_STRIDES; n++) {
    const factor = n === 1 ? 1 / stronger : stronger ** Math.max(1, n);
    const colour = tone(envelope, Math.min(21, Math.max(1, onWhite * factor)));
    if (colour !== base && shortfall(d, role, colour) === null)
      return { colour, reason: { kind: "hue", of: "link", degrees } };
  }
  return { colour: base, reason: { kind: "hue", of: "link", degrees: 0 } };
}

/** Every role's rule. Steps are given for light, then dark. */
export const RULES: Record<Role, Rule> = {
  canvas: at("neutral", 50, 950),
  "canvas-text": readable("canvas-text", "neutral", 900, 50),
  "canvas-text-muted": readable("canvas-text-muted", "neutral", 600, 400),
  panel: inScheme({ light: () => white, dark: at("neutral", 900, 900) }),
  "panel-text": readable("panel-text", "neutral", 900, 50),
  "panel-text-muted": readable("panel-text-muted", "neutral", 600, 400),
  inset: inScheme({
    light: at("neutral", 100, 100),
    dark: (d) => toneColour(d, "neutral", DARK_WELL),
  }),
  "inset-text": readable("inset-text", "neutral", 900, 100),
  line: at("neutral", 200, 800),
  "line-strong": readable("line-strong", "neutral", 500, 500),
  field: inScheme({ light: () => white, dark: at("neutral", 950, 950) }),
  "field-text": readable("field-text", "neutral", 900, 50),
  "field-hint": readable("field-hint", "neutral", 600, 400),
  "field-line": readable("field-line", "neutral", 500, 500),
  nav: inScheme({ light: () => white, dark: at("neutral", 900, 900) }),
  "nav-text": readable("nav-text", "neutral", 800, 200),
  "nav-current": at("brand", 100, 800),
  "nav-current-text": readable("nav-current-text", "brand", 800, 100),
  footer: inScheme({
    light: at("neutral", 900, 900),
    dark: (d) => toneColour(d, "neutral", DARK_WELL),
  }),
  "footer-text": readable("footer-text", "neutral", 100, 200),
  "action-soft": atMore(at("brand", 100, 800), at("brand", 100, 900)),
  "action-soft-hover": atMore(softGround("brand", 200, 700), softGround("brand", 200, 800)),
  "action-soft-text": readable("action-soft-text", "brand", 800, 100),
  "accent-soft": at("accent", 100, 800),
  "accent-soft-text": readable("accent-soft-text", "accent", 800, 100),
  link,
  "link-hover": (d) => besideLink(d, "link-hover", 0, 1.35),
  "link-visited": (d) => besideLink(d, "link-visited", 60, 1.08),
  selection: softGround("brand", 200, 700),
  "selection-text": readable("selection-text", "neutral", 900, 50),
  mark: at("warning", 200, 300),
  "mark-text": readable("mark-text", "neutral", 950, 950),
  focus: (d) => nearestStepThatHolds(d, "focus", "brand", d.scales.brand.brandStep ?? 600),
  disabled: at("neutral", 200, 800),
  "disabled-text": at("neutral", 500, 500),
  ...(fillRules({ fill: "header", text: "header-text", states: [] }, "brand", (d) => {
    const brand = d.scales.brand.brandStep ?? 600;
    return { light: brand, dark: 800 };
  }) as Record<"header" | "header-text", Rule>),
  ...(fillRules(
    { fill: "action", text: "action-text", states: ["action-hover", "action-pressed"] },
    "brand",
    brandStepOr("brand", 600, 400),
  ) as Record<"action" | "action-hover" | "action-pressed" | "action-text", Rule>),
  ...(fillRules(
    { fill: "accent", text: "accent-text", states: ["accent-hover"] },
    "accent",
    brandStepOr("accent", 600, 400),
  ) as Record<"accent" | "accent-hover" | "accent-text", Rule>),
  ...(Object.assign({}, ...STATUSES.map(statusRules)) as Record<StatusRoles, Rule>),
  ...(Object.fromEntries(
    ROLE_GROUPS.data.map((role, i) => [role, (d: Derivation) => chartColour(d, i)]),
  ) as Record<(typeof ROLE_GROUPS.data)[number], Rule>),
};

type StatusRoles = (typeof ROLE_GROUPS.status)[number];
