/** A theme given to a place for a time. Both days count, as ISO dates. */
export interface Season<Theme extends string = string> {
  theme: Theme;
  from: string;
  until: string;
}

/** What inheritance needs to know of a place. Parents need not come before their children. */
export interface EstatePlace<Place extends string = string, Theme extends string = string> {
  id: Place;
  parent: Place | null;
  /** The theme that was given to the place itself; null where it inherits. */
  theme: Theme | null;
  /** Whether places below may not have another. Counts only where the place has a theme. */
  locked: boolean;
  seasons: readonly Season<Theme>[];
}

/** Why a place has its theme. */
export type EffectiveReason<Place extends string = string> =
  | { kind: "none" }
  | { kind: "own" }
  | { kind: "season"; until: string }
  /** From a place above, which has it as its own or for a season. */
  | { kind: "inherited"; from: Place; until: string | null }
  /** From a place above that allows no other below it. `own`: the place's own theme waits. */
  | { kind: "locked"; by: Place; until: string | null; ownWaits: boolean };

export interface Effective<Place extends string = string, Theme extends string = string> {
  theme: Theme | null;
  reason: EffectiveReason<Place>;
}

interface Passed<Place extends string, Theme extends string> {
  theme: Theme;
  from: Place;
  until: string | null;
  lockedBy: Place | null;
}

/**
 * The theme that each place has on a day (ISO date), with the reason. A place takes its season's
 * theme, else its own, else its parent's; below a lock it takes the locked one whatever it has.
 * A place whose parent is not among the places counts as a root.
 */
export function effectiveThemes<Place extends string, Theme extends string>(
  places: readonly EstatePlace<Place, Theme>[],
  today: string,
): Map<Place, Effective<Place, Theme>> {
  const ids = new Set(places.map((place) => place.id));
  const below = new Map<Place | null, EstatePlace<Place, Theme>[]>();
  for (const place of places) {
    const parent = place.parent !== null && ids.has(place.parent) ? place.parent : null;
    below.set(parent, [...(below.get(parent) ?? []), place]);
  }
  const found = new Map<Place, Effective<Place, Theme>>();
  const open: [EstatePlace<Place, Theme>, Passed<Place, Theme> | null][] = (
    below.get(null) ?? []
  ).map((root) => [root, null]);
  for (let at = open.pop(); at; at = open.pop()) {
    const [place, passed] = at;
    const { effective, next } = step(place, passed, today);
    found.set(place.id, effective);
    for (const child of below.get(place.id) ?? []) open.push([child, next]);
  }
  return found;
}

function step<Place extends string, Theme extends string>(
  place: EstatePlace<Place, Theme>,
  passed: Passed<Place, Theme> | null,
  today: string,
): { effective: Effective<Place, Theme>; next: Passed<Place, Theme> | null } {
  const season = place.seasons.find((s) => s.from <= today && today <= s.until);
  const own = season?.theme ?? place.theme;
  if (passed?.lockedBy) {
    const { theme, lockedBy: by, until } = passed;
    const reason = { kind: "locked" as const, by, until, ownWaits: own !== null };
    return { effective: { theme, reason }, next: passed };
  }
  if (own === null) {
    if (passed === null)
      return { effective: { theme: null, reason: { kind: "none" } }, next: null };
    const { theme, from, until } = passed;
    return { effective: { theme, reason: { kind: "inherited", from, until } }, next: passed };
  }
  const until = season?.until ?? null;
  const lockedBy = place.locked && place.theme !== null ? place.id : null;
  return {
    effective: {
      theme: own,
      reason: season ? { kind: "season", until: season.until } : { kind: "own" },
    },
    next: { theme: own, from: place.id, until, lockedBy },
  };
}

/** A place whose theme a change would alter. */
export interface Altered<Place extends string = string, Theme extends string = string> {
  place: Place;
  before: Theme | null;
  after: Theme | null;
}

/** The places at which a change of the estate would alter the theme on a day (ISO date). */
export function alteredBy<Place extends string, Theme extends string>(
  before: readonly EstatePlace<Place, Theme>[],
  after: readonly EstatePlace<Place, Theme>[],
  today: string,
): Altered<Place, Theme>[] {
  const now = effectiveThemes(before, today);
  const then = effectiveThemes(after, today);
  return [...then].flatMap(([place, { theme }]) => {
    const was = now.get(place)?.theme ?? null;
    return was === theme ? [] : [{ place, before: was, after: theme }];
  });
}
