import type { ContrastLevel, Role, Scheme } from "../theme/roles.ts";
import type { Conformance } from "./pairs.ts";
import type { Finding } from "./verdict.ts";

/** What an organisation asks of its themes. */
export interface Policy {
  conformance: Conformance;
  /** Whether a pair that falls short only warns, or refuses the release. */
  shortfall: "warn" | "refuse";
  /** Whether people may accept a finding with a reason until a date. */
  waivers: boolean;
}

export const DEFAULT_POLICY: Policy = { conformance: "AA", shortfall: "refuse", waivers: true };

/** A finding that somebody accepted. It covers that one pair, scheme and level, and runs out. */
export interface Waiver {
  kind: Finding["kind"];
  over: Role;
  ground: Role;
  scheme: Scheme;
  level: ContrastLevel;
  reason: string;
  by: string;
  /** The last day on which it counts, as an ISO date: `2027-03-31`. */
  until: string;
}

/** Whether a waiver covers a finding on a day (ISO date). */
export function covers(waiver: Waiver, finding: Finding, today: string): boolean {
  return (
    waiver.until >= today &&
    waiver.kind === finding.kind &&
    waiver.over === finding.over &&
    waiver.ground === finding.ground &&
    waiver.scheme === finding.scheme &&
    waiver.level === finding.level
  );
}

/**
 * The findings that forbid a release on a day (ISO date). Look-alikes never do: whether two
 * colours can be told apart also depends on the words and shapes beside them.
 */
export function refusals(
  findings: readonly Finding[],
  policy: Policy,
  waivers: readonly Waiver[],
  today: string,
): Finding[] {
  if (policy.shortfall === "warn") return [];
  const valid = policy.waivers ? waivers : [];
  return findings.filter(
    (finding) => finding.kind !== "alike" && !valid.some((w) => covers(w, finding, today)),
  );
}
