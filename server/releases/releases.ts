import { col, fn, type Transaction, where } from "sequelize";
import { refusals } from "#core/contrast/policy.ts";
import type { Finding } from "#core/contrast/verdict.ts";
import { type ThemeDocument, themeDocument } from "#core/theme/document.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { Draft, Release, Theme } from "../db/models/index.ts";
import { prepareStylesheet } from "../hosted/prepare.ts";
import { newId, type PersonId, type ReleaseId, type ThemeId } from "../ids.ts";
import { readSlotMaps } from "../platforms/slot-maps.ts";
import { readPolicy } from "../policy/policy.ts";
import { listWaivers } from "../policy/waivers.ts";
import { artefactsOf } from "./artefact.ts";

export type ReleaseResult =
  | { ok: true; id: ReleaseId; number: number }
  | { ok: false; code: "no-such-theme" | "name-taken" | "draft-moved-on" }
  | { ok: false; code: "findings"; findings: Finding[] };

/**
 * Publishes a theme's draft, at the revision that the person saw, as an immutable numbered release
 * with everything computed from it.
 */
export async function makeRelease(
  theme: ThemeId,
  revision: number,
  words: { name: string; note: string },
  person: PersonId,
): Promise<ReleaseResult> {
  return inTransaction(async (transaction) => {
    const draft = await Draft.findByPk(theme, { transaction, lock: transaction.LOCK.UPDATE });
    if (!draft) return { ok: false, code: "no-such-theme" };
    if (draft.revision !== revision) return { ok: false, code: "draft-moved-on" };
    if (await nameTaken(words.name, transaction)) return { ok: false, code: "name-taken" };
    const document = themeDocument.parse(draft.document);
    const policy = await readPolicy();
    const computed = computeTheme(document, policy.conformance);
    const today = new Date().toISOString().slice(0, 10);
    const waivers = await listWaivers(theme, transaction);
    const refused = refusals(computed.findings, policy, waivers, today);
    if (refused.length > 0) return { ok: false, code: "findings", findings: refused };
    const last: number | null = await Release.max("number", {
      where: { themeId: theme },
      transaction,
    });
    const slots = await readSlotMaps();
    const artefacts = await artefactsOf({ name: words.name, theme: computed, document, slots });
    const row = {
      id: newId<ReleaseId>(),
      themeId: theme,
      number: (last ?? 0) + 1,
      ...words,
      document,
      artefacts,
      createdBy: person,
    };
    await Release.create(row, { transaction });
    await prepareStylesheet(row.id, artefacts, transaction);
    const detail = { name: words.name, number: row.number, revision };
    await record(
      { person, action: "release-made", subjectKind: "release", subjectId: row.id, detail },
      transaction,
    );
    return { ok: true, id: row.id, number: row.number };
  });
}

const nameTaken = async (name: string, transaction: Transaction): Promise<boolean> =>
  (await Release.count({
    where: where(fn("lower", col("name")), name.toLowerCase()),
    transaction,
  })) > 0;

export interface ReleaseLine {
  id: ReleaseId;
  themeId: ThemeId;
  theme: string;
  number: number;
  name: string;
  note: string;
  document: ThemeDocument;
  createdAt: Date;
}

const LINE = ["id", "themeId", "number", "name", "note", "document", "createdAt"];

/** The newest releases, of one theme or of all. */
export async function listReleases(size: number, theme?: ThemeId): Promise<ReleaseLine[]> {
  const rows = await Release.findAll({
    where: theme ? { themeId: theme } : {},
    attributes: LINE,
    include: [{ model: Theme, as: "theme" }],
    order: [["createdAt", "DESC"]],
    limit: size,
  });
  return rows.map(asLine);
}

/** One release without its artefacts; null where there is none. */
export async function findRelease(id: ReleaseId): Promise<ReleaseLine | null> {
  const row = await Release.findByPk(id, {
    attributes: LINE,
    include: [{ model: Theme, as: "theme" }],
  });
  return row && asLine(row);
}

const asLine = (row: Release): ReleaseLine => ({
  id: row.id,
  themeId: row.themeId,
  theme: (row as Release & { theme: Theme }).theme.name,
  number: row.number,
  name: row.name,
  note: row.note,
  document: themeDocument.parse(row.document),
  createdAt: row.createdAt,
});

/** Releases by their identifiers, with what names and stripes need. */
export async function namesOf(
  ids: readonly ReleaseId[],
): Promise<Map<ReleaseId, { name: string; document: ThemeDocument }>> {
  const rows = await Release.findAll({
    where: { id: [...new Set(ids)] },
    attributes: ["id", "name", "document"],
  });
  return new Map(rows.map(({ id, name, document }) => [id, { name, document }]));
}
