import { PLATFORMS } from "#connectors/connector.ts";
import { inTransaction } from "../db/connection.ts";
import { Connection, Place, Theme } from "../db/models/index.ts";
import { newId, type PlaceId } from "../ids.ts";
import { pageOf } from "./seed.ts";

const TENANT = "outer-islands";

/** Adds places for load below a tenant of their own until there are `size`, over all five platforms in turn. */
export async function seedFleet(size: number): Promise<void> {
  const root = await Place.findOne({ where: { parentId: null, retiredAt: null } });
  const theme = await Theme.findOne({ where: { name: "Sound" } });
  const connections = await Connection.findAll({ order: ["createdAt", "name"] });
  if (!root || !theme) return;
  await inTransaction(async (transaction) => {
    const [tenant] = await Place.findOrCreate({
      where: { slug: TENANT },
      defaults: {
        id: newId<PlaceId>(),
        slug: TENANT,
        parentId: root.id,
        kind: "tenant",
        name: "Outer Islands",
        platform: null,
        connectionId: null,
        externalKey: null,
        page: null,
        themeId: theme.id,
      },
      transaction,
    });
    const there = new Set(
      (
        await Place.findAll({ where: { parentId: tenant.id }, attributes: ["slug"], transaction })
      ).map((place) => place.slug),
    );
    const missing = Array.from({ length: size }, (_, i) => i).filter((i) => !there.has(slugOf(i)));
    await Place.bulkCreate(
      missing.flatMap((i) => {
        const platform = PLATFORMS[i % PLATFORMS.length];
        const connection = connections.find((c) => c.platform === platform);
        if (!connection) return [];
        return {
          id: newId<PlaceId>(),
          slug: slugOf(i),
          parentId: tenant.id,
          kind: "application" as const,
          name: `${NAMES[i % PLATFORMS.length]} ${i + 1}`,
          platform: connection.platform,
          connectionId: connection.id,
          externalKey: slugOf(i),
          page: pageOf(connection, slugOf(i)),
        };
      }),
      { transaction },
    );
  });
}

const NAMES = ["Deck", "Gate", "Pier", "Hold", "Gauge"] as const;
const slugOf = (i: number): string => `fleet-${String(i + 1).padStart(4, "0")}`;
