import express, { type Response, Router } from "express";
import { Access, needsPublish, refuse } from "../access.ts";
import type { Faults } from "../faults.ts";
import { SLOT_NAMES } from "./slots.ts";
import { type CommonsStore, shownPalette, siteOf, type Tenant } from "./state.ts";

const LONGEST_NAME = 40;

/** Commons' API: sign-in for a short-lived token, palettes, and the choice of a palette for a site. */
export function commonsApi(store: CommonsStore, faults: Faults): Router {
  const access = new Access(faults);
  const router = Router();
  router.use(faults.apply, express.json({ limit: "64kb" }));

  router.post("/tenants/:tenant/sign-in", (request, response) => {
    const { tenant } = request.params;
    access.signIn(request, response, tenant, store.state.tenants[tenant]?.accounts ?? {});
  });

  router.use(
    "/tenants/:tenant",
    access.requires((request) => request.params.tenant as string),
    (request, response, next) => {
      response.locals.tenant = store.state.tenants[request.params.tenant as string];
      next();
    },
  );

  router.get("/tenants/:tenant/sites/:site", (request, response) => {
    const tenant = tenantOf(response);
    const site = siteOf(tenant, request.params.site);
    if (!site) return refuse(response, 404, "site");
    const shown = shownPalette(tenant, site);
    const followers = Object.entries(tenant.sites)
      .filter(([, { hub }]) => hub === request.params.site)
      .map(([, { title }]) => title);
    const { title, palette, hub, showsAt } = site;
    const showsInMs = Math.max(0, showsAt - Date.now());
    const answer = { site: request.params.site, title, palette, shown, showsInMs, hub, followers };
    setTimeout(() => response.json(answer), 0);
  });

  router.put("/tenants/:tenant/sites/:site/palette", needsPublish, (request, response) => {
    const tenant = tenantOf(response);
    const site = siteOf(tenant, request.params.site as string);
    const { palette } = (request.body ?? {}) as { palette?: string | null };
    if (!site) return refuse(response, 404, "site");
    if (site.hub !== null) return refuse(response, 409, `follows ${site.hub}`);
    if (palette === undefined || (palette !== null && !tenant.palettes[palette]))
      return refuse(response, 422, "palette");
    if (site.palette !== palette) {
      shownPalette(tenant, site);
      site.chosen.push(palette);
      site.showsAt = Date.now() + faults.settings.showAfterMs;
    }
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
    const slots = ((request.body ?? {}) as { slots?: Record<string, unknown> }).slots ?? {};
    const wrong = SLOT_NAMES.filter((slot) => !/^[0-9a-f]{6}$/.test(String(slots[slot])));
    if (wrong.length > 0) return refuse(response, 422, `slots: ${wrong.join(", ")}`);
    const stored = faults.settings.partial
      ? SLOT_NAMES.slice(0, SLOT_NAMES.length / 2)
      : SLOT_NAMES;
    const kept = Object.fromEntries(stored.map((slot) => [slot, String(slots[slot])]));
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

/** Somebody repaints the buttons of the palette that a site has. */
export function tamperCommons(store: CommonsStore, key: string): boolean {
  for (const tenant of Object.values(store.state.tenants)) {
    const site = tenant.sites[key];
    const palette = site?.palette ? tenant.palettes[site.palette] : undefined;
    if (!palette) continue;
    palette.slots.button = "c71585";
    palette.slots.buttonInk = "ffffff";
    store.save();
    return true;
  }
  return false;
}

const tenantOf = (response: Response): Tenant => response.locals.tenant as Tenant;
