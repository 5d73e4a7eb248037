/** Kinds of place, from the top of the estate down. */
export const PLACE_KINDS = ["organisation", "tenant", "application", "area"] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** Whether a place of one kind may stand directly below another; null is the top of the estate. */
export function mayStandBelow(kind: PlaceKind, parent: PlaceKind | null): boolean {
  if (parent === null) return kind === "organisation";
  if (kind === "area" && parent === "area") return true;
  return PLACE_KINDS.indexOf(kind) === PLACE_KINDS.indexOf(parent) + 1;
}

interface Node<Place extends string> {
  id: Place;
  parent: Place | null;
}

/** A place and everything below it. */
export function withBelow<Place extends string>(
  places: readonly Node<Place>[],
  roots: Iterable<Place>,
): Set<Place> {
  const below = new Map<Place, Place[]>();
  for (const { id, parent } of places)
    if (parent !== null) below.set(parent, [...(below.get(parent) ?? []), id]);
  const found = new Set<Place>(roots);
  for (const id of found) for (const child of below.get(id) ?? []) found.add(child);
  return found;
}

/** Whether a place may be moved below another: never below itself. */
export const mayMove = <Place extends string>(
  places: readonly Node<Place>[],
  moved: Place,
  to: Place,
): boolean => !withBelow(places, [moved]).has(to);
