import { QueryTypes } from "sequelize";
import { type ThemeDocument, themeDocument } from "#core/theme/document.ts";
import { database } from "../db/connection.ts";
import type { ReleaseId } from "../ids.ts";

export interface LiveRelease {
  id: ReleaseId;
  document: ThemeDocument;
  /** A few of the places where it is live, by name. */
  places: string[];
  /** At how many it is. */
  count: number;
}

/** How many places are named where a release is said to be live. */
const NAMED = 2;

/** The releases that true receipts say are live somewhere, those at most places first. */
export async function listLiveReleases(size: number): Promise<LiveRelease[]> {
  const rows = await database().query<LiveRelease>(
    `SELECT r.id, r.document, l.places[1:${NAMED}] AS places, l.count
     FROM (
       SELECT live_release_id, array_agg(name ORDER BY name) AS places, count(*)::integer AS count
       FROM places WHERE retired_at IS NULL AND live_release_id IS NOT NULL
       GROUP BY live_release_id
     ) l
     JOIN releases r ON r.id = l.live_release_id
     ORDER BY l.count DESC, r.created_at DESC
     LIMIT $1`,
    { bind: [size], type: QueryTypes.SELECT },
  );
  return rows.map((row) => ({ ...row, document: themeDocument.parse(row.document) }));
}
