import type { Platform } from "#connectors/connector.ts";
import type { PlaceKind } from "#core/estate/tree.ts";

/** A connection of the demo; the secrets open the stand-ins and nothing else. */
export interface DemoConnection {
  key: string;
  name: string;
  platform: Platform;
  scope: string;
  account: string;
  secret: string;
}

export const DEMO_CONNECTIONS: readonly DemoConnection[] = [
  {
    key: "commons-ferries",
    name: "Commons, Orrin Sound Ferries",
    platform: "commons",
    scope: "orrin-sound-ferries",
    account: "brand.steward@orrinsound.example",
    secret: "slack-water-42",
  },
  {
    key: "commons-works",
    name: "Commons, Varrick Harbour Works",
    platform: "commons",
    scope: "varrick-harbour-works",
    account: "brand.steward@orrinsound.example",
    secret: "slack-water-42",
  },
  {
    key: "sluice",
    name: "Sluice",
    platform: "sluice",
    scope: "Sluice",
    account: "works-maker",
    secret: "capstan-and-chain-9",
  },
  {
    key: "gangway",
    name: "Gangway",
    platform: "gangway",
    scope: "Gangway",
    account: "portal.keeper@orrinsound.example",
    secret: "bollard-hitch-88",
  },
  {
    key: "bollard",
    name: "Bollard",
    platform: "bollard",
    scope: "Bollard",
    account: "",
    secret: "",
  },
  {
    key: "tidemark",
    name: "Tidemark",
    platform: "tidemark",
    scope: "Tidemark",
    account: "board.hand",
    secret: "neap-and-spring-21",
  },
];

/** A place of the demo with everything below it. */
export interface DemoPlace {
  name: string;
  kind: PlaceKind;
  slug: string;
  /** The theme that it is given. */
  theme?: string;
  connection?: string;
  /** What the platform calls it. */
  key?: string;
  /** A platform that reaches it only through the place above. */
  follows?: Platform;
  isTest?: boolean;
  below?: readonly DemoPlace[];
}

const app = (
  name: string,
  slug: string,
  connection: string,
  more: Partial<DemoPlace> = {},
): DemoPlace => ({ name, slug, kind: "application", connection, key: slug, ...more });
const site = (name: string, slug: string): DemoPlace => ({
  name,
  slug,
  kind: "area",
  follows: "commons",
});

export const DEMO_ESTATE: DemoPlace = {
  name: "Orrin Sound Group",
  kind: "organisation",
  slug: "orrin-sound-group",
  below: [
    {
      name: "Orrin Sound Ferries",
      kind: "tenant",
      slug: "orrin-sound-ferries",
      theme: "Sound",
      below: [
        app("Quayside", "quayside", "commons-ferries", {
          below: [
            site("Crew rota", "rota"),
            site("Safety at sea", "safety"),
            site("Galley and stores", "galley"),
            site("New starters", "new-starters"),
          ],
        }),
        app("Crew Portal", "crew-portal", "gangway"),
        app("Ticket Office", "ticket-office", "bollard"),
        app("Sailings Board", "sailings-board", "tidemark", { isTest: true }),
      ],
    },
    {
      name: "Varrick Harbour Works",
      kind: "tenant",
      slug: "varrick-harbour-works",
      theme: "Harbour",
      below: [
        app("Slipway", "slipway", "commons-works", { below: [site("Dry dock", "dry-dock")] }),
        app("Berth Booking", "berth-booking", "sluice", { isTest: true }),
        app("Hull Inspections", "hull-inspections", "sluice"),
      ],
    },
    {
      name: "Tarn Isle Freight",
      kind: "tenant",
      slug: "tarn-isle-freight",
      theme: "Freight",
      below: [
        app("Freight Desk", "freight-desk", "gangway"),
        app("Manifest", "manifest", "bollard"),
      ],
    },
  ],
};
