import { contrast, contrastOfLuminances } from "../colour/contrast.ts";
import { deltaEok } from "../colour/difference.ts";
import { luminance } from "../colour/luminance.ts";
import { oklch } from "../colour/oklch.ts";
import { type Srgb, toHex } from "../colour/srgb.ts";
import type { Conformance } from "../contrast/pairs.ts";
import type { Finding } from "../contrast/verdict.ts";
import { envelopeOf, tone } from "../scale/envelope.ts";
import { STEPS } from "../scale/ladder.ts";
import { SCALE_NAMES, type ScaleName } from "../scale/scales.ts";
import { resetOverride, setOverride, type ThemeDocument } from "./document.ts";
import type { Override } from "./override.ts";
import type { Role, Scheme } from "./roles.ts";
import { computeTheme, type Theme } from "./theme.ts";

/**
 * One way to mend a finding: set a role by hand, or leave it to its rule again. `distance` is the
 * ΔEOK by which the role's colour moves.
 */
export interface Repair {
  kind: "move" | "step" | "reset";
  role: Role;
  scheme: Scheme;
  override: Override | null;
  before: Srgb;
  after: Srgb;
  distance: number;
}

/** How many repairs are offered at the most. */
const MOST_OFFERED = 6;

/**
 * Repairs of a finding, nearest first. Each was tried: with it the finding is gone, and no other
 * appears. None is offered that would break another pair.
 */
export function repairsOf(
  document: ThemeDocument,
  theme: Theme,
  finding: Finding,
  conformance: Conformance = "AA",
): Repair[] {
  const before = new Set(theme.findings.map(keyOf));
  const offered: Repair[] = [];
  for (const candidate of candidates(document, theme, finding)) {
    if (offered.length >= MOST_OFFERED) break;
    const repaired = computeTheme(applyRepair(document, candidate), conformance);
    const after = repaired.findings.map(keyOf);
    if (after.includes(keyOf(finding)) || after.some((key) => !before.has(key))) continue;
    const colour = repaired.schemes[finding.scheme][finding.level][candidate.role].colour;
    offered.push({ ...candidate, after: colour, distance: deltaEok(candidate.before, colour) });
  }
  return offered.sort((a, b) => a.distance - b.distance);
}

/** The document with a repair made. */
export function applyRepair(document: ThemeDocument, repair: Repair): ThemeDocument {
  return repair.override === null
    ? resetOverride(document, repair.scheme, repair.role)
    : setOverride(document, repair.scheme, repair.role, repair.override);
}

/** What makes two findings the same one: what falls short, and where. */
export const keyOf = (f: Finding): string =>
  [f.kind, f.over, f.ground, f.scheme, f.level, f.kind === "alike" ? f.vision : ""].join(" ");

function candidates(document: ThemeDocument, theme: Theme, finding: Finding): Repair[] {
  const found: Repair[] = [];
  const { scheme, level } = finding;
  for (const role of [finding.over, finding.ground]) {
    const before = theme.schemes[scheme][level][role].colour;
    const add = (kind: Repair["kind"], override: Override | null, after: Srgb) =>
      found.push({
        kind,
        role,
        scheme,
        override,
        before,
        after,
        distance: deltaEok(before, after),
      });
    if (document.overrides[scheme][role]) add("reset", null, before);
    const moved = movesOf(theme, finding, role, before);
    for (const colour of moved) add("move", { kind: "colour", colour: toHex(colour) }, colour);
    for (const scale of scalesFor(role))
      for (const step of STEPS) {
        const colour = theme.scales[scale].steps[step];
        if (colour !== before) add("step", { kind: "step", scale, step }, colour);
      }
  }
  return found.sort((a, b) => a.distance - b.distance);
}

/** The scales whose steps make sense for a role: its own status, else brand, accent and neutral. */
function scalesFor(role: Role): ScaleName[] {
  const own = SCALE_NAMES.find((name) => role === name || role.startsWith(`${name}-`));
  const scales: ScaleName[] = own ? [own, "neutral"] : ["brand", "accent", "neutral"];
  return [...new Set(scales)];
}

const STRIDE = 0.01;
const MOST_STRIDES = 320;

/** The role's own colour made darker and lighter, each just as far as the finding's pair needs. */
function movesOf(theme: Theme, finding: Finding, role: Role, before: Srgb): Srgb[] {
  const colours = theme.schemes[finding.scheme][finding.level];
  const other = colours[role === finding.over ? finding.ground : finding.over].colour;
  const envelope = envelopeOf(oklch(before));
  const level = Math.log(contrastOfLuminances(luminance(before), 1));
  const holds = (colour: Srgb) =>
    finding.kind === "neighbour" || finding.kind === "alike"
      ? deltaEok(colour, other) >= (finding.kind === "neighbour" ? finding.owed : ALIKE_MOVE)
      : contrast(colour, other) >= finding.owed;
  return [1, -1].flatMap((way) => {
    for (let n = 1; n <= MOST_STRIDES; n++) {
      const c = level + way * n * STRIDE;
      if (c < 0 || c > Math.log(21)) return [];
      const colour = tone(envelope, Math.exp(c));
      if (holds(colour)) return [colour];
    }
    return [];
  });
}

/** ΔEOK at which a look-alike is tried as moved far enough; whether it is, the new theme tells. */
const ALIKE_MOVE = 0.1;

/** Where repairing everything has got to: what was taken so far, and what nothing mends. */
export interface RepairRun {
  document: ThemeDocument;
  repairs: Repair[];
  /** Findings that no repair of one role mends without breaking another pair. */
  left: Finding[];
}

/** Adds a repair; one that goes further with the same colour takes the place of the one before. */
function withRepair(repairs: Repair[], next: Repair): Repair[] {
  const at = repairs.findIndex((r) => r.scheme === next.scheme && r.role === next.role);
  const earlier = repairs[at];
  return earlier ? repairs.with(at, { ...next, before: earlier.before }) : [...repairs, next];
}

/**
 * Repairs every pair that falls short, one after the other, each with its nearest repair. Yields
 * after each, since a run over many findings takes a while; look-alikes are left to people.
 */
export function* repairAll(
  document: ThemeDocument,
  conformance: Conformance = "AA",
): Generator<RepairRun> {
  let run: RepairRun = { document, repairs: [], left: [] };
  for (;;) {
    const theme = computeTheme(run.document, conformance);
    const given = new Set(run.left.map(keyOf));
    const next = theme.findings.find((f) => f.kind !== "alike" && !given.has(keyOf(f)));
    if (!next) return;
    const [nearest] = repairsOf(run.document, theme, next, conformance);
    run = nearest
      ? {
          ...run,
          document: applyRepair(run.document, nearest),
          repairs: withRepair(run.repairs, nearest),
        }
      : { ...run, left: [...run.left, next] };
    yield run;
  }
}
