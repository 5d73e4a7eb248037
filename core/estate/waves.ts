/** What planning needs to know of a place. */
export interface Deliverable<Place extends string = string> {
  id: Place;
  /** Whether a change is looked at here before it goes anywhere else. */
  isTest: boolean;
}

/** Places at which a wave that is no test may begin, so that a mistake stays small. */
const FIRST_WAVE = 20;

/**
 * Plans the waves of a rollout: test places first, or one place where none is marked; then up to
 * twenty; then the rest. Every place is in exactly one wave.
 */
export function planWaves<Place extends string>(places: readonly Deliverable<Place>[]): Place[][] {
  const ids = (list: readonly Deliverable<Place>[]) => list.map((place) => place.id);
  if (places.length <= 1) return places.length === 0 ? [] : [ids(places)];
  const marked = places.filter((place) => place.isTest);
  const tests = marked.length > 0 ? marked : places.slice(0, 1);
  const rest = places.filter((place) => !tests.includes(place));
  const few = rest.length > 2 * FIRST_WAVE ? rest.slice(0, FIRST_WAVE) : [];
  return [tests, few, rest.slice(few.length)].filter((wave) => wave.length > 0).map(ids);
}
