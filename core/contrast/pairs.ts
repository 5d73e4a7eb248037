import { STATUSES } from "../scale/scales.ts";
import type { ContrastLevel, Role } from "../theme/roles.ts";

/**
 * What meets on screen. `text` owes WCAG 2.2 SC 1.4.3 (1.4.6 at contrast level `more`), `boundary`
 * owes SC 1.4.11 to the ground it lies on, `neighbour` is two fills that must be told apart (our
 * own bar), `inactive` is exempt under SC 1.4.3 and 1.4.11.
 */
export type PairKind = "text" | "boundary" | "neighbour" | "inactive";

export interface Pair {
  kind: PairKind;
  over: Role;
  ground: Role;
}

/** WCAG 2.2 conformance that an organisation asks for. */
export const CONFORMANCES = ["AA", "AAA"] as const;
export type Conformance = (typeof CONFORMANCES)[number];

/** What a scheme is held to: the organisation's conformance, or more for readers who ask for it. */
export type Bar = Conformance | "more";
export const barOf = (level: ContrastLevel, conformance: Conformance): Bar =>
  level === "more" ? "more" : conformance;

/** Contrast owed by kind: text by SC 1.4.3 (AA) and 1.4.6, boundaries by 1.4.11; 4.5 at `more` is our own bar. */
export const OWED: Record<"text" | "boundary", Record<Bar, number>> = {
  text: { AA: 4.5, AAA: 7, more: 7 },
  boundary: { AA: 3, AAA: 3, more: 4.5 },
};

/** Contrast that large text (24 px, or 18.66 px bold) owes: SC 1.4.3 and 1.4.6. */
export const OWED_LARGE: Record<Bar, number> = { AA: 3, AAA: 4.5, more: 4.5 };

/** The success criterion that a pair answers to; null for our own bars. */
export function criterionOf(pair: Pair, bar: Bar): string | null {
  if (pair.kind === "neighbour") return null;
  if (pair.kind === "boundary") return pair.over === "focus" ? "2.4.13" : "1.4.11";
  return bar === "AA" ? "1.4.3" : "1.4.6";
}

/** ΔEOK that neighbours owe, unless a line that differs as much lies between them. Our own bar. */
export const NEIGHBOUR_DIFFERENCE = 0.015;

const of = (kind: PairKind, over: Role, ...grounds: Role[]): Pair[] =>
  grounds.map((ground) => ({ kind, over, ground }));

/** Every pair of a theme, in the order of the roles. */
export const PAIRS: readonly Pair[] = [
  ...of("text", "canvas-text", "canvas"),
  ...of("text", "canvas-text-muted", "canvas"),
  ...of("text", "panel-text", "panel"),
  ...of("text", "panel-text-muted", "panel"),
  ...of("text", "inset-text", "inset"),
  ...of("boundary", "line-strong", "canvas", "panel"),
  ...of("neighbour", "panel", "canvas"),
  ...of("neighbour", "inset", "canvas", "panel"),
  ...of("text", "field-text", "field"),
  ...of("text", "field-hint", "field"),
  ...of("boundary", "field-line", "field", "canvas", "panel"),
  ...of("text", "header-text", "header"),
  ...of("text", "nav-text", "nav"),
  ...of("text", "nav-current-text", "nav-current"),
  ...of("neighbour", "nav-current", "nav"),
  ...of("text", "footer-text", "footer"),
  ...of("boundary", "action", "canvas", "panel"),
  ...of("boundary", "action-hover", "canvas", "panel"),
  ...of("boundary", "action-pressed", "canvas", "panel"),
  ...of("text", "action-text", "action", "action-hover", "action-pressed"),
  ...of("text", "action-soft-text", "action-soft", "action-soft-hover"),
  ...of("boundary", "accent", "canvas", "panel"),
  ...of("boundary", "accent-hover", "canvas", "panel"),
  ...of("text", "accent-text", "accent", "accent-hover"),
  ...of("text", "accent-soft-text", "accent-soft"),
  ...of("text", "link", "canvas", "panel"),
  ...of("text", "link-hover", "canvas", "panel"),
  ...of("text", "link-visited", "canvas", "panel"),
  ...of("text", "selection-text", "selection"),
  ...of("text", "mark-text", "mark"),
  ...of("boundary", "focus", "canvas", "panel"),
  ...of("inactive", "disabled-text", "disabled"),
  ...STATUSES.flatMap((s) => [
    ...of("boundary", s, "canvas", "panel"),
    ...of("text", `${s}-text`, s),
    ...of("text", `${s}-soft-text`, `${s}-soft`),
    ...of("boundary", `${s}-line`, "canvas", "panel", `${s}-soft`),
  ]),
  ...([1, 2, 3, 4, 5, 6, 7, 8] as const).flatMap((n) => of("boundary", `chart-${n}`, "panel")),
];

/** A ground that a role owes contrast to when it lies over it. */
export interface Duty {
  ground: Role;
  owed: number;
}

const DUTIES: Record<Bar, Map<Role, Duty[]>> = {
  AA: dutiesByRole("AA"),
  AAA: dutiesByRole("AAA"),
  more: dutiesByRole("more"),
};

function dutiesByRole(bar: Bar): Map<Role, Duty[]> {
  const byRole = new Map<Role, Duty[]>();
  for (const { kind, over, ground } of PAIRS) {
    if (kind !== "text" && kind !== "boundary") continue;
    const duties = byRole.get(over) ?? [];
    duties.push({ ground, owed: OWED[kind][bar] });
    byRole.set(over, duties);
  }
  return byRole;
}

/** What a role owes, and to which grounds. */
export const dutiesOf = (role: Role, bar: Bar): readonly Duty[] => DUTIES[bar].get(role) ?? NONE;
const NONE: readonly Duty[] = [];
