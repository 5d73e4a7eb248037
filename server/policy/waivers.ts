import type { Transaction } from "sequelize";
import type { Waiver } from "#core/contrast/policy.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { type Person, Theme, WaiverRow } from "../db/models/index.ts";
import { newId, type PersonId, type ThemeId, type WaiverId } from "../ids.ts";
import { readPolicy } from "./policy.ts";

export interface KeptWaiver extends Waiver {
  id: WaiverId;
}

/** A theme's waivers that were not withdrawn, those that ran out included, latest end first. */
export async function listWaivers(
  theme: ThemeId,
  transaction: Transaction | null = null,
): Promise<KeptWaiver[]> {
  const rows = await WaiverRow.findAll({
    where: { themeId: theme, withdrawnAt: null },
    include: "granter",
    order: [["until", "DESC"]],
    transaction,
  });
  return (rows as (WaiverRow & { granter: Person })[]).map((row) => {
    const { id, kind, over, ground, scheme, level, reason, until } = row;
    return { id, kind, over, ground, scheme, level, reason, until, by: row.granter.name };
  });
}

export type GrantResult =
  | { ok: true; id: WaiverId }
  | { ok: false; code: "not-allowed" | "no-such-theme" | "in-the-past" };

/** Accepts one finding of a theme until a date, where the policy lets people do so. */
export async function grantWaiver(
  theme: ThemeId,
  waiver: Omit<Waiver, "by">,
  person: PersonId,
): Promise<GrantResult> {
  if (!(await readPolicy()).waivers) return { ok: false, code: "not-allowed" };
  if (waiver.until < new Date().toISOString().slice(0, 10))
    return { ok: false, code: "in-the-past" };
  return inTransaction(async (transaction) => {
    const there = await Theme.findByPk(theme, { transaction });
    if (!there) return { ok: false, code: "no-such-theme" };
    const id = newId<WaiverId>();
    await WaiverRow.create({ id, themeId: theme, ...waiver, grantedBy: person }, { transaction });
    const detail = { theme: there.name, ...waiver };
    await record(
      { person, action: "waiver-granted", subjectKind: "theme", subjectId: theme, detail },
      transaction,
    );
    return { ok: true, id };
  });
}

/** Takes a waiver back; the finding counts again. */
export async function withdrawWaiver(
  theme: ThemeId,
  id: WaiverId,
  person: PersonId,
): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const row = await WaiverRow.findOne({
      where: { id, themeId: theme, withdrawnAt: null },
      transaction,
      lock: transaction.LOCK.UPDATE,
    });
    if (!row) return false;
    await row.update({ withdrawnAt: new Date() }, { transaction });
    const { over, ground, scheme, level } = row;
    await record(
      {
        person,
        action: "waiver-withdrawn",
        subjectKind: "theme",
        subjectId: theme,
        detail: { over, ground, scheme, level },
      },
      transaction,
    );
    return true;
  });
}
