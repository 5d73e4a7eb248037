import type { Hex } from "#core/colour/srgb.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { hashPassword } from "../auth/password.ts";
import { encryptSecret } from "../auth/secrets.ts";
import { inTransaction } from "../db/connection.ts";
import { Connection, Draft, DraftRevision, Person, Place, Theme } from "../db/models/index.ts";
import {
  type ConnectionId,
  newId,
  type PersonId,
  type PlaceId,
  type RevisionId,
  type ThemeId,
} from "../ids.ts";

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

const DEMO_THEMES: readonly { name: string; primary: Hex; accent: Hex | null }[] = [
  { name: "Freight", primary: "#14171a", accent: "#c3202f" },
  { name: "Harbour", primary: "#ffc800", accent: "#37474f" },
  { name: "Sound", primary: "#0b5e55", accent: "#f26b21" },
];

/** Fills an empty database with the demo organisation; leaves any other alone. */
export async function seedDemo(standins: { commons: string }): Promise<boolean> {
  if ((await Person.count()) > 0) return false;
  await inTransaction(async (transaction) => {
    const people: PersonId[] = [];
    for (const { password, ...person } of DEMO_PEOPLE) {
      const id = newId<PersonId>();
      people.push(id);
      await Person.create(
        { id, ...person, passwordHash: await hashPassword(password) },
        { transaction },
      );
    }
    const author = people[0] as PersonId;
    for (const { name, primary, accent } of DEMO_THEMES) {
      const id = newId<ThemeId>();
      const document = { ...fromPrimary(primary), accent };
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
    const connection = newId<ConnectionId>();
    await Connection.create(
      {
        id: connection,
        platform: "commons",
        address: standins.commons,
        scope: "orrin-sound-ferries",
        account: "brand.steward@orrinsound.example",
        secret: encryptSecret("slack-water-42"),
      },
      { transaction },
    );
    const tenant = newId<PlaceId>();
    await Place.create(
      {
        id: tenant,
        parentId: null,
        kind: "tenant",
        name: "Orrin Sound Ferries",
        platform: null,
        connectionId: null,
        externalKey: null,
        page: null,
        createdAt: new Date(Date.now() - 1000),
      },
      { transaction },
    );
    await Place.create(
      {
        id: newId<PlaceId>(),
        parentId: tenant,
        kind: "application",
        name: "Quayside",
        platform: "commons",
        connectionId: connection,
        externalKey: "quayside",
        page: `${standins.commons}/orrin-sound-ferries/quayside`,
      },
      { transaction },
    );
  });
  return true;
}
