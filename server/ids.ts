import { randomUUID } from "node:crypto";

/** An identifier that can't be passed for another kind's. */
export type Id<Kind extends string> = string & { readonly __kind: Kind };

export type PersonId = Id<"person">;
export type ThemeId = Id<"theme">;
export type RevisionId = Id<"revision">;
export type ReleaseId = Id<"release">;
export type PlaceId = Id<"place">;
export type ConnectionId = Id<"connection">;
export type DeliveryId = Id<"delivery">;
export type RolloutId = Id<"rollout">;
export type SeasonId = Id<"season">;
export type WaiverId = Id<"waiver">;
export type ReceiptId = Id<"receipt">;

export const newId = <T extends Id<string>>(): T => randomUUID() as T;

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Reads an identifier from an address or a form; null where it can be none. */
export const readId = <T extends Id<string>>(text: unknown): T | null =>
  typeof text === "string" && UUID.test(text) ? (text as T) : null;
