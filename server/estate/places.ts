import slugify from "@sindresorhus/slugify";
import type { Transaction } from "sequelize";
import { mayMove, mayStandBelow, type PlaceKind } from "#core/estate/tree.ts";
import { type ThemeDocument, themeDocument } from "#core/theme/document.ts";
import type { AuditAction } from "../audit/actions.ts";
import { record } from "../audit/audit.ts";
import { database, inTransaction } from "../db/connection.ts";
import { Connection, Delivery, Place, Receipt, Release } from "../db/models/index.ts";
import type { DriftedSlot } from "../db/models/place.ts";
import { type ConnectionId, newId, type PersonId, type PlaceId, type ReleaseId } from "../ids.ts";
import { announce } from "../live/changes.ts";
import { loadEstate } from "./tree.ts";

export interface LiveState {
  release: { id: ReleaseId; name: string; number: number; document: ThemeDocument };
  sentSha256: string;
  foundSha256: string;
  readAt: Date;
}

export interface PlaceDetail {
  id: PlaceId;
  parentId: PlaceId | null;
  kind: PlaceKind;
  name: string;
  slug: string;
  platform: string | null;
  connectionId: ConnectionId | null;
  externalKey: string | null;
  page: string | null;
  isTest: boolean;
  /** What the newest true receipt says; null where nothing was delivered. */
  live: LiveState | null;
  checkedAt: Date | null;
  drift: DriftedSlot[] | null;
}

/** A place that is in use; null where there is none. */
export async function findPlace(id: PlaceId): Promise<PlaceDetail | null> {
  const row = await Place.findOne({
    where: { id, retiredAt: null },
    include: [
      { model: Release, as: "liveRelease", attributes: ["id", "name", "number", "document"] },
      { model: Receipt, as: "liveReceipt", attributes: ["sentSha256", "foundSha256", "readAt"] },
    ],
  });
  if (!row) return null;
  const { liveRelease: release, liveReceipt: receipt } = row as Place & {
    liveRelease: Release | null;
    liveReceipt: Receipt | null;
  };
  const live =
    release && receipt
      ? {
          release: {
            id: release.id,
            name: release.name,
            number: release.number,
            document: themeDocument.parse(release.document),
          },
          sentSha256: receipt.sentSha256,
          foundSha256: receipt.foundSha256,
          readAt: receipt.readAt,
        }
      : null;
  const { parentId, kind, name, slug, platform, connectionId, externalKey, page, isTest } = row;
  const { checkedAt, drift } = row;
  return {
    id,
    parentId,
    kind,
    name,
    slug,
    platform,
    connectionId,
    externalKey,
    page,
    isTest,
    live,
    checkedAt,
    drift,
  };
}

/** One change of the estate at a time: what a change was checked against must still hold when it lands. */
export async function holdEstate(transaction: Transaction): Promise<void> {
  await database().query("SELECT pg_advisory_xact_lock(4600, 1)", { transaction });
}

export interface NewPlace {
  parent: PlaceId | null;
  kind: PlaceKind;
  name: string;
  connection: ConnectionId | null;
  externalKey: string | null;
  page: string | null;
}

export type PlaceRefusal =
  | "no-such-place"
  | "kind-does-not-fit"
  | "name-taken"
  | "no-such-connection"
  | "below-itself"
  | "has-places-below"
  | "under-way";

export type PlaceResult = { ok: true; id: PlaceId } | { ok: false; code: PlaceRefusal };
const refuse = (code: PlaceRefusal): PlaceResult => ({ ok: false, code });

/** Adds a place below another. */
export const addPlace = (wanted: NewPlace, person: PersonId): Promise<PlaceResult> =>
  inTransaction((transaction) => addPlaceIn(wanted, person, transaction));

/** Adds a place as part of a transaction. */
export async function addPlaceIn(
  { parent, kind, name, connection, externalKey, page }: NewPlace,
  person: PersonId,
  transaction: Transaction,
): Promise<PlaceResult> {
  await holdEstate(transaction);
  const above = parent && (await Place.findByPk(parent, { transaction }));
  if (parent && (!above || above.retiredAt)) return refuse("no-such-place");
  if (!mayStandBelow(kind, above ? above.kind : null)) return refuse("kind-does-not-fit");
  const link = connection && (await Connection.findByPk(connection, { transaction }));
  if (connection && !link) return refuse("no-such-connection");
  if (await nameTaken(parent, name, null, transaction)) return refuse("name-taken");
  const id = newId<PlaceId>();
  await Place.create(
    {
      id,
      parentId: parent,
      kind,
      name,
      slug: await freeSlug(name, transaction),
      platform: link ? link.platform : null,
      connectionId: connection,
      externalKey: connection ? (externalKey ?? "") : null,
      page,
    },
    { transaction },
  );
  await note("place-added", id, { name, kind }, person, transaction);
  return { ok: true, id };
}

