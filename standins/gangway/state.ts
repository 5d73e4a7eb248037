import type { Account } from "../access.ts";
import { isFleet, openStore, type Store } from "../store.ts";

export interface StoredFile {
  mediaType: string;
  /** Base64 of the bytes. */
  bytes: string;
  sha256: string;
}

export interface Portal {
  title: string;
  files: Record<string, StoredFile>;
  /** What the portal's cache still shows, until then. */
  cached: Record<string, StoredFile>;
  cachedUntil: number;
  writes: number;
}

export interface GangwayState {
  accounts: Record<string, Account>;
  portals: Record<string, Portal>;
}

export type GangwayStore = Store<GangwayState>;

const portal = (title: string): Portal => ({
  title,
  files: {},
  cached: {},
  cachedUntil: 0,
  writes: 0,
});

export const openGangway = (file: string): GangwayStore =>
  openStore(file, () => ({
    accounts: {
      "portal.keeper@orrinsound.example": { password: "bollard-hitch-88", rights: ["publish"] },
      "portal.guest@orrinsound.example": { password: "bow-line-5", rights: [] },
    },
    portals: { "crew-portal": portal("Crew Portal"), "freight-desk": portal("Freight Desk") },
  }));

export function portalOf(store: GangwayStore, key: string): Portal | undefined {
  if (isFleet(key)) store.state.portals[key] ??= portal(`Pier ${key.slice(6)}`);
  return store.state.portals[key];
}

/** The files that a portal shows now: those of its cache while that lasts. */
export const shownFiles = (at: Portal): Record<string, StoredFile> =>
  at.cachedUntil > Date.now() ? at.cached : at.files;
