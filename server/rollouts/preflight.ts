import type { PreflightCheck } from "#connectors/connector.ts";
import { preflight } from "../deliveries/deliveries.ts";
import type { Leg } from "./rollouts.ts";

export interface PlaceChecks {
  place: Leg["place"];
  /** Null where the place goes back to its own look, for which nothing is checked. */
  checks: PreflightCheck[] | null;
}

/** How many places are asked at the same time. */
const AT_ONCE = 8;

/** Looks at everything that could stand in the way at each place, and changes nothing. */
export async function preflightAll(legs: readonly Leg[]): Promise<PlaceChecks[]> {
  const out: PlaceChecks[] = [];
  const open = legs.map((leg, i) => [leg, i] as const);
  const work = async () => {
    for (let next = open.shift(); next; next = open.shift()) {
      const [{ place, release }, i] = next;
      out[i] = { place, checks: release && (await preflight(place, release)) };
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  return out;
}
