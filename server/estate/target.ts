import { DeliveryFault, type Platform, type Target } from "#connectors/connector.ts";
import { decryptSecret } from "../auth/secrets.ts";
import { config } from "../config.ts";
import { Connection, Place } from "../db/models/index.ts";
import type { ConnectionId, PlaceId } from "../ids.ts";

/** Where a place's hosted stylesheet is found. */
export const hostedAddress = (slug: string): string =>
  `${config().LIVERY_ORIGIN.replace(/\/$/, "")}/t/${slug}/theme.css`;

/** A credential in clear. Throws DeliveryFault where it was stored under another key. */
export function clear(secret: string): string {
  try {
    return decryptSecret(secret);
  } catch {
    throw new DeliveryFault({ code: "credential-unreadable" });
  }
}

export interface PlaceTarget extends Target {
  platform: Platform;
  connection: ConnectionId;
  /** Whether the platform refused the credential, so that it must not be tried again. */
  refused: boolean;
}

/** How to reach a place, the credential in clear. Null without a connection. Throws DeliveryFault. */
export async function targetOf(id: PlaceId): Promise<PlaceTarget | null> {
  const place = await Place.findByPk(id);
  if (!place?.connectionId || place.externalKey === null) return null;
  const row = await Connection.findByPk(place.connectionId);
  if (!row) return null;
  const { platform, address, scope, account, secret } = row;
  return {
    platform,
    connection: row.id,
    refused: row.refusedAt !== null,
    link: { address, scope, account, secret: clear(secret) },
    key: place.externalKey,
    hosted: hostedAddress(place.slug),
  };
}
