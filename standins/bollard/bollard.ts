import { createHash } from "node:crypto";
import express, { Router } from "express";
import { refuse } from "../access.ts";
import type { Faults } from "../faults.ts";
import { escapeHtml, head } from "../html.ts";
import { isFleet, openStore, type Store } from "../store.ts";

interface App {
  title: string;
  /** The stylesheet that its pages link, as somebody pasted it into the app's settings. */
  linked: string | null;
}

export interface BollardState {
  apps: Record<string, App>;
}
export type BollardStore = Store<BollardState>;

/** Stylesheets are looked for under this address until somebody sets another in the app's settings. */
const BASE = process.env.STANDINS_STYLESHEETS ?? "http://127.0.0.1:4600";
const app = (title: string, key: string): App => ({ title, linked: `${BASE}/t/${key}/theme.css` });

export const openBollard = (file: string): BollardStore =>
  openStore(file, () => ({
    apps: {
      "ticket-office": app("Ticket Office", "ticket-office"),
      manifest: app("Manifest", "manifest"),
    },
  }));

function appOf(store: BollardStore, key: string): App | undefined {
  if (isFleet(key)) store.state.apps[key] ??= app(`Hold ${key.slice(6)}`, key);
  return store.state.apps[key];
}

interface Copy {
  etag: string | null;
  sha256: string;
  freshUntil: number;
}

/** Bollard's API: who it is, and visits of a page as a reader's browser makes them. */
export function bollardApi(store: BollardStore, faults: Faults): Router {
  /** What the visitor's browser keeps, by address. */
  const copies = new Map<string, Copy>();
  const router = Router();
  router.use(faults.apply, express.json());
  router.get("/about", (_request, response) => {
    response.json({ name: "Bollard" });
  });
  router.get("/apps/:app", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return refuse(response, 404, "app");
    response.json({ linked: app.linked });
  });
  router.post("/visits/:app", async (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return refuse(response, 404, "app");
    const copy = app.linked === null ? null : await load(app.linked, copies);
    const sha256 = faults.settings.garble ? "0".repeat(64) : (copy?.sha256 ?? null);
    const fresh = Math.max(0, (copy?.freshUntil ?? 0) - Date.now());
    const freshForMs = faults.settings.garble ? 0 : fresh;
    const answer = { linked: app.linked, sha256, freshForMs };
    setTimeout(() => response.json(answer), faults.settings.holdReadsMs);
  });
  return router;
}

/** Loads a stylesheet as a browser does: by its copy while fresh, else asking whether it changed. */
async function load(address: string, copies: Map<string, Copy>): Promise<Copy | null> {
  const kept = copies.get(address);
  if (kept && kept.freshUntil > Date.now()) return kept;
  try {
    const response = await fetch(address, {
      headers: kept?.etag ? { "if-none-match": kept.etag } : {},
      signal: AbortSignal.timeout(5000),
    });
    const age = Number(response.headers.get("cache-control")?.match(/max-age=(\d+)/)?.[1] ?? 0);
    const freshUntil = Date.now() + age * 1000;
    if (response.status === 304 && kept) {
      kept.freshUntil = freshUntil;
      return kept;
    }
    if (!response.ok) return null;
    const bytes = Buffer.from(await response.arrayBuffer());
    const sha256 = createHash("sha256").update(bytes).digest("hex");
    const copy = { etag: response.headers.get("etag"), sha256, freshUntil };
    copies.set(address, copy);
    return copy;
  } catch {
    return kept ?? null;
  }
}

/** The pages of Bollard: an administration table that links its stylesheet, and its settings. */
export function bollardPages(store: BollardStore): Router {
  const router = Router();
  router.use(express.urlencoded({ extended: false }));
  router.get("/:app", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return void response.status(404).type("text").send("No such app.");
    response
      .set("cache-control", "no-store")
      .type("html")
      .send(
        page(
          app,
          `${request.baseUrl}/${request.params.app}/settings`,
          request.query.sold !== undefined,
        ),
      );
  });
  router.post("/:app/settings", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return void response.status(404).type("text").send("No such app.");
    const { pasted = "" } = request.body as { pasted?: string };
    app.linked = pasted.match(/https?:\/\/[^\s"'<>]+\.css/)?.[0] ?? null;
    store.save();
    response.redirect(303, `${request.baseUrl}/${request.params.app}`);
  });
  return router;
}

