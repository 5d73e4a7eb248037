import { parse } from "csv-parse/sync";
import { stringify } from "csv-stringify/sync";
import { z } from "zod";
import { PLACE_KINDS } from "#core/estate/tree.ts";
import { inTransaction } from "../db/connection.ts";
import { Connection, Place, Theme } from "../db/models/index.ts";
import type { PersonId, PlaceId } from "../ids.ts";
import { addPlaceIn, type PlaceRefusal } from "./places.ts";

/** A place as a file lists it: its path, and names instead of identifiers. */
export interface ListedPlace {
  /** Names from the top of the estate down, each after a slash: `Group / Ferries / Quayside`. */
  path: string;
  kind: string;
  connection: string;
  key: string;
  page: string;
  theme: string;
  locked: string;
}

const COLUMNS = ["path", "kind", "connection", "key", "page", "theme", "locked"] as const;
const BETWEEN = " / ";

/** The whole estate as a list, places above before those below. */
export async function exportEstate(): Promise<ListedPlace[]> {
  const [places, connections, themes] = await Promise.all([
    Place.findAll({ where: { retiredAt: null }, order: ["name"] }),
    Connection.findAll(),
    Theme.findAll({ attributes: ["id", "name"] }),
  ]);
  const named = <T extends { id: string; name: string }>(rows: T[], id: string | null) =>
    rows.find((row) => row.id === id)?.name ?? "";
  const out: ListedPlace[] = [];
  const walk = (parent: PlaceId | null, above: string) => {
    for (const place of places.filter((p) => p.parentId === parent)) {
      const path = above === "" ? place.name : above + BETWEEN + place.name;
      out.push({
        path,
        kind: place.kind,
        connection: named(connections, place.connectionId),
        key: place.externalKey ?? "",
        page: place.page ?? "",
        theme: named(themes, place.themeId),
        locked: place.locked ? "yes" : "",
      });
      walk(place.id, path);
    }
  };
  walk(null, "");
  return out;
}

export const toCsv = (places: readonly ListedPlace[]): string =>
  stringify([...places], { header: true, columns: [...COLUMNS] });

/** What is wrong with one line of a file. `line` counts from 1, the header of a CSV file included. */
export type LineProblem =
  | { line: number; code: "unreadable"; detail: string }
  | { line: number; code: "no-path" }
  | { line: number; code: "no-such-kind"; kind: string }
  | { line: number; code: "nothing-above"; above: string }
  | { line: number; code: "no-such-theme"; theme: string }
  | { line: number; code: "unknown-connection"; connection: string }
  | { line: number; code: PlaceRefusal };

export type ImportResult =
  | { ok: true; added: number; there: number }
  | { ok: false; problems: LineProblem[] };

const listed = z.object({
  path: z.string().trim().min(1),
  kind: z.string().trim(),
  connection: z.string().trim().default(""),
  key: z.string().trim().default(""),
  page: z.string().trim().default(""),
  theme: z.string().trim().default(""),
  locked: z.string().trim().default(""),
});

interface Line extends ListedPlace {
  line: number;
}

/** Reads a CSV or JSON list of places; each thing that is wrong comes with its line. */
export function readListing(text: string): { lines: Line[]; problems: LineProblem[] } {
  let rows: { line: number; row: unknown }[];
  try {
    rows = /^\s*\[/.test(text) ? jsonRows(text) : csvRows(text);
  } catch (error) {
    const detail = (error as Error).message;
    const line = Number(/line (\d+)/.exec(detail)?.[1] ?? 1);
    return { lines: [], problems: [{ line, code: "unreadable", detail }] };
  }
  const lines: Line[] = [];
  const problems: LineProblem[] = [];
  for (const { line, row } of rows) {
    const read = listed.safeParse(row);
    if (!read.success) problems.push({ line, code: "no-path" });
    else if (!PLACE_KINDS.some((kind) => kind === read.data.kind))
      problems.push({ line, code: "no-such-kind", kind: read.data.kind });
    else lines.push({ ...read.data, line });
  }
  return { lines, problems };
}

const jsonRows = (text: string) =>
  (JSON.parse(text) as unknown[]).map((row, i) => ({ line: i + 1, row }));

/** The records of a CSV file, each with the line on which it ends. */
const csvRows = (text: string) =>
  (
    parse(text, { columns: true, skip_empty_lines: true, bom: true, trim: true, info: true }) as {
      record: unknown;
      info: { lines: number };
    }[]
  ).map(({ record, info }) => ({ line: info.lines, row: record }));

class Refused extends Error {}

/** Adds every place of a list that is not there yet: all of them, or none where any line is wrong. */
export async function importEstate(text: string, person: PersonId): Promise<ImportResult> {
  const { lines, problems } = readListing(text);
  let added = 0;
  let there = 0;
  try {
    await inTransaction(async (transaction) => {
      const themes = await Theme.findAll({ attributes: ["id", "name"], transaction });
      const connections = await Connection.findAll({ transaction });
      const byPath = new Map<string, PlaceId>();
      for (const { path, id } of await pathsOf()) byPath.set(path, id);
      for (const line of lines) {
        if (byPath.has(line.path)) {
          there++;
          continue;
        }
        const parts = line.path.split(BETWEEN);
        const name = parts.at(-1) as string;
        const above = parts.slice(0, -1).join(BETWEEN);
        const parent = above === "" ? null : byPath.get(above);
        const theme = themes.find((t) => t.name === line.theme);
        const connection = connections.find((c) => c.name === line.connection);
        const at = { line: line.line };
        if (parent === undefined) problems.push({ ...at, code: "nothing-above", above });
        else if (line.theme !== "" && !theme)
          problems.push({ ...at, code: "no-such-theme", theme: line.theme });
        else if (line.connection !== "" && !connection)
          problems.push({ ...at, code: "unknown-connection", connection: line.connection });
        else {
          const made = await addPlaceIn(
            {
              parent,
              name,
              kind: line.kind as (typeof PLACE_KINDS)[number],
              connection: connection?.id ?? null,
              externalKey: line.key,
              page: line.page === "" ? null : line.page,
            },
            person,
            transaction,
          );
          if (!made.ok) problems.push({ ...at, code: made.code });
          else {
            added++;
            byPath.set(line.path, made.id);
            if (theme)
              await Place.update(
                { themeId: theme.id, locked: line.locked === "yes" },
                { where: { id: made.id }, transaction },
              );
          }
        }
      }
      if (problems.length > 0) throw new Refused();
    });
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return { ok: false, problems: problems.sort((a, b) => a.line - b.line) };
  }
  return { ok: true, added, there };
}

async function pathsOf(): Promise<{ path: string; id: PlaceId }[]> {
  const places = await Place.findAll({
    where: { retiredAt: null },
    attributes: ["id", "parentId", "name"],
  });
  const byId = new Map(places.map((place) => [place.id, place]));
  return places.map((place) => {
    const names: string[] = [];
    for (let at: Place | undefined = place; at; at = byId.get(at.parentId as PlaceId))
      names.unshift(at.name);
    return { path: names.join(BETWEEN), id: place.id };
  });
}
