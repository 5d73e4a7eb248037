import type { SlotValues } from "#connectors/connector.ts";
import { sha256 } from "../releases/artefact.ts";

/** Names of the slots in which two states of a platform differ, sorted. */
export function differingSlots(sent: SlotValues, found: SlotValues): string[] {
  const names = new Set([...Object.keys(sent), ...Object.keys(found)]);
  return [...names].filter((name) => sent[name] !== found[name]).sort();
}

/** SHA-256 of a platform's state, slots in the order of their names. */
export function digest(values: SlotValues): string {
  const ordered = Object.entries(values).sort(([a], [b]) => (a < b ? -1 : 1));
  return sha256(JSON.stringify(ordered));
}
