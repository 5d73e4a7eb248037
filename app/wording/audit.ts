import type { Fault } from "#connectors/connector.ts";
import type { Role } from "#core/theme/roles.ts";
import type { AuditAction } from "#server/audit/actions.ts";
import { FAULT_NAMES, listed } from "./fault.ts";
import { roleWords } from "./roles.ts";

export const ACTION_WORDS: Record<AuditAction, string> = {
  "signed-in": "signed in",
  "signed-out": "signed out",
  "sign-in-refused": "sign-in refused",
  "theme-created": "made a theme",
  "theme-archived": "put a theme away",
  "theme-taken-out": "took a theme out again",
  "draft-saved": "saved a draft",
  "draft-save-refused": "draft kept aside, a newer one was there",
  "release-made": "released a theme",
  "delivery-requested": "asked for a delivery",
  "delivery-finished": "delivery confirmed",
  "delivery-failed": "delivery failed",
  "credential-changed": "changed a platform's account",
  "connection-added": "connected a platform",
  "slot-map-changed": "changed a slot map",
  "place-added": "added a place",
  "place-renamed": "renamed a place",
  "place-moved": "moved a place",
  "place-retired": "retired a place",
  "place-test-marked": "marked a test place",
  "theme-assigned": "gave a place a theme",
  "assignment-removed": "let a place inherit again",
  "place-locked": "locked a theme for all below",
  "place-unlocked": "unlocked a place",
  "season-added": "planned a season",
  "season-removed": "took a season away",
  "rollout-made": "planned a rollout",
  "rollout-paused": "paused a rollout",
  "rollout-resumed": "let a rollout go on",
  "rollout-stopped": "stopped a rollout",
  "rollout-finished": "rollout finished",
  "drift-found": "drift found",
  "drift-accepted": "accepted what was found",
  "policy-changed": "changed the policy",
  "waiver-granted": "accepted a finding for a time",
  "waiver-withdrawn": "took an acceptance back",
};

type Detail = Record<string, unknown>;

/** What each kind of detail says; details of other kinds say nothing. */
const SAYS: [key: string, words: (value: string, detail: Detail) => string][] = [
  ["before", (before, { name }) => `“${before}”, now “${name}”`],
  ["release", (release) => `“${release}”`],
  ["name", (name, detail) => ("before" in detail ? "" : `“${name}”`)],
  ["theme", (theme) => `“${theme}”`],
  ["over", (over, { ground }) => pairWords(over, ground)],
  ["scheme", (scheme, { level }) => `in ${scheme}${level === "more" ? ", contrast more" : ""}`],
  ["primary", (primary) => primary],
  ["place", (place) => `at ${place}`],
  ["below", (below) => `below ${below}`],
  ["connection", (connection) => connection],
  ["platform", (platform) => `of ${platform}`],
  ["account", (account) => `as ${account}`],
  ["email", (email) => email],
  ["address", (address) => `from ${address}`],
  ["number", (number) => `release ${number}`],
  ["revision", (revision) => `revision ${revision}`],
  ["basedOn", (basedOn) => `made from revision ${basedOn}`],
  ["from", (from, { until }) => `${from} to ${until}`],
  ["until", (until, { from }) => (from === undefined ? `until ${until}` : "")],
  ["places", (places) => (places === "1" ? "one place" : `${places} places`)],
  ["again", (again) => `${again} tried again`],
  ["conformance", (conformance) => `level ${conformance}`],
  ["shortfall", (s) => (s === "refuse" ? "refuses what falls short" : "warns of what falls short")],
  ["waivers", (waivers) => (waivers === "true" ? "findings may be accepted" : "none accepted")],
  ["reason", (reason) => `“${reason}”`],
  ["fault", (code) => `because ${FAULT_NAMES[code as Fault["code"]] ?? code}`],
];

const pairWords = (over: string, ground: unknown): string =>
  ground === undefined
    ? roleWords(over as Role)
    : `${roleWords(over as Role)} on ${roleWords(ground as Role).toLowerCase()}`;

/** What an entry of the log says of what was done, in one line. */
export function detailWords(detail: Detail): string {
  const { slots } = detail;
  const named = Array.isArray(slots) ? (slots as string[]) : Object.keys((slots as object) ?? {});
  const said = SAYS.filter(([key]) => detail[key] !== undefined && detail[key] !== null).map(
    ([key, words]) => words(String(detail[key]), detail),
  );
  return [...said, named.length > 0 ? listed(named) : ""].filter(Boolean).join(", ");
}
