import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";

export interface StoredPalette {
  slots: Record<string, string>;
  uploadedAt: string;
  /** How often this palette was uploaded: tests look whether a delivery came twice. */
  uploads: number;
}

export interface Site {
  title: string;
  palette: string | null;
  /** Every palette that was ever chosen here, in order. */
  chosen: string[];
}

export interface Tenant {
  title: string;
  accounts: Record<string, { password: string; rights: string[] }>;
  sites: Record<string, Site>;
  palettes: Record<string, StoredPalette>;
}

export interface CommonsState {
  tenants: Record<string, Tenant>;
}

/** Commons' own state, kept in a file of its own that is replaced whole at every change. */
export interface CommonsStore {
  state: CommonsState;
  save(): void;
}

/** Opens the state file, or starts one with the tenants of the demo. */
export function openCommons(file: string): CommonsStore {
  const state = existsSync(file)
    ? (JSON.parse(readFileSync(file, "utf8")) as CommonsState)
    : firstState();
  const save = () => {
    writeFileSync(`${file}.new`, JSON.stringify(state, null, 2));
    renameSync(`${file}.new`, file);
  };
  save();
  return { state, save };
}

const firstState = (): CommonsState => ({
  tenants: {
    "orrin-sound-ferries": {
      title: "Orrin Sound Ferries",
      accounts: {
        "brand.steward@orrinsound.example": { password: "slack-water-42", rights: ["publish"] },
        "deck.crew@orrinsound.example": { password: "bow-thruster-7", rights: [] },
      },
      sites: { quayside: { title: "Quayside", palette: null, chosen: [] } },
      palettes: {},
    },
  },
});