async function nameTaken(
  parent: PlaceId | null,
  name: string,
  except: PlaceId | null,
  transaction: Transaction,
): Promise<boolean> {
  const siblings = await Place.findAll({
    where: { parentId: parent, retiredAt: null },
    attributes: ["id", "name"],
    transaction,
  });
  return siblings.some((s) => s.id !== except && s.name.toLowerCase() === name.toLowerCase());
}

/** Longest name for addresses that is made, in characters; a number may follow. */
const LONGEST_SLUG = 60;

/** A name for addresses: letters, digits and dashes of the place's name, numbered where taken. */
async function freeSlug(name: string, transaction: Transaction): Promise<string> {
  const plain = slugify(name).slice(0, LONGEST_SLUG) || "place";
  for (let n = 1; ; n++) {
    const slug = n === 1 ? plain : `${plain}-${n}`;
    if ((await Place.count({ where: { slug }, transaction })) === 0) return slug;
  }
}

async function note(
  action: AuditAction,
  id: PlaceId,
  detail: Record<string, unknown>,
  person: PersonId,
  transaction: Transaction,
): Promise<void> {
  await record({ person, action, subjectKind: "place", subjectId: id, detail }, transaction);
  await announce(id, transaction);
}

/** Gives a place another name. Its hosted stylesheet keeps its address. */
export async function renamePlace(
  id: PlaceId,
  name: string,
  person: PersonId,
): Promise<PlaceResult> {
  return inTransaction(async (transaction) => {
    await holdEstate(transaction);
    const place = await Place.findOne({ where: { id, retiredAt: null }, transaction });
    if (!place) return refuse("no-such-place");
    if (await nameTaken(place.parentId, name, id, transaction)) return refuse("name-taken");
    const before = place.name;
    await place.update({ name }, { transaction });
    await note("place-renamed", id, { before, name }, person, transaction);
    return { ok: true, id };
  });
}

/** Moves a place, with everything below it, below another. */
export async function movePlace(
  id: PlaceId,
  parent: PlaceId,
  person: PersonId,
): Promise<PlaceResult> {
  return inTransaction(async (transaction) => {
    await holdEstate(transaction);
    const estate = await loadEstate(transaction);
    const [place, above] = [id, parent].map((wanted) => estate.find((p) => p.id === wanted));
    if (!place || !above) return refuse("no-such-place");
    if (!mayMove(estate, id, parent)) return refuse("below-itself");
    if (!mayStandBelow(place.kind, above.kind)) return refuse("kind-does-not-fit");
    if (await nameTaken(parent, place.name, id, transaction)) return refuse("name-taken");
    await Place.update({ parentId: parent }, { where: { id }, transaction });
    await note("place-moved", id, { name: place.name, below: above.name }, person, transaction);
    return { ok: true, id };
  });
}

/** Takes a place out of the estate. What is live there stays; its history is kept. */
export async function retirePlace(id: PlaceId, person: PersonId): Promise<PlaceResult> {
  return inTransaction(async (transaction) => {
    await holdEstate(transaction);
    const place = await Place.findOne({ where: { id, retiredAt: null }, transaction });
    if (!place) return refuse("no-such-place");
    if ((await Place.count({ where: { parentId: id, retiredAt: null }, transaction })) > 0)
      return refuse("has-places-below");
    const open = await Delivery.count({
      where: { placeId: id, state: ["planned", "queued", "delivering"] },
      transaction,
    });
    if (open > 0) return refuse("under-way");
    await place.update({ retiredAt: new Date() }, { transaction });
    await note("place-retired", id, { name: place.name }, person, transaction);
    return { ok: true, id };
  });
}

/** Marks a place as one where a change is looked at first, or unmarks it. */
export async function markTest(
  id: PlaceId,
  isTest: boolean,
  person: PersonId,
): Promise<PlaceResult> {
  return inTransaction(async (transaction) => {
    const place = await Place.findOne({ where: { id, retiredAt: null }, transaction });
    if (!place) return refuse("no-such-place");
    await place.update({ isTest }, { transaction });
    await note("place-test-marked", id, { name: place.name, isTest }, person, transaction);
    return { ok: true, id };
  });
}
