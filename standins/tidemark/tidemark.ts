import { createHash } from "node:crypto";
import express, { type Request, Router } from "express";
import { parse } from "smol-toml";
import { refuse } from "../access.ts";
import type { Faults } from "../faults.ts";
import { escapeHtml, head } from "../html.ts";
import { isFleet, openStore, type Store } from "../store.ts";

interface Board {
  title: string;
  /** Every version of its configuration file, the newest last. */
  versions: string[];
}

export interface TidemarkState {
  accounts: Record<string, { secret: string; mayPublish: boolean }>;
  boards: Record<string, Board>;
}
export type TidemarkStore = Store<TidemarkState>;

export const openTidemark = (file: string): TidemarkStore =>
  openStore(file, () => ({
    accounts: {
      "board.hand": { secret: "neap-and-spring-21", mayPublish: true },
      "board.reader": { secret: "ebb-2", mayPublish: false },
    },
    boards: { "sailings-board": { title: "Sailings Board", versions: [""] } },
  }));

function boardOf(store: TidemarkStore, key: string): Board | undefined {
  if (isFleet(key)) store.state.boards[key] ??= { title: `Gauge ${key.slice(6)}`, versions: [""] };
  return store.state.boards[key];
}

const newest = (board: Board): string => board.versions.at(-1) ?? "";
const etagOf = (text: string): string =>
  `"${createHash("sha256").update(text).digest("hex").slice(0, 24)}"`;

/** Tidemark's API: a versioned store with one file a board, changed only by who knows its ETag. */
export function tidemarkApi(store: TidemarkStore, faults: Faults): Router {
  const router = Router();
  const accountOf = (request: Request) => {
    const account = store.state.accounts[String(request.headers["x-account"])];
    const secret = request.headers.authorization?.replace("Bearer ", "");
    const known = account && account.secret === secret && !faults.settings.rejectCredentials;
    return known ? account : undefined;
  };
  router.use(
    faults.apply,
    express.text({ type: "application/toml" }),
    (request, response, next) => {
      const account = accountOf(request);
      if (!account) return refuse(response, 401, "account");
      response.locals.mayPublish = account.mayPublish;
      next();
    },
  );
  router.get("/account", (_request, response) => {
    response.json({ mayPublish: response.locals.mayPublish });
  });
  router.get("/files/:board/look.toml", (request, response) => {
    const board = boardOf(store, request.params.board);
    if (!board) return refuse(response, 404, "board");
    const text = newest(board);
    setTimeout(
      () => response.set("etag", etagOf(text)).type("application/toml").send(text),
      faults.settings.holdReadsMs,
    );
  });
  router.put("/files/:board/look.toml", (request, response) => {
    const board = boardOf(store, request.params.board);
    if (!board) return refuse(response, 404, "board");
    if (!response.locals.mayPublish) return refuse(response, 403, "publish");
    const held = request.headers["if-match"];
    if (held === undefined) return refuse(response, 428, "If-Match");
    if (held !== etagOf(newest(board))) return refuse(response, 412, "version");
    let text = typeof request.body === "string" ? request.body : "";
    try {
      parse(text);
    } catch {
      return refuse(response, 422, "no TOML");
    }
    if (faults.settings.partial) text = text.slice(0, text.length / 2);
    if (faults.settings.garble) text = text.replace(/series = "#\w+"/, 'series = "#ff00ff"');
    board.versions.push(text);
    store.save();
    response.set("etag", etagOf(text)).json({ version: board.versions.length });
  });
  return router;
}

/** The pages of Tidemark: each board as it hangs on the quay. */
export function tidemarkPages(store: TidemarkStore): Router {
  const router = Router();
  router.get("/:board", (request, response) => {
    const board = boardOf(store, request.params.board);
    if (!board) return void response.status(404).type("text").send("No such board.");
    response.set("cache-control", "no-store").type("html").send(page(board));
  });
  return router;
}

/** Somebody edits the file by hand. */
export function tamperTidemark(store: TidemarkStore, key: string): boolean {
  const board = boardOf(store, key);
  if (!board || newest(board) === "") return false;
  board.versions.push(newest(board).replace(/series = "#\w+"/, 'series = "#c71585"'));
  store.save();
  return true;
}

interface Look {
  font: { family: string; base_rem: number };
  light: Record<string, string>;
  dark: Record<string, string>;
}

const PLAIN: Record<string, string> = {
  ground: "#f2f2f2",
  ink: "#222222",
  sheet: "#ffffff",
  rule: "#767676",
  anchor: "#333333",
  series: "#555555",
};

function lookOf(text: string): Look {
  const plain = { font: { family: "system-ui", base_rem: 1 }, light: PLAIN, dark: PLAIN };
  try {
    return text === "" ? plain : { ...plain, ...(parse(text) as unknown as Look) };
  } catch {
    return plain;
  }
}

const LOADS = [34, 52, 41, 67, 88, 73, 59];

function page(board: Board): string {
  const { font, light, dark } = lookOf(newest(board));
  const vars = (values: Record<string, string>) =>
    Object.entries({ ...PLAIN, ...values })
      .map(([name, value]) => `--${name}: ${value};`)
      .join(" ");
  const style = `:root { color-scheme: light dark; ${vars(light)} --base: ${font.base_rem}rem; }
@media (prefers-color-scheme: dark) { :root { ${vars(dark)} } }${STYLE}`;
  return `${head(board.title, style)}
<body style="font-family: '${escapeHtml(font.family)}', system-ui, sans-serif">
<main>
<h1>${escapeHtml(board.title)}</h1>
<section aria-labelledby="load"><h2 id="load">Passengers by hour</h2>
<svg viewBox="0 0 350 130" role="img" aria-label="Between 34 and 88 passengers an hour, most at ten">${LOADS.map((n, i) => `<rect x="${i * 50 + 6}" y="${120 - n}" width="38" height="${n}"/>`).join("")}<line x1="0" x2="350" y1="120" y2="120"/></svg>
<p>Figures of this morning. <a href="#load">How they are counted</a></p></section>
<section aria-labelledby="notes"><h2 id="notes">Notes for the watch</h2><p>The 09:20 waits for the bus from Orrin Head.</p></section>
</main></body></html>`;
}

const STYLE = `
* { box-sizing: border-box; }
body { margin: 0; font-size: var(--base); line-height: 1.5; background: var(--ground); color: var(--ink); min-height: 100vh; }
:focus-visible { outline: 3px solid var(--ink); outline-offset: 2px; }
main { padding: 1.5rem; max-width: 60rem; display: grid; gap: 1.25rem; }
h1, h2, p { margin: 0; } h1 { font-size: 1.6em; } h2 { font-size: 1.15em; margin-bottom: .5rem; }
section { background: var(--sheet); color: var(--ink); border: 1px solid var(--rule); padding: 1.25rem; }
svg { width: 100%; max-height: 14rem; } rect { fill: var(--series); } line { stroke: var(--rule); }
a { color: var(--anchor); }
`;