/** Somebody takes the link out of the app's settings. */
export function tamperBollard(store: BollardStore, key: string): boolean {
  const app = appOf(store, key);
  if (!app) return false;
  app.linked = null;
  store.save();
  return true;
}

const ROWS = [
  ["T-2041", "Saltholm, 05:40", "sold", "success"],
  ["T-2042", "Orrin Head, 06:15", "held", "warning"],
  ["T-2043", "Tarn Isle, 07:00", "returned", "danger"],
  ["T-2044", "Saltholm, 07:20", "checked in", "info"],
] as const;

function page(app: App, settings: string, sold: boolean): string {
  const links = app.linked ? `<link rel="stylesheet" href="${escapeHtml(app.linked)}">\n` : "";
  return `${head(app.title, STYLE, links)}
<body>
<header><strong>${escapeHtml(app.title)}</strong></header>
<main>
<h1>Today</h1>
<table><caption>Tickets</caption><thead><tr><th scope="col">Number</th><th scope="col">Crossing</th><th scope="col">State</th></tr></thead>
<tbody>${ROWS.map(([id, to, state, kind]) => `<tr><th scope="row"><a href="#${id}">${id}</a></th><td>${to}</td><td><span class="chip ${kind}">${state}</span></td></tr>`).join("")}</tbody></table>
${sold ? `<p class="chip success" role="status">Ticket T-2045 is sold.</p>` : ""}
<form><p><button class="go" name="sold">Sell a ticket</button></p></form>
<section aria-labelledby="settings"><h2 id="settings">Settings</h2>
<form method="post" action="${settings}"><label for="pasted">Stylesheet (an address, or the lines that link it)</label>
<textarea id="pasted" name="pasted" rows="2">${escapeHtml(app.linked ?? "")}</textarea><p><button class="soft">Save settings</button></p></form></section>
</main></body></html>`;
}

const v = (role: string, plain: string) => `var(--livery-${role}, ${plain})`;
const STYLE = `
* { box-sizing: border-box; }
body { margin: 0; font: 1rem/1.5 system-ui, sans-serif; background: ${v("canvas", "#f2f2f2")}; color: ${v("canvas-text", "#222")}; min-height: 100vh; }
:focus-visible { outline: 3px solid ${v("focus", "#222")}; outline-offset: 2px; }
header { background: ${v("header", "#444")}; color: ${v("header-text", "#fff")}; padding: .9rem 1.5rem; font-size: 1.1rem; }
main { padding: 1.5rem; max-width: 60rem; }
table { width: 100%; border-collapse: collapse; background: ${v("panel", "#fff")}; color: ${v("panel-text", "#222")}; }
caption { text-align: left; font-weight: 700; padding: .5rem 0; color: ${v("canvas-text", "#222")}; }
th, td { text-align: left; padding: .6rem .8rem; border-bottom: 1px solid ${v("line", "#ccc")}; font-weight: 400; }
thead th { font-weight: 700; } a { color: ${v("link", "#333")}; }
.chip { padding: .1rem .6rem; border: 1px solid; }
${["success", "warning", "danger", "info"].map((s) => `.${s} { background: ${v(`${s}-soft`, "#eee")}; color: ${v(`${s}-soft-text`, "#222")}; border-color: ${v(`${s}-line`, "#777")}; }`).join("\n")}
button { font: inherit; border: 0; padding: .5rem 1rem; cursor: pointer; }
.go { background: ${v("action", "#555")}; color: ${v("action-text", "#fff")}; } .go:hover { background: ${v("action-hover", "#444")}; }
.soft { background: ${v("action-soft", "#ddd")}; color: ${v("action-soft-text", "#222")}; }
label { display: block; } textarea { width: 100%; font: inherit; background: ${v("field", "#fff")}; color: ${v("field-text", "#222")}; border: 1px solid ${v("field-line", "#767676")}; }
`;
