import { QueryTypes, type Transaction } from "sequelize";
import type { Platform } from "#connectors/connector.ts";
import { type Effective, type EstatePlace, effectiveThemes } from "#core/estate/effective.ts";
import type { PlaceKind } from "#core/estate/tree.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { database } from "../db/connection.ts";
import { Place, SeasonRow } from "../db/models/index.ts";
import type { PlaceId, ReleaseId, ThemeId } from "../ids.ts";

export type EstateNode = EstatePlace<PlaceId, ThemeId> & {
  name: string;
  kind: PlaceKind;
  deliverable: boolean;
  isTest: boolean;
};

export const todayUtc = (): string => new Date().toISOString().slice(0, 10);

/** The whole estate as inheritance sees it, retired places left out. */
export async function loadEstate(transaction: Transaction | null = null): Promise<EstateNode[]> {
  const [places, seasons] = await Promise.all([
    Place.findAll({
      where: { retiredAt: null },
      attributes: ["id", "parentId", "name", "kind", "themeId", "locked", "connectionId", "isTest"],
      order: ["name"],
      transaction,
    }),
    SeasonRow.findAll({ order: ["fromDay"], transaction }),
  ]);
  return places.map((place) => ({
    id: place.id,
    parent: place.parentId,
    name: place.name,
    kind: place.kind,
    theme: place.themeId,
    locked: place.locked,
    deliverable: place.connectionId !== null,
    isTest: place.isTest,
    seasons: seasons
      .filter((s) => s.placeId === place.id)
      .map((s) => ({ theme: s.themeId, from: s.fromDay, until: s.untilDay })),
  }));
}

/** How a place stands: what an administrator would have to do about it, if anything. */
export type Standing =
  /** Nothing is delivered to it: it only passes its theme on. */
  "passes-on" | "no-theme" | "no-release" | "due" | "live" | "drifted" | "under-way" | "failed";

export interface EstateRow {
  id: PlaceId;
  parent: PlaceId | null;
  kind: PlaceKind;
  name: string;
  platform: Platform | null;
  page: string | null;
  isTest: boolean;
  own: ThemeId | null;
  locked: boolean;
  effective: Effective<PlaceId, ThemeId>;
  live: ReleaseId | null;
  readAt: Date | null;
  /** The newest release of the theme that the place has now. */
  newest: ReleaseId | null;
  standing: Standing;
}

export interface ReleaseName {
  id: ReleaseId;
  theme: ThemeId;
  name: string;
  document: ThemeDocument;
}

export interface Estate {
  rows: EstateRow[];
  /** Every release that is live at a row or newest of its theme. */
  releases: ReleaseName[];
}

interface Found {
  id: PlaceId;
  platform: Platform | null;
  page: string | null;
  deliverable: boolean;
  live: ReleaseId | null;
  read_at: Date | null;
  drifted: boolean;
  last: string | null;
}

/** The whole estate with what each place has, shows and needs. */
export async function viewEstate(): Promise<Estate> {
  const [nodes, found, newest] = await Promise.all([
    loadEstate(),
    database().query<Found>(
      `SELECT p.id, p.platform, p.page, p.connection_id IS NOT NULL AS deliverable,
              p.live_release_id AS live, r.read_at, p.drift IS NOT NULL AS drifted, d.state AS last
       FROM places p
       LEFT JOIN receipts r ON r.id = p.live_receipt_id
       LEFT JOIN LATERAL (
         SELECT state FROM deliveries WHERE place_id = p.id ORDER BY requested_at DESC LIMIT 1
       ) d ON true
       WHERE p.retired_at IS NULL`,
      { type: QueryTypes.SELECT },
    ),
    newestReleases(),
  ]);
  const byPlace = new Map(found.map((row) => [row.id, row]));
  const effective = effectiveThemes(nodes, todayUtc());
  const rows = nodes.map((node): EstateRow => {
    const at = byPlace.get(node.id) as Found;
    const has = effective.get(node.id) as Effective<PlaceId, ThemeId>;
    const release = has.theme === null ? null : (newest.get(has.theme)?.id ?? null);
    return {
      id: node.id,
      parent: node.parent,
      kind: node.kind,
      name: node.name,
      platform: at.platform,
      page: at.page,
      isTest: node.isTest,
      own: node.theme,
      locked: node.locked,
      effective: has,
      live: at.live,
      readAt: at.read_at,
      newest: release,
      standing: standingOf(at, has.theme, release),
    };
  });
  const named = new Set(rows.flatMap((row) => [row.live, row.newest]));
  return { rows, releases: await releaseNames([...named].filter((id) => id !== null)) };
}

function standingOf(at: Found, theme: ThemeId | null, newest: ReleaseId | null): Standing {
  if (!at.deliverable) return "passes-on";
  if (at.last === "queued" || at.last === "delivering" || at.last === "planned") return "under-way";
  if (at.last === "failed") return "failed";
  if (at.drifted) return "drifted";
  if (theme === null) return at.live === null ? "no-theme" : "live";
  if (newest === null) return "no-release";
  return at.live === newest ? "live" : "due";
}

/** The newest release of each theme. */
export async function newestReleases(): Promise<Map<ThemeId, { id: ReleaseId; name: string }>> {
  const rows = await database().query<{ theme: ThemeId; id: ReleaseId; name: string }>(
    `SELECT DISTINCT ON (theme_id) theme_id AS theme, id, name FROM releases
     ORDER BY theme_id, number DESC`,
    { type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ theme, id, name }) => [theme, { id, name }]));
}

async function releaseNames(ids: ReleaseId[]): Promise<ReleaseName[]> {
  if (ids.length === 0) return [];
  return database().query<ReleaseName>(
    "SELECT id, theme_id AS theme, name, document FROM releases WHERE id = ANY($1)",
    { bind: [ids], type: QueryTypes.SELECT },
  );
}
