import type { Account } from "../access.ts";
import { isFleet, openStore, type Store } from "../store.ts";

export interface StoredPalette {
  slots: Record<string, string>;
  uploadedAt: string;
  /** How often this palette was uploaded: tests look whether a delivery came twice. */
  uploads: number;
}

export interface Site {
  title: string;
  /** The hub that the site is attached to: it has the hub's palette and none of its own. */
  hub: string | null;
  palette: string | null;
  /** What its pages show, and until when they show it although another palette was chosen. */
  shown: string | null;
  showsAt: number;
  /** Every palette that was ever chosen here, in order. */
  chosen: (string | null)[];
}

export interface Tenant {
  title: string;
  accounts: Record<string, Account>;
  sites: Record<string, Site>;
  palettes: Record<string, StoredPalette>;
}

export interface CommonsState {
  tenants: Record<string, Tenant>;
}

export type CommonsStore = Store<CommonsState>;

/** Opens the state file, or starts one with the tenants of the demo. */
export const openCommons = (file: string): CommonsStore => openStore(file, firstState);

const site = (title: string, hub: string | null = null): Site => ({
  title,
  hub,
  palette: null,
  shown: null,
  showsAt: 0,
  chosen: [],
});

/** A tenant's site; one of the fleet is made when it is asked for. */
export function siteOf(tenant: Tenant, key: string): Site | undefined {
  if (isFleet(key)) tenant.sites[key] ??= site(`Deck ${key.slice(6)}`);
  return tenant.sites[key];
}

/** The palette that a site's pages show now, a hub's where the site is attached to one. */
export function shownPalette(tenant: Tenant, at: Site): string | null {
  const own = at.hub === null ? at : (tenant.sites[at.hub] ?? at);
  if (own.showsAt <= Date.now()) own.shown = own.palette;
  return own.shown;
}

const firstState = (): CommonsState => ({
  tenants: {
    "orrin-sound-ferries": {
      title: "Orrin Sound Ferries",
      accounts: {
        "brand.steward@orrinsound.example": { password: "slack-water-42", rights: ["publish"] },
        "deck.crew@orrinsound.example": { password: "bow-thruster-7", rights: [] },
      },
      sites: {
        quayside: site("Quayside"),
        rota: site("Crew rota", "quayside"),
        safety: site("Safety at sea", "quayside"),
        galley: site("Galley and stores", "quayside"),
        "new-starters": site("New starters", "quayside"),
      },
      palettes: {},
    },
    "varrick-harbour-works": {
      title: "Varrick Harbour Works",
      accounts: {
        "brand.steward@orrinsound.example": { password: "slack-water-42", rights: ["publish"] },
      },
      sites: { slipway: site("Slipway"), "dry-dock": site("Dry dock", "slipway") },
      palettes: {},
    },
  },
});
