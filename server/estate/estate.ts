import type { Link } from "#connectors/connector.ts";
import { type ThemeDocument, themeDocument } from "#core/theme/document.ts";
import { record } from "../audit/audit.ts";
import { decryptSecret, encryptSecret } from "../auth/secrets.ts";
import { inTransaction } from "../db/connection.ts";
import { Connection, Delivery, Place, Receipt, Release } from "../db/models/index.ts";
import type { PlaceKind } from "../db/models/place.ts";
import type { ConnectionId, PersonId, PlaceId, ReleaseId, ThemeId } from "../ids.ts";

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

/** The document of the newest release of a theme that is live anywhere; null where none is. */
export async function liveDocumentOf(theme: ThemeId): Promise<ThemeDocument | null> {
  const releases = await Release.findAll({
    where: { themeId: theme },
    attributes: ["id", "document"],
    order: [["number", "DESC"]],
    limit: 20,
  });
  for (const release of releases) {
    const delivered = await Delivery.findOne({
      where: { releaseId: release.id, state: "delivered" },
      order: [["finishedAt", "DESC"]],
    });
    const live = delivered && (await liveAt(delivered.placeId));
    if (live?.release.id === release.id) return themeDocument.parse(release.document);
  }
  return null;
}
