import { QueryTypes } from "sequelize";
import type { Link } from "#connectors/connector.ts";
import { type ThemeDocument, themeDocument } from "#core/theme/document.ts";
import { record } from "../audit/audit.ts";
import { decryptSecret, encryptSecret } from "../auth/secrets.ts";
import { database, inTransaction } from "../db/connection.ts";
import { Connection, Delivery, Place, Receipt, Release } from "../db/models/index.ts";
import type { PlaceKind } from "../db/models/place.ts";
import type { ConnectionId, PersonId, PlaceId, ReleaseId } from "../ids.ts";

export interface LiveState {
  release: { id: ReleaseId; name: string; number: number; document: ThemeDocument };
  sentSha256: string;
  foundSha256: string;
  readAt: Date;
}

export interface PlaceLine {
  id: PlaceId;
  parentId: PlaceId | null;
  kind: PlaceKind;
  name: string;
  platform: string | null;
  page: string | null;
  /** What the last true receipt says; null where nothing was delivered yet. */
  live: LiveState | null;
}

/** A page of places in the order of the tree's names, with what is live at each. */
export async function listPlaces(
  page: number,
  size: number,
): Promise<{ lines: PlaceLine[]; total: number }> {
  const { rows, count } = await Place.findAndCountAll({
    order: [["createdAt", "ASC"]],
    limit: size,
    offset: (page - 1) * size,
  });
  const lines = await Promise.all(rows.map(async (row) => asLine(row, await liveAt(row.id))));
  return { lines, total: count };
}

export async function findPlace(id: PlaceId): Promise<PlaceLine | null> {
  const row = await Place.findByPk(id);
  return row && asLine(row, await liveAt(id));
}

const asLine = (row: Place, live: LiveState | null): PlaceLine => ({
  id: row.id,
  parentId: row.parentId,
  kind: row.kind,
  name: row.name,
  platform: row.platform,
  page: row.page,
  live,
});

/** What a place's newest true receipt says is live there. */
async function liveAt(id: PlaceId): Promise<LiveState | null> {
  const receipt = await Receipt.findOne({ where: { placeId: id }, order: [["readAt", "DESC"]] });
  if (!receipt || receipt.sentSha256 !== receipt.foundSha256) return null;
  const delivery = await Delivery.findByPk(receipt.deliveryId);
  const release =
    delivery &&
    (await Release.findByPk(delivery.releaseId, {
      attributes: ["id", "name", "number", "document"],
    }));
  if (!release) return null;
  const { sentSha256, foundSha256, readAt } = receipt;
  const { id: releaseId, name, number, document } = release;
  return { release: { id: releaseId, name, number, document }, sentSha256, foundSha256, readAt };
}

/** How to reach a place's platform, the credential in clear. Null for a place without a connection. */
export async function linkOf(
  id: PlaceId,
): Promise<{ platform: Connection["platform"]; link: Link; key: string } | null> {
  const place = await Place.findByPk(id);
  if (!place?.connectionId || place.externalKey === null) return null;
  const connection = await Connection.findByPk(place.connectionId);
  if (!connection) return null;
  const { platform, address, scope, account, secret } = connection;
  return {
    platform,
    link: { address, scope, account, secret: decryptSecret(secret) },
    key: place.externalKey,
  };
}

export interface ConnectionLine {
  id: ConnectionId;
  platform: string;
  address: string;
  scope: string;
  account: string;
}

/** A place's connection without its credential. */
export async function connectionOf(id: PlaceId): Promise<ConnectionLine | null> {
  const place = await Place.findByPk(id);
  const row = place?.connectionId ? await Connection.findByPk(place.connectionId) : null;
  if (!row) return null;
  const { id: connectionId, platform, address, scope, account } = row;
  return { id: connectionId, platform, address, scope, account };
}

/** Replaces the account and credential that a place's platform is reached with. */
export async function changeCredential(
  id: PlaceId,
  account: string,
  secret: string,
  person: PersonId,
): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const place = await Place.findByPk(id, { transaction });
    if (!place?.connectionId) return false;
    await Connection.update(
      { account, secret: encryptSecret(secret) },
      { where: { id: place.connectionId }, transaction },
    );
    await record(
      {
        person,
        action: "credential-changed",
        subjectKind: "connection",
        subjectId: place.connectionId,
        detail: { place: place.name, account },
      },
      transaction,
    );
    return true;
  });
}

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
       SELECT d.release_id, array_agg(p.name ORDER BY p.name) AS places, count(*)::integer AS count
       FROM (
         SELECT DISTINCT ON (place_id) place_id, delivery_id, sent_sha256 = found_sha256 AS equal
         FROM receipts ORDER BY place_id, read_at DESC
       ) newest
       JOIN deliveries d ON d.id = newest.delivery_id
       JOIN places p ON p.id = newest.place_id
       WHERE newest.equal
       GROUP BY d.release_id
     ) l
     JOIN releases r ON r.id = l.release_id
     ORDER BY l.count DESC, r.created_at DESC
     LIMIT $1`,
    { bind: [size], type: QueryTypes.SELECT },
  );
  return rows.map((row) => ({ ...row, document: themeDocument.parse(row.document) }));
}
