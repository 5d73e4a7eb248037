import type { Transaction } from "sequelize";
import { type Altered, alteredBy, effectiveThemes } from "#core/estate/effective.ts";
import { mayMove, mayStandBelow } from "#core/estate/tree.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { Place, SeasonRow, Theme } from "../db/models/index.ts";
import { newId, type PersonId, type PlaceId, type SeasonId, type ThemeId } from "../ids.ts";
import { enqueue } from "../jobs/queue.ts";
import { announce } from "../live/changes.ts";
import { holdEstate } from "./places.ts";
import { type EstateNode, loadEstate, todayUtc } from "./tree.ts";

/** A change of who has which theme. */
export type EstateChange =
  /** Gives places a theme of their own; null lets them inherit again. */
  | { kind: "assign"; places: PlaceId[]; theme: ThemeId | null }
  | { kind: "lock"; place: PlaceId; locked: boolean }
  | { kind: "season"; place: PlaceId; theme: ThemeId; from: string; until: string }
  | { kind: "move"; place: PlaceId; parent: PlaceId };

/** Why a change can't be made at a place. */
export type ChangeRefusal =
  | { code: "no-such-place" }
  | { code: "locked-above"; place: string; by: string }
  | { code: "no-theme-to-lock"; place: string }
  | { code: "overlaps"; place: string; from: string; until: string }
  | { code: "ends-before-it-begins" }
  | { code: "below-itself" }
  | { code: "kind-does-not-fit" };

export interface Outcome {
  refusals: ChangeRefusal[];
  /** Places whose theme would be another today, or on the first day of a season. */
  altered: (Altered<PlaceId, ThemeId> & { name: string; deliverable: boolean })[];
}

/** What a change would do and where, without doing it. */
export async function previewChange(change: EstateChange): Promise<Outcome> {
  return outcomeOf(await loadEstate(), change);
}

function outcomeOf(estate: EstateNode[], change: EstateChange): Outcome {
  const refusals = refusalsOf(estate, change);
  if (refusals.length > 0) return { refusals, altered: [] };
  const day = change.kind === "season" ? laterOf(change.from, todayUtc()) : todayUtc();
  const named = new Map(estate.map((place) => [place.id, place]));
  const altered = alteredBy(estate, changed(estate, change), day).map((a) => {
    const { name, deliverable } = named.get(a.place) as EstateNode;
    return { ...a, name, deliverable };
  });
  return { refusals, altered };
}

const laterOf = (a: string, b: string): string => (a > b ? a : b);

function refusalsOf(estate: EstateNode[], change: EstateChange): ChangeRefusal[] {
  const ids = change.kind === "assign" ? change.places : [change.place];
  const nodes = ids.map((id) => estate.find((place) => place.id === id));
  if (nodes.includes(undefined)) return [{ code: "no-such-place" }];
  const places = nodes as EstateNode[];
  const [first] = places as [EstateNode];
  if (change.kind === "move") {
    const above = estate.find((place) => place.id === change.parent);
    if (!above) return [{ code: "no-such-place" }];
    if (!mayMove(estate, first.id, above.id)) return [{ code: "below-itself" }];
    return mayStandBelow(first.kind, above.kind) ? [] : [{ code: "kind-does-not-fit" }];
  }
  if (change.kind === "lock") {
    const hasNone = change.locked && first.theme === null;
    return hasNone ? [{ code: "no-theme-to-lock", place: first.name }] : [];
  }
  if (change.kind === "season") {
    const { from, until } = change;
    if (until < from) return [{ code: "ends-before-it-begins" }];
    const other = first.seasons.find((s) => s.from <= until && from <= s.until);
    if (other) return [{ code: "overlaps", place: first.name, ...other }];
  }
  return change.kind === "assign" && change.theme === null ? [] : lockedAbove(estate, places);
}

/** Places that a lock above keeps from having a theme of their own. */
function lockedAbove(estate: EstateNode[], places: EstateNode[]): ChangeRefusal[] {
  const effective = effectiveThemes(estate, todayUtc());
  return places.flatMap((place): ChangeRefusal[] => {
    const reason = effective.get(place.id)?.reason;
    if (reason?.kind !== "locked") return [];
    const by = estate.find((p) => p.id === reason.by)?.name ?? "";
    return [{ code: "locked-above", place: place.name, by }];
  });
}

/** The estate as it would be after a change. */
const changed = (estate: EstateNode[], change: EstateChange): EstateNode[] =>
  estate.map((place) => (concerns(change, place.id) ? afterwards(place, change) : place));

const concerns = (change: EstateChange, id: PlaceId): boolean =>
  change.kind === "assign" ? change.places.includes(id) : change.place === id;

function afterwards(place: EstateNode, change: EstateChange): EstateNode {
  switch (change.kind) {
    case "assign":
      return { ...place, theme: change.theme, locked: place.locked && change.theme !== null };
    case "lock":
      return { ...place, locked: change.locked };
    case "move":
      return { ...place, parent: change.parent };
    case "season": {
      const { theme, from, until } = change;
      return { ...place, seasons: [...place.seasons, { theme, from, until }] };
    }
  }
}

