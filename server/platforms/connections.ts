import { DeliveryFault, type Fault, type Platform } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { record } from "../audit/audit.ts";
import { encryptSecret } from "../auth/secrets.ts";
import { inTransaction } from "../db/connection.ts";
import { Connection, Place } from "../db/models/index.ts";
import { clear } from "../estate/target.ts";
import { type ConnectionId, newId, type PersonId, type PlaceId } from "../ids.ts";

/** A connection without its credential, which is never shown again. */
export interface ConnectionLine {
  id: ConnectionId;
  name: string;
  platform: Platform;
  address: string;
  scope: string;
  account: string;
  refusedAt: Date | null;
}

const lineOf = (row: Connection): ConnectionLine => {
  const { id, name, platform, address, scope, account, refusedAt } = row;
  return { id, name, platform, address, scope, account, refusedAt };
};

export interface CountedConnection extends ConnectionLine {
  places: number;
}

/** Every connection, with the number of places that are reached by it. */
export async function listConnections(): Promise<CountedConnection[]> {
  const rows = await Connection.findAll({ order: ["platform", "name"] });
  const counts = (await Place.count({
    where: { retiredAt: null },
    group: ["connectionId"],
  })) as unknown as { connectionId: ConnectionId | null; count: number }[];
  return rows.map((row) => ({
    ...lineOf(row),
    places: Number(counts.find((c) => c.connectionId === row.id)?.count ?? 0),
  }));
}

/** A place's connection; null where it has none. */
export async function connectionOf(place: PlaceId): Promise<ConnectionLine | null> {
  const row = await Place.findByPk(place, { attributes: ["connectionId"] });
  const connection = row?.connectionId ? await Connection.findByPk(row.connectionId) : null;
  return connection && lineOf(connection);
}

export interface NewConnection {
  name: string;
  platform: Platform;
  address: string;
  scope: string;
  account: string;
  secret: string;
}

/** Makes a connection; its secret is encrypted before it is stored. */
export async function addConnection(
  { secret, ...words }: NewConnection,
  person: PersonId,
): Promise<ConnectionId> {
  const id = newId<ConnectionId>();
  await inTransaction(async (transaction) => {
    await Connection.create({ id, ...words, secret: encryptSecret(secret) }, { transaction });
    await record(
      {
        person,
        action: "connection-added",
        subjectKind: "connection",
        subjectId: id,
        detail: words,
      },
      transaction,
    );
  });
  return id;
}

/** Replaces a connection's account and credential; a refused one may be used again. */
export async function changeCredential(
  id: ConnectionId,
  account: string,
  secret: string,
  person: PersonId,
): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const row = await Connection.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) return false;
    await row.update({ account, secret: encryptSecret(secret), refusedAt: null }, { transaction });
    await record(
      {
        person,
        action: "credential-changed",
        subjectKind: "connection",
        subjectId: id,
        detail: { connection: row.name, account },
      },
      transaction,
    );
    return true;
  });
}

/** Asks the platform whether the credential counts and may publish; null where all is well. */
export async function testConnection(id: ConnectionId): Promise<Fault | null> {
  const row = await Connection.findByPk(id);
  if (!row) return null;
  const { platform, address, scope, account, secret } = row;
  try {
    const link = { address, scope, account, secret: clear(secret) };
    const { mayPublish } = await CONNECTORS[platform].probe(link);
    if (row.refusedAt) await row.update({ refusedAt: null });
    return mayPublish ? null : { code: "no-right", account, scope };
  } catch (error) {
    if (!(error instanceof DeliveryFault)) throw error;
    if (error.fault.code === "wrong-credential") await markRefused(id);
    return error.fault;
  }
}

/** Keeps a refused credential from being tried again, so that the account isn't locked. */
export async function markRefused(id: ConnectionId): Promise<void> {
  await Connection.update({ refusedAt: new Date() }, { where: { id, refusedAt: null } });
}
