import { Op, type Transaction } from "sequelize";
import { AuditEntry, Person } from "../db/models/index.ts";
import type { PersonId } from "../ids.ts";
import type { AuditAction } from "./actions.ts";

export interface NewEntry {
  /** Null for what the system did by itself. */
  person: PersonId | null;
  action: AuditAction;
  subjectKind:
    | "person"
    | "theme"
    | "release"
    | "place"
    | "delivery"
    | "connection"
    | "rollout"
    | "policy";
  subjectId: string | null;
  /** Names as they were at the time, never a secret. */
  detail: Record<string, unknown>;
}

/** Records what was done, in the transaction that does it. */
export async function record(entry: NewEntry, transaction: Transaction): Promise<void> {
  await AuditEntry.create(
    {
      personId: entry.person,
      action: entry.action,
      subjectKind: entry.subjectKind,
      subjectId: entry.subjectId,
      detail: entry.detail,
    },
    { transaction },
  );
}

export interface LogLine {
  id: string;
  at: Date;
  person: string | null;
  action: AuditAction;
  subjectKind: string;
  subjectId: string | null;
  detail: Record<string, unknown>;
}

export interface LogPage {
  lines: LogLine[];
  /** Identifier to ask for the older page with; null on the last. */
  older: string | null;
}

/** One page of the log, newest first; optionally of one action, optionally older than an entry. */
export async function readLog(
  size: number,
  filter: { before?: string | null; action?: AuditAction | null } = {},
): Promise<LogPage> {
  const rows = await AuditEntry.findAll({
    where: {
      ...(filter.before ? { id: { [Op.lt]: filter.before } } : {}),
      ...(filter.action ? { action: filter.action } : {}),
    },
    include: [{ model: Person, as: "person", attributes: ["name"] }],
    order: [["id", "DESC"]],
    limit: size + 1,
  });
  const lines = rows.slice(0, size).map((row) => ({
    id: row.id,
    at: row.at,
    person: (row as AuditEntry & { person: Person | null }).person?.name ?? null,
    action: row.action,
    subjectKind: row.subjectKind,
    subjectId: row.subjectId,
    detail: row.detail,
  }));
  return { lines, older: rows.length > size ? (lines.at(-1)?.id ?? null) : null };
}
