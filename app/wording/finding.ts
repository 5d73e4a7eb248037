import { shownRatio } from "#core/colour/contrast.ts";
import type { Finding } from "#core/contrast/verdict.ts";
import type { Repair } from "#core/theme/repairs.ts";
import { overrideWords } from "./reason.ts";
import { roleWords } from "./roles.ts";

const VISION_WORDS = {
  typical: "to everybody",
  protanopia: "without red cones (protanopia)",
  deuteranopia: "without green cones (deuteranopia)",
  tritanopia: "without blue cones (tritanopia)",
} as const;

/** What falls short, by how much, and where. */
export function findingWords(f: Finding): string {
  const over = roleWords(f.over);
  const ground = roleWords(f.ground).toLowerCase();
  const where = `in ${f.scheme}${f.level === "more" ? ", at more contrast" : ""}`;
  if (f.kind === "alike")
    return `${over} looks like ${ground} ${VISION_WORDS[f.vision]} ${where}: they differ by ${f.measured.toFixed(1)}, ${f.owed} is wanted.`;
  if (f.kind === "neighbour")
    return `${over} can hardly be told from ${ground} ${where}: they differ by ${f.measured.toFixed(3)}, ${f.owed} is wanted.`;
  return `${over} on ${ground} ${where} has ${shownRatio(f.measured)}:1 and needs ${f.owed}:1.`;
}

/** What a repair would do. */
export function repairWords(repair: Repair): string {
  const role = roleWords(repair.role).toLowerCase();
  if (repair.override === null) return `Leave ${role} to its rule again`;
  return `Set ${role} to ${overrideWords(repair.override)}`;
}
