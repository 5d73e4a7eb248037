import { Router } from "express";
import { home } from "./home.ts";
import { PLAIN_PALETTE } from "./slots.ts";
import type { CommonsStore } from "./state.ts";

/** The web pages of Commons: each site's home, painted with the slots that the site holds. */
export function commonsPages(store: CommonsStore): Router {
  const router = Router();
  router.get("/:tenant/:site", (request, response) => {
    const tenant = store.state.tenants[request.params.tenant];
    const site = tenant?.sites[request.params.site];
    if (!tenant || !site) {
      response.status(404).type("text").send("No such site.");
      return;
    }
    const palette = site.palette === null ? undefined : tenant.palettes[site.palette];
    const asked = (name: string) => {
      const value = request.query[name];
      return typeof value === "string" ? value : "";
    };
    response.set("cache-control", "no-store").type("html");
    response.send(
      home({
        site,
        slots: palette?.slots ?? PLAIN_PALETTE,
        search: asked("search"),
        reported: asked("where"),
      }),
    );
  });
  return router;
}
