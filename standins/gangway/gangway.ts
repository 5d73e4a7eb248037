import { createHash } from "node:crypto";
import express, { Router } from "express";
import multer from "multer";
import { Access, needsPublish, refuse } from "../access.ts";
import type { Faults } from "../faults.ts";
import { portalPage } from "./page.ts";
import { type GangwayStore, type Portal, portalOf, type StoredFile, shownFiles } from "./state.ts";

const MOST_STYLESHEET = 64 * 1024;
const REQUIRED = [
  "gangway.css",
  "gangway-favicon-32.png",
  "gangway-sign-in.json",
  "gangway-messages.json",
];

const sealed = (mediaType: string, bytes: Buffer): StoredFile => ({
  mediaType,
  bytes: bytes.toString("base64"),
  sha256: createHash("sha256").update(bytes).digest("hex"),
});

/** Gangway's API: sign-in, and each portal's look as a set of files. */
export function gangwayApi(store: GangwayStore, faults: Faults): Router {
  const access = new Access(faults);
  const upload = multer({ storage: multer.memoryStorage(), limits: { fileSize: 256 * 1024 } });
  const router = Router();
  router.use(faults.apply);
  router.post("/sign-in", express.json(), (request, response) => {
    access.signIn(request, response, "portals", store.state.accounts);
  });
  router.use(access.requires(() => "portals"));

  router.get("/portals/:portal/look", (request, response) => {
    const portal = portalOf(store, request.params.portal);
    if (!portal) return refuse(response, 404, "portal");
    const files = Object.entries(portal.files).map(([name, { sha256 }]) => [name, sha256]);
    const answer = {
      files: Object.fromEntries(files),
      mayPublish: (response.locals.rights as string[]).includes("publish"),
      shownInMs: Math.max(0, portal.cachedUntil - Date.now()),
    };
    setTimeout(() => response.json(answer), faults.settings.holdReadsMs);
  });

  router.put("/portals/:portal/look", needsPublish, upload.any(), (request, response) => {
    const portal = portalOf(store, request.params.portal as string);
    if (!portal) return refuse(response, 404, "portal");
    const sent = (request.files ?? []) as Express.Multer.File[];
    const wrong = defectOf(sent);
    if (wrong) return refuse(response, 422, wrong);
    const kept = faults.settings.partial ? sent.slice(0, sent.length / 2) : sent;
    const files = Object.fromEntries(
      kept.map((f) => [f.originalname, sealed(f.mimetype, f.buffer)]),
    );
    if (faults.settings.garble)
      files["gangway.css"] = sealed("text/css", Buffer.from(":root { --gangway-go: #ff00ff; }"));
    change(portal, files, faults.settings.showAfterMs);
    store.save();
    response.json({ files: Object.keys(files) });
  });

  router.delete("/portals/:portal/look", needsPublish, (request, response) => {
    const portal = portalOf(store, request.params.portal as string);
    if (!portal) return refuse(response, 404, "portal");
    change(portal, {}, faults.settings.showAfterMs);
    store.save();
    response.json({ files: [] });
  });
  return router;
}

function change(portal: Portal, files: Record<string, StoredFile>, showAfterMs: number): void {
  const same = (a: Record<string, StoredFile>, b: Record<string, StoredFile>) =>
    Object.keys(a).length === Object.keys(b).length &&
    Object.entries(a).every(([name, { sha256 }]) => b[name]?.sha256 === sha256);
  if (!same(portal.files, files)) {
    portal.cached = shownFiles(portal);
    portal.cachedUntil = Date.now() + showAfterMs;
  }
  portal.files = files;
  portal.writes++;
}

/** What is wrong with an upload, in words; null where nothing is. */
function defectOf(files: Express.Multer.File[]): string | null {
  const named = (name: string) => files.find((f) => f.originalname === name);
  const missing = REQUIRED.filter((name) => !named(name));
  if (missing.length > 0) return `missing: ${missing.join(", ")}`;
  if ((named("gangway.css")?.size ?? 0) > MOST_STYLESHEET) return "stylesheet over 64 KB";
  const icon = named("gangway-favicon-32.png")?.buffer;
  // PNG, Third Edition, section 11.2.1: width and height are the first eight bytes of IHDR.
  if (!icon || icon.length < 24 || icon.readUInt32BE(16) !== 32 || icon.readUInt32BE(20) !== 32)
    return "favicon is not 32×32";
  return null;
}

/** The pages of Gangway: each portal's sign-in page, and the files of its look. */
export function gangwayPages(store: GangwayStore): Router {
  const router = Router();
  router.get("/:portal", (request, response) => {
    const portal = portalOf(store, request.params.portal);
    if (!portal) return void response.status(404).type("text").send("No such portal.");
    response
      .set("cache-control", "no-store")
      .type("html")
      .send(portalPage(request.params.portal, portal, request.query.tried !== undefined));
  });
  router.get("/:portal/look/:file", (request, response) => {
    const portal = portalOf(store, request.params.portal);
    const file = portal && shownFiles(portal)[request.params.file];
    if (!file) return void response.status(404).type("text").send("No such file.");
    response
      .set("cache-control", "no-store")
      .type(file.mediaType)
      .send(Buffer.from(file.bytes, "base64"));
  });
  return router;
}

/** Somebody pastes a line into the portal's stylesheet. */
export function tamperGangway(store: GangwayStore, key: string): boolean {
  const portal = portalOf(store, key);
  const css = portal?.files["gangway.css"];
  if (!portal || !css) return false;
  const text = `${Buffer.from(css.bytes, "base64").toString()}\n:root { --gangway-go: #c71585; }\n`;
  portal.files["gangway.css"] = sealed("text/css", Buffer.from(text));
  store.save();
  return true;
}
