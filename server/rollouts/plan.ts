import { effectiveThemes } from "#core/estate/effective.ts";
import { withBelow } from "#core/estate/tree.ts";
import { Place, Release } from "../db/models/index.ts";
import { loadEstate, newestReleases, todayUtc } from "../estate/tree.ts";
import type { PlaceId, ReleaseId } from "../ids.ts";

/** A place that a rollout could reach, with what it would get. */
export interface PlannedPlace {
  id: PlaceId;
  name: string;
  /** Names of the places above it, from the top down. */
  above: string;
  platform: string;
  isTest: boolean;
  release: ReleaseId | null;
  live: ReleaseId | null;
}

/**
 * The places that would show something else: with a release, wherever its theme applies; without,
 * wherever a theme has a newer release. Below the given places, or in the whole estate.
 */
export async function planPlaces(
  release: ReleaseId | null,
  below: readonly PlaceId[],
): Promise<PlannedPlace[]> {
  const [estate, newest, wanted] = await Promise.all([
    loadEstate(),
    newestReleases(),
    release && Release.findByPk(release, { attributes: ["id", "themeId"] }),
  ]);
  const within = below.length > 0 ? withBelow(estate, below) : null;
  const effective = effectiveThemes(estate, todayUtc());
  const named = new Map(estate.map((place) => [place.id, place]));
  const aboveOf = (id: PlaceId | null): string => {
    const place = id && named.get(id);
    return place ? [aboveOf(place.parent), place.name].filter(Boolean).join(" / ") : "";
  };
  const chosen = estate.filter((p) => p.deliverable && (within === null || within.has(p.id)));
  const rows = await Place.findAll({
    where: { id: chosen.map((p) => p.id) },
    attributes: ["id", "platform", "liveReleaseId"],
  });
  const byId = new Map(rows.map((row) => [row.id, row]));
  return chosen.flatMap((place): PlannedPlace[] => {
    const theme = effective.get(place.id)?.theme ?? null;
    if (wanted && wanted.themeId !== theme) return [];
    const gets = wanted ? wanted.id : theme === null ? null : newest.get(theme)?.id;
    const row = byId.get(place.id) as Place;
    if (gets === undefined || gets === row.liveReleaseId) return [];
    return [
      {
        id: place.id,
        name: place.name,
        above: aboveOf(place.parent),
        platform: row.platform ?? "",
        isTest: place.isTest,
        release: gets,
        live: row.liveReleaseId,
      },
    ];
  });
}
