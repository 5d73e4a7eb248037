import { randomBytes } from "node:crypto";
import express, { type NextFunction, type Request, type Response, Router } from "express";
import type { Faults } from "../faults.ts";
import { SLOT_NAMES } from "./slots.ts";
import type { CommonsStore, Tenant } from "./state.ts";

const LONGEST_NAME = 40;
/** How long a token lasts, in milliseconds. */
const TOKEN_LIFE = 10 * 60 * 1000;

interface Token {
  tenant: string;
  rights: string[];
  until: number;
}

/** Commons' API: sign-in for a short-lived token, palettes, and the choice of a palette for a site. */
export function commonsApi(store: CommonsStore, faults: Faults): Router {
  const tokens = new Map<string, Token>();
  const router = Router();
  router.use(faults.apply, express.json({ limit: "64kb" }));

  router.post("/tenants/:tenant/sign-in", (request, response) => {
    const tenant = store.state.tenants[request.params.tenant];
    const { account, password } = request.body as { account?: string; password?: string };
    const known = tenant?.accounts[account ?? ""];
    if (!known || known.password !== password) return refuse(response, 401, "account or password");
    const token = randomBytes(18).toString("base64url");
    tokens.set(token, {
      tenant: request.params.tenant,
      rights: known.rights,
      until: Date.now() + TOKEN_LIFE,
    });
    response.json({ token, rights: known.rights, lifeSeconds: TOKEN_LIFE / 1000 });
  });

  router.use("/tenants/:tenant", (request, response, next) => {
    const token = tokens.get(request.headers.authorization?.replace("Bearer ", "") ?? "");
    if (!token || token.tenant !== request.params.tenant || token.until < Date.now())
      return refuse(response, 401, "token");
    response.locals.rights = token.rights;
    response.locals.tenant = store.state.tenants[token.tenant];
    next();
  });

  router.get("/tenants/:tenant/sites/:site", (request, response) => {
    const site = tenantOf(response).sites[request.params.site];
    if (!site) return refuse(response, 404, "site");
    response.json({ site: request.params.site, title: site.title, palette: site.palette });
  });

  router.put("/tenants/:tenant/sites/:site/palette", needsPublish, (request, response) => {
    const tenant = tenantOf(response);
    const site = tenant.sites[request.params.site as string];
    const { palette } = request.body as { palette?: string };
    if (!site) return refuse(response, 404, "site");
    if (palette === undefined || !tenant.palettes[palette]) return refuse(response, 422, "palette");
    if (site.palette !== palette) site.chosen.push(palette);
    site.palette = palette;
    store.save();
    response.json({ site: request.params.site, palette });
  });

  router.get("/tenants/:tenant/palettes/:name", (request, response) => {
    setTimeout(() => {
      const palette = tenantOf(response).palettes[request.params.name];
      if (!palette) return refuse(response, 404, "palette");
      response.json({ name: request.params.name, ...palette });
    }, faults.settings.holdReadsMs);
  });

  router.put("/tenants/:tenant/palettes/:name", needsPublish, (request, response) => {
    const name = request.params.name as string;
    const tenant = tenantOf(response);
    const there = tenant.palettes[name];
    if (there && request.headers["if-none-match"] === "*") return refuse(response, 412, "name");
    if (name.length > LONGEST_NAME) return refuse(response, 422, "name");
    const slots = (request.body as { slots?: Record<string, unknown> }).slots ?? {};
    const wrong = SLOT_NAMES.filter((slot) => !/^[0-9a-f]{6}$/.test(String(slots[slot])));
    if (wrong.length > 0) return refuse(response, 422, `slots: ${wrong.join(", ")}`);
    const kept = Object.fromEntries(SLOT_NAMES.map((slot) => [slot, String(slots[slot])]));
    if (faults.settings.garble) kept.button = "ff00ff";
    tenant.palettes[name] = {
      slots: kept,
      uploadedAt: new Date().toISOString(),
      uploads: (there?.uploads ?? 0) + 1,
    };
    store.save();
    response.status(there ? 200 : 201).json({ name });
  });

  return router;
}

const tenantOf = (response: Response): Tenant => response.locals.tenant as Tenant;

function needsPublish(_request: Request, response: Response, next: NextFunction): void {
  if ((response.locals.rights as string[]).includes("publish")) next();
  else refuse(response, 403, "publish");
}

function refuse(response: Response, status: number, what: string): void {
  response.status(status).json({ refused: what });
}
