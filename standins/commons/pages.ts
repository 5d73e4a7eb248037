import { Router } from "express";
import { home } from "./home.ts";
import { PLAIN_PALETTE } from "./slots.ts";
import { type CommonsStore, shownPalette, siteOf } from "./state.ts";

/** The web pages of Commons: each site's home, painted with the palette that shows there. */
export function commonsPages(store: CommonsStore): Router {
  const router = Router();
  router.get("/:tenant/:site", (request, response) => {
    const tenant = store.state.tenants[request.params.tenant];
    const site = tenant && siteOf(tenant, request.params.site);
    if (!tenant || !site) {
      response.status(404).type("text").send("No such site.");
      return;
    }
    const shown = shownPalette(tenant, site);
    const palette = shown === null ? undefined : tenant.palettes[shown];
    const asked = (name: string) => {
      const value = request.query[name];
      return typeof value === "string" ? value : "";
    };
    response.set("cache-control", "no-store").type("html");
    response.send(
      home({
        site,
        slots: { ...PLAIN_PALETTE, ...palette?.slots },
        search: asked("search"),
        reported: asked("where"),
      }),
    );
  });
  return router;
}
