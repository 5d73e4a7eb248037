import { col, fn, Op, where } from "sequelize";
import { type ThemeDocument, themeDocument } from "#core/theme/document.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { Draft, DraftRevision, Person, Release, Theme } from "../db/models/index.ts";
import { newId, type PersonId, type RevisionId, type ThemeId } from "../ids.ts";

export interface ThemeLine {
  id: ThemeId;
  name: string;
  document: ThemeDocument;
  savedAt: Date;
  release: { number: number; name: string } | null;
}

export interface ThemePage {
  lines: ThemeLine[];
  total: number;
}

/** One page of the themes in use, or of those put away, changed last first. `page` counts from 1. */
export async function listThemes(
  page: number,
  size: number,
  { search = "", archived = false } = {},
): Promise<ThemePage> {
  const { rows, count } = await Theme.findAndCountAll({
    where: {
      archivedAt: archived ? { [Op.ne]: null } : null,
      ...(search ? { name: { [Op.iLike]: `%${search.replace(/[\\%_]/g, "\\$&")}%` } } : {}),
    },
    include: [{ model: Draft, as: "draft", required: true }],
    order: [[{ model: Draft, as: "draft" }, "savedAt", "DESC"]],
    limit: size,
    offset: (page - 1) * size,
  });
  const latest = await latestReleases(rows.map((row) => row.id));
  const lines = (rows as (Theme & { draft: Draft })[]).map(({ id, name, draft }) => ({
    id,
    name,
    document: themeDocument.parse(draft.document),
    savedAt: draft.savedAt,
    release: latest.get(id) ?? null,
  }));
  return { lines, total: count };
}

async function latestReleases(
  ids: ThemeId[],
): Promise<Map<ThemeId, { number: number; name: string }>> {
  const rows = await Release.findAll({
    where: { themeId: ids },
    attributes: ["themeId", "number", "name"],
    order: [["number", "ASC"]],
  });
  return new Map(rows.map(({ themeId, number, name }) => [themeId, { number, name }]));
}

export type CreateResult = { ok: true; id: ThemeId } | { ok: false; code: "name-taken" };

/** Makes a theme from a document, with its first draft. */
export async function createTheme(
  name: string,
  document: ThemeDocument,
  person: PersonId,
): Promise<CreateResult> {
  return inTransaction(async (transaction) => {
    const taken = await Theme.findOne({
      where: where(fn("lower", col("name")), name.toLowerCase()),
      transaction,
    });
    if (taken) return { ok: false, code: "name-taken" };
    const id = newId<ThemeId>();
    await Theme.create({ id, name, createdBy: person }, { transaction });
    await Draft.create({ themeId: id, revision: 1, document, savedBy: person }, { transaction });
    await DraftRevision.create(
      { id: newId<RevisionId>(), themeId: id, basedOn: 0, revision: 1, document, savedBy: person },
      { transaction },
    );
    await record(
      {
        person,
        action: "theme-created",
        subjectKind: "theme",
        subjectId: id,
        detail: { name, primary: document.primary },
      },
      transaction,
    );
    return { ok: true, id };
  });
}

export interface OpenTheme {
  id: ThemeId;
  name: string;
  revision: number;
  document: ThemeDocument;
  savedBy: string;
  savedAt: Date;
}

/** A theme with its draft; null where there is none. */
export async function openTheme(id: ThemeId): Promise<OpenTheme | null> {
  const theme = await Theme.findByPk(id);
  const draft = theme && (await Draft.findByPk(id));
  if (!draft) return null;
  const author = await Person.findByPk(draft.savedBy);
  return {
    id,
    name: theme.name,
    revision: draft.revision,
    document: themeDocument.parse(draft.document),
    savedBy: author?.name ?? "",
    savedAt: draft.savedAt,
  };
}

export interface KeptRevision {
  id: RevisionId;
  revision: number;
  document: ThemeDocument;
  savedBy: string;
  savedAt: Date;
}

