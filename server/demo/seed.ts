import type { Transaction } from "sequelize";
import type { Platform } from "#connectors/connector.ts";
import { fromPrimary, type ThemeDocument } from "#core/theme/document.ts";
import { hashPassword } from "../auth/password.ts";
import { encryptSecret } from "../auth/secrets.ts";
import { inTransaction } from "../db/connection.ts";
import {
  Connection,
  Draft,
  DraftRevision,
  Person,
  Place,
  SeasonRow,
  Theme,
} from "../db/models/index.ts";
import {
  type ConnectionId,
  newId,
  type PersonId,
  type PlaceId,
  type RevisionId,
  type SeasonId,
  type ThemeId,
} from "../ids.ts";
import { makeRelease } from "../releases/releases.ts";
import { planPlaces } from "../rollouts/plan.ts";
import { createRollout } from "../rollouts/rollouts.ts";
import { DEMO_CONNECTIONS, DEMO_ESTATE, type DemoPlace } from "./estate.ts";

/** Sign-ins of the demo organisation. They are printed at start and worth nothing elsewhere. */
export const DEMO_PEOPLE = [
  {
    email: "ines@orrinsound.example",
    name: "Ines Varga",
    capability: "administrator",
    password: "tidewater-lantern",
  },
  {
    email: "tomas@orrinsound.example",
    name: "Tomas Brekke",
    capability: "administrator",
    password: "mooring-copper",
  },
  {
    email: "ros@orrinsound.example",
    name: "Ros Adeyemi",
    capability: "reader",
    password: "gull-window",
  },
] as const;

const of = (primary: `#${string}`, more: Partial<ThemeDocument> = {}): ThemeDocument => ({
  ...fromPrimary(primary as ThemeDocument["primary"]),
  ...more,
});

const DEMO_THEMES: readonly { name: string; document: ThemeDocument }[] = [
  { name: "High visibility", document: of("#000000", { accent: "#ffd500", neutralTint: 0 }) },
  { name: "Midwinter timetable", document: of("#1d3a6e", { accent: "#b9182f" }) },
  {
    name: "Freight",
    document: of("#14171a", {
      accent: "#c3202f",
      // What the brand's guideline says, and what a black brand does in dark: findings to mend.
      overrides: {
        light: {},
        dark: {
          link: { kind: "colour", colour: "#c3202f" },
          action: { kind: "colour", colour: "#14171a" },
        },
      },
    }),
  },
  { name: "Harbour", document: of("#ffc800", { accent: "#37474f" }) },
  { name: "Sound", document: of("#0b5e55", { accent: "#f26b21" }) },
];

/** How far ahead the demo's season lies, and how long it lasts, in days. */
const SEASON_IN = 20;
const SEASON_FOR = 28;
const dayFromNow = (days: number) =>
  new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Where the demo's platforms are: the address under which each has one of its own. */
export interface DemoOptions {
  standins: string;
  /** Whether the themes that are live in the demo are released and delivered. */
  live: boolean;
}

/** Fills an empty database with the demo organisation; leaves any other alone. */
export async function seedDemo({ standins, live }: DemoOptions): Promise<boolean> {
  if ((await Person.count()) > 0) return false;
  const { author, themes, places } = await inTransaction(async (transaction) => {
    const author = await seedPeople(transaction);
    const themes = await seedThemes(author, transaction);
    const connections = new Map<string, ConnectionRow>();
    for (const { key, secret, ...words } of DEMO_CONNECTIONS) {
      const row = {
        id: newId<ConnectionId>(),
        address: `${standins}/${words.platform}`,
        ...words,
      };
      await Connection.create({ ...row, secret: encryptSecret(secret) }, { transaction });
      connections.set(key, row);
    }
    const places = new Map<string, PlaceId>();
    await seedPlace(DEMO_ESTATE, null, { connections, themes, places }, transaction);
    await SeasonRow.create(
      {
        id: newId<SeasonId>(),
        placeId: places.get("orrin-sound-ferries") as PlaceId,
        themeId: themes.get("Midwinter timetable") as ThemeId,
        fromDay: dayFromNow(SEASON_IN),
        untilDay: dayFromNow(SEASON_IN + SEASON_FOR),
        createdBy: author,
      },
      { transaction },
    );
    return { author, themes, places };
  });
  if (live) await goLive(author, themes, places);
  return true;
}

async function seedPeople(transaction: Transaction): Promise<PersonId> {
  const people: PersonId[] = [];
  for (const { password, ...person } of DEMO_PEOPLE) {
    const id = newId<PersonId>();
    people.push(id);
    await Person.create(
      { id, ...person, passwordHash: await hashPassword(password) },
      { transaction },
    );
  }
  return people[0] as PersonId;
}

async function seedThemes(
  author: PersonId,
  transaction: Transaction,
): Promise<Map<string, ThemeId>> {
  const themes = new Map<string, ThemeId>();
  for (const { name, document } of DEMO_THEMES) {
    const id = newId<ThemeId>();
    themes.set(name, id);
    await Theme.create({ id, name, createdBy: author }, { transaction });
    await Draft.create({ themeId: id, revision: 1, document, savedBy: author }, { transaction });
    await DraftRevision.create(
      {
        id: newId<RevisionId>(),
        themeId: id,
        basedOn: 0,
        revision: 1,
        document,
        savedBy: author,
      },
      { transaction },
    );
  }
  return themes;
}

interface ConnectionRow {
  id: ConnectionId;
  platform: Platform;
  address: string;
  scope: string;
}

interface Made {
  connections: Map<string, ConnectionRow>;
  themes: Map<string, ThemeId>;
  places: Map<string, PlaceId>;
}

async function seedPlace(
  place: DemoPlace,
  above: PlaceId | null,
  made: Made,
  transaction: Transaction,
): Promise<void> {
  const connection = place.connection ? made.connections.get(place.connection) : undefined;
  const id = newId<PlaceId>();
  made.places.set(place.slug, id);
  await Place.create(
    {
      id,
      parentId: above,
      kind: place.kind,
      name: place.name,
      slug: place.slug,
      platform: connection?.platform ?? place.follows ?? null,
      connectionId: connection?.id ?? null,
      externalKey: connection ? (place.key ?? null) : null,
      page: connection ? pageOf(connection, place.key ?? "") : null,
      themeId: (place.theme && made.themes.get(place.theme)) || null,
      isTest: place.isTest ?? false,
    },
    { transaction },
  );
  for (const child of place.below ?? []) await seedPlace(child, id, made, transaction);
}

/** The page that people at a place look at; Commons has a folder for each tenant. */
export const pageOf = ({ platform, address, scope }: ConnectionRow, key: string): string =>
  platform === "commons" ? `${address}/${scope}/${key}` : `${address}/${key}`;

/** Releases the themes that are live in the demo and plans their delivery. */
async function goLive(
  author: PersonId,
  themes: Map<string, ThemeId>,
  places: Map<string, PlaceId>,
): Promise<void> {
  for (const [theme, tenant] of [
    ["Sound", "orrin-sound-ferries"],
    ["Harbour", "varrick-harbour-works"],
  ] as const) {
    const words = { name: `${theme} 1`, note: "The first release of the demo." };
    const made = await makeRelease(themes.get(theme) as ThemeId, 1, words, author);
    if (!made.ok) throw new Error(`the demo's ${theme} can't be released: ${made.code}`);
    const planned = await planPlaces(null, [places.get(tenant) as PlaceId]);
    const legs = planned.map(({ id, release }) => ({ place: id, release }));
    await createRollout({ name: `${theme} 1`, legs, gate: "clean", startsAt: null }, author);
  }
}
