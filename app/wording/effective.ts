import type { EffectiveReason } from "#core/estate/effective.ts";

/** Why a place has its theme; names are those of places by their identifiers. */
export function effectiveWords(
  reason: EffectiveReason,
  names: ReadonlyMap<string, string>,
): string {
  const until = (day: string | null) => (day ? `, until ${day}` : "");
  switch (reason.kind) {
    case "none":
      return "nothing to inherit";
    case "own":
      return "its own";
    case "season":
      return `its season, until ${reason.until}`;
    case "inherited":
      return `inherits from ${names.get(reason.from) ?? "above"}${until(reason.until)}`;
    case "locked":
      return `locked by ${names.get(reason.by) ?? "above"}${until(reason.until)}${reason.ownWaits ? "; its own waits" : ""}`;
  }
}