export type ChangeResult =
  | { ok: true; outcome: Outcome }
  | { ok: false; refusals: ChangeRefusal[] };

/** Makes a change as long as nothing stands against it, all of it or none. Moves go by `movePlace`. */
export async function applyChange(
  change: Exclude<EstateChange, { kind: "move" }>,
  person: PersonId,
  { delivers = true } = {},
): Promise<ChangeResult> {
  return inTransaction(async (transaction) => {
    await holdEstate(transaction);
    const estate = await loadEstate(transaction);
    const outcome = outcomeOf(estate, change);
    if (outcome.refusals.length > 0) return { ok: false, refusals: outcome.refusals };
    if (change.kind === "assign") await assign(estate, change, person, transaction);
    else if (change.kind === "lock") await lock(estate, change, person, transaction);
    else await addSeason(estate, change, delivers, person, transaction);
    return { ok: true, outcome };
  });
}

const nameOf = (estate: EstateNode[], id: PlaceId) => estate.find((p) => p.id === id)?.name ?? "";

async function assign(
  estate: EstateNode[],
  { places, theme }: Extract<EstateChange, { kind: "assign" }>,
  person: PersonId,
  transaction: Transaction,
): Promise<void> {
  await Place.update(theme === null ? { themeId: null, locked: false } : { themeId: theme }, {
    where: { id: places },
    transaction,
  });
  const named = theme && (await Theme.findByPk(theme, { transaction }))?.name;
  for (const id of places) {
    const detail = { place: nameOf(estate, id), theme: named };
    await record(
      {
        person,
        action: theme ? "theme-assigned" : "assignment-removed",
        subjectKind: "place",
        subjectId: id,
        detail,
      },
      transaction,
    );
    await announce(id, transaction);
  }
}

async function lock(
  estate: EstateNode[],
  { place, locked }: Extract<EstateChange, { kind: "lock" }>,
  person: PersonId,
  transaction: Transaction,
): Promise<void> {
  await Place.update({ locked }, { where: { id: place }, transaction });
  await record(
    {
      person,
      action: locked ? "place-locked" : "place-unlocked",
      subjectKind: "place",
      subjectId: place,
      detail: { place: nameOf(estate, place) },
    },
    transaction,
  );
  await announce(place, transaction);
}

async function addSeason(
  estate: EstateNode[],
  { place, theme, from, until }: Extract<EstateChange, { kind: "season" }>,
  delivers: boolean,
  person: PersonId,
  transaction: Transaction,
): Promise<void> {
  await SeasonRow.create(
    {
      id: newId<SeasonId>(),
      placeId: place,
      themeId: theme,
      fromDay: from,
      untilDay: until,
      delivers,
      createdBy: person,
    },
    { transaction },
  );
  const named = (await Theme.findByPk(theme, { transaction }))?.name;
  const detail = { place: nameOf(estate, place), theme: named, from, until };
  await record(
    { person, action: "season-added", subjectKind: "place", subjectId: place, detail },
    transaction,
  );
  // One that has begun already need not wait for the next look at the clock.
  if (from <= todayUtc()) await enqueue("tick", {}, transaction);
  await announce(place, transaction);
}

/** Takes a season away; the place returns to what it has without it. */
export async function removeSeason(id: SeasonId, person: PersonId): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const row = await SeasonRow.findByPk(id, { include: ["theme", "place"], transaction });
    if (!row) return false;
    const { theme, place } = row as SeasonRow & { theme: Theme; place: Place };
    await row.destroy({ transaction });
    await record(
      {
        person,
        action: "season-removed",
        subjectKind: "place",
        subjectId: row.placeId,
        detail: { place: place.name, theme: theme.name, from: row.fromDay, until: row.untilDay },
      },
      transaction,
    );
    await announce(row.placeId, transaction);
    return true;
  });
}

export interface SeasonLine {
  id: SeasonId;
  place: { id: PlaceId; name: string };
  theme: { id: ThemeId; name: string };
  from: string;
  until: string;
  delivers: boolean;
}

/** Seasons that are not over, of one place or of all, in the order in which they begin. */
export async function listSeasons(place?: PlaceId): Promise<SeasonLine[]> {
  const rows = await SeasonRow.findAll({
    where: place ? { placeId: place } : {},
    include: [
      { model: Theme, as: "theme" },
      { model: Place, as: "place" },
    ],
    order: [["fromDay", "ASC"]],
  });
  return (rows as (SeasonRow & { theme: Theme; place: Place })[])
    .filter((row) => row.untilDay >= todayUtc())
    .map((row) => ({
      id: row.id,
      place: { id: row.placeId, name: row.place.name },
      theme: { id: row.themeId, name: row.theme.name },
      from: row.fromDay,
      until: row.untilDay,
      delivers: row.delivers,
    }));
}
