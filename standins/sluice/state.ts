import { isFleet, openStore, type Store } from "../store.ts";

export interface AppTheme {
  name: string;
  primary: string;
  tones: Record<string, string>;
  day: Record<string, string>;
  night: Record<string, string>;
}

export interface App {
  title: string;
  /** The switch in the app's settings without which no theme applies. */
  themingOn: boolean;
  theme: AppTheme | null;
  /** How often a theme was stored. */
  writes: number;
}

export interface SluiceState {
  keys: Record<string, { secret: string; mayPublish: boolean }>;
  apps: Record<string, App>;
}

export type SluiceStore = Store<SluiceState>;

const app = (title: string, themingOn = true): App => ({
  title,
  themingOn,
  theme: null,
  writes: 0,
});

export const openSluice = (file: string): SluiceStore =>
  openStore(file, () => ({
    keys: {
      "works-maker": { secret: "capstan-and-chain-9", mayPublish: true },
      "works-reader": { secret: "spring-tide-3", mayPublish: false },
    },
    apps: {
      "berth-booking": app("Berth Booking"),
      "hull-inspections": app("Hull Inspections", false),
    },
  }));

/** An app by its key; one of the fleet is made when it is asked for. */
export function appOf(store: SluiceStore, key: string): App | undefined {
  if (isFleet(key)) store.state.apps[key] ??= app(`Gate ${key.slice(6)}`);
  return store.state.apps[key];
}
