import { type Model, type ModelStatic, QueryTypes } from "sequelize";
import { database } from "#server/db/connection.ts";
import { migrate } from "#server/db/migrate.ts";
import { Release } from "#server/db/models/index.ts";
import type { PersonId } from "#server/ids.ts";
import { closeDatabase, freshDemo, MODELS, release } from "./system.ts";

let ines: PersonId;
beforeAll(async () => {
  ({ ines } = await freshDemo());
});
afterAll(closeDatabase);

test("every model has just the columns of its table, as nullable as there", async () => {
  for (const model of MODELS as readonly ModelStatic<Model>[]) {
    const columns = await database().query<{ column_name: string; is_nullable: string }>(
      "SELECT column_name, is_nullable FROM information_schema.columns WHERE table_name = $1",
      { bind: [model.tableName], type: QueryTypes.SELECT },
    );
    const inTable = Object.fromEntries(
      columns.map((c) => [c.column_name, c.is_nullable === "YES"]),
    );
    const inModel = Object.fromEntries(
      Object.values(model.getAttributes()).map((a) => [
        (a as { field: string }).field,
        a.allowNull !== false && !a.primaryKey,
      ]),
    );
    expect({ [model.tableName]: inModel }).toEqual({ [model.tableName]: inTable });
  }
});

test("migrating again changes nothing and keeps the data", async () => {
  await migrate();
  expect(
    await database().query("SELECT email FROM people", { type: QueryTypes.SELECT }),
  ).toHaveLength(3);
});

test("a release can be neither changed nor removed", async () => {
  const id = await release(ines, "#0b5e55");
  await expect(Release.update({ note: "another" }, { where: { id } })).rejects.toThrow(
    "never change",
  );
  await expect(Release.destroy({ where: { id } })).rejects.toThrow("never change");
});

test("a release holds every artefact with the SHA-256 of its bytes", async () => {
  const { createHash } = await import("node:crypto");
  const row = await Release.findByPk(await release(ines, "#ffc800"));
  const names = row?.artefacts.map((a) => a.name) ?? [];
  expect(new Set(names).size).toBe(names.length);
  for (const name of [
    "theme.computed.json",
    "commons-palette.dark.json",
    "sluice-theme.json",
    "gangway.css",
    "gangway-favicon-32.png",
    "theme.css",
    "tidemark-look.toml",
  ])
    expect(names).toContain(name);
  for (const { body, encoding, sha256 } of row?.artefacts ?? []) {
    const bytes = Buffer.from(body, encoding ?? "utf8");
    expect(createHash("sha256").update(bytes).digest("hex")).toBe(sha256);
  }
});
