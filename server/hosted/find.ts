import { QueryTypes } from "sequelize";
import { database } from "../db/connection.ts";

/** A stylesheet in the three forms in which it is served. */
export interface Sheet {
  sha256: string;
  body: Buffer;
  gzip: Buffer;
  brotli: Buffer;
}

const FORMS = "s.sha256, s.body, s.gzip, s.brotli";

/** What a place's hosted stylesheet shows now; null where nothing is delivered there. */
export async function findHosted(slug: string): Promise<(Sheet & { place: string }) | null> {
  const [sheet] = await database().query<Sheet & { place: string }>(
    `SELECT p.id AS place, ${FORMS} FROM places p JOIN stylesheets s ON s.release_id = p.hosted_release_id
     WHERE p.slug = $1`,
    { bind: [slug], type: QueryTypes.SELECT },
  );
  return sheet ?? null;
}

/** The stylesheet with a SHA-256. */
export async function findSealed(sha256: string): Promise<Sheet | null> {
  const [sheet] = await database().query<Sheet>(
    `SELECT ${FORMS} FROM stylesheets s WHERE s.sha256 = $1 LIMIT 1`,
    { bind: [sha256], type: QueryTypes.SELECT },
  );
  return sheet ?? null;
}

/** SHA-256, in hexadecimal, of a release's stylesheet. */
export async function stylesheetOf(release: string): Promise<string | null> {
  const [row] = await database().query<{ sha256: string }>(
    "SELECT sha256 FROM stylesheets WHERE release_id = $1",
    { bind: [release], type: QueryTypes.SELECT },
  );
  return row?.sha256 ?? null;
}
