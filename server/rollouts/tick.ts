import { QueryTypes, type Transaction } from "sequelize";
import { config } from "../config.ts";
import { database, inTransaction } from "../db/connection.ts";
import { Release, Rollout, SeasonRow, type Theme } from "../db/models/index.ts";
import { holdEstate } from "../estate/places.ts";
import { todayUtc } from "../estate/tree.ts";
import type { PlaceId, ReleaseId } from "../ids.ts";
import { enqueue } from "../jobs/queue.ts";
import { advance } from "./advance.ts";
import { planPlaces } from "./plan.ts";
import { createRolloutIn } from "./rollouts.ts";

/** Places that are looked at for drift in one go. */
const CHECKED_AT_ONCE = 200;

/** Does what is due by the clock; it may run at any moment and twice. */
export async function tick(): Promise<void> {
  await turnSeasons();
  const open = await Rollout.findAll({ where: { state: ["scheduled", "running"] } });
  for (const rollout of open) await advance(rollout.id);
  await queueChecks();
}

async function queueChecks(): Promise<void> {
  const due = await database().query<{ id: PlaceId }>(
    `SELECT id FROM places
     WHERE live_receipt_id IS NOT NULL AND retired_at IS NULL
       AND checked_at < now() - make_interval(secs => $1)
     ORDER BY checked_at LIMIT $2`,
    { bind: [config().LIVERY_DRIFT_MINUTES * 60, CHECKED_AT_ONCE], type: QueryTypes.SELECT },
  );
  if (due.length === 0) return;
  await inTransaction(async (transaction) => {
    for (const { id } of due)
      await enqueue("check", { place: id }, transaction, { key: `check ${id}` });
  });
}

/** Begins and ends seasons whose day has come; what they change is delivered where that was asked for. */
async function turnSeasons(): Promise<void> {
  await inTransaction(async (transaction) => {
    await holdEstate(transaction);
    const today = todayUtc();
    const seasons = await SeasonRow.findAll({ include: "theme", transaction });
    for (const season of seasons as (SeasonRow & { theme: Theme })[]) {
      const begins = season.begunAt === null && season.fromDay <= today && today <= season.untilDay;
      const ends = season.begunAt !== null && season.endedAt === null && season.untilDay < today;
      if (!begins && !ends) continue;
      if (season.delivers) await deliverSeason(season, begins, transaction);
      const now = new Date();
      await season.update(begins ? { begunAt: now } : { endedAt: now }, { transaction });
    }
  });
}

/**
 * Delivers what a season changes and nothing else: when it begins, its theme to the places that
 * have it now; when it is over, whatever they have instead to the places that still show it.
 */
async function deliverSeason(
  season: SeasonRow & { theme: Theme },
  begins: boolean,
  transaction: Transaction,
): Promise<void> {
  const releases = await Release.findAll({
    where: { themeId: season.themeId },
    attributes: ["id"],
    transaction,
  });
  const ofSeason = new Set<ReleaseId | null>(releases.map((release) => release.id));
  const legs = (await planPlaces(null, [season.placeId]))
    .filter((place) => ofSeason.has(begins ? place.release : place.live))
    .map((place) => ({ place: place.id, release: place.release }));
  if (legs.length === 0) return;
  await createRolloutIn(
    {
      name: `${season.theme.name} ${begins ? "begins" : "ends"}, ${todayUtc()}`,
      legs,
      gate: "clean",
      startsAt: null,
    },
    season.createdBy,
    transaction,
  );
}