export type SaveResult =
  | { ok: true; revision: number }
  /** Somebody saved since: theirs stays the draft, ours is kept beside it. */
  | { ok: false; code: "newer"; theirs: KeptRevision; ours: RevisionId }
  | { ok: false; code: "no-such-theme" };

/**
 * Saves a draft that was made from revision `basedOn`. Over somebody's newer save it is refused,
 * and both versions are kept.
 */
export async function saveDraft(
  id: ThemeId,
  basedOn: number,
  document: ThemeDocument,
  person: PersonId,
): Promise<SaveResult> {
  return inTransaction(async (transaction) => {
    const draft = await Draft.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!draft) return { ok: false, code: "no-such-theme" };
    if (same(draft.document, document)) return { ok: true, revision: draft.revision };
    const accepted = draft.revision === basedOn;
    const revision = accepted ? basedOn + 1 : null;
    const kept = await DraftRevision.create(
      { id: newId<RevisionId>(), themeId: id, basedOn, revision, document, savedBy: person },
      { transaction },
    );
    await record(
      {
        person,
        action: accepted ? "draft-saved" : "draft-save-refused",
        subjectKind: "theme",
        subjectId: id,
        detail: { revision, basedOn },
      },
      transaction,
    );
    if (revision !== null) {
      await draft.update(
        { revision, document, savedBy: person, savedAt: new Date() },
        { transaction },
      );
      return { ok: true, revision };
    }
    const theirs = await DraftRevision.findOne({
      where: { themeId: id, revision: draft.revision },
      include: [{ model: Person, as: "author" }],
      transaction,
    });
    return { ok: false, code: "newer", theirs: asKept(theirs as DraftRevision), ours: kept.id };
  });
}

const asKept = (row: DraftRevision): KeptRevision => ({
  id: row.id,
  revision: row.revision as number,
  document: themeDocument.parse(row.document),
  savedBy: (row as DraftRevision & { author: Person | null }).author?.name ?? "",
  savedAt: row.savedAt,
});

const same = (a: ThemeDocument, b: ThemeDocument): boolean =>
  JSON.stringify(themeDocument.parse(a)) === JSON.stringify(themeDocument.parse(b));

export interface VersionLine {
  id: RevisionId;
  /** Null where a newer save was there first and this one was kept aside. */
  revision: number | null;
  document: ThemeDocument;
  savedBy: string;
  savedAt: Date;
}

/** One page of everything that was ever saved of a theme, refused saves included, newest first. */
export async function listVersions(
  theme: ThemeId,
  page: number,
  size: number,
): Promise<{ lines: VersionLine[]; total: number }> {
  const { rows, count } = await DraftRevision.findAndCountAll({
    where: { themeId: theme },
    include: [{ model: Person, as: "author" }],
    order: [["savedAt", "DESC"]],
    limit: size,
    offset: (page - 1) * size,
  });
  return { lines: rows.map((row) => ({ ...asKept(row), revision: row.revision })), total: count };
}

/** Makes the draft what it was in a kept version, as a new revision. */
export async function takeVersion(
  theme: ThemeId,
  version: RevisionId,
  basedOn: number,
  person: PersonId,
): Promise<SaveResult> {
  const row = await DraftRevision.findOne({ where: { id: version, themeId: theme } });
  if (!row) return { ok: false, code: "no-such-theme" };
  return saveDraft(theme, basedOn, themeDocument.parse(row.document), person);
}

/** Puts a theme away, or takes it out again. Its releases stay deliverable. */
export async function archiveTheme(id: ThemeId, away: boolean, person: PersonId): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const theme = await Theme.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!theme) return false;
    await theme.update({ archivedAt: away ? new Date() : null }, { transaction });
    await record(
      {
        person,
        action: away ? "theme-archived" : "theme-taken-out",
        subjectKind: "theme",
        subjectId: id,
        detail: { name: theme.name },
      },
      transaction,
    );
    return true;
  });
}
