import express, { type Request, Router } from "express";
import { refuse } from "../access.ts";
import type { Faults } from "../faults.ts";
import { appPage } from "./page.ts";
import { type AppTheme, appOf, type SluiceStore } from "./state.ts";

/** Sluice's API: apps with their switch for theming, and the theme that each has. */
export function sluiceApi(store: SluiceStore, faults: Faults): Router {
  const router = Router();
  const keyOf = (request: Request) => {
    const [account = "", secret] =
      request.headers.authorization?.replace("Key ", "").split(":") ?? [];
    const key = store.state.keys[account];
    return key && key.secret === secret && !faults.settings.rejectCredentials ? key : undefined;
  };
  router.use(faults.apply, express.json({ limit: "128kb" }), (request, response, next) => {
    const key = keyOf(request);
    if (!key) return refuse(response, 401, "key");
    response.locals.mayPublish = key.mayPublish;
    next();
  });

  router.get("/account", (_request, response) => {
    response.json({ mayPublish: response.locals.mayPublish });
  });

  router.get("/apps/:app", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return refuse(response, 404, "app");
    const { themingOn, theme } = app;
    const answer = {
      app: request.params.app,
      themingOn,
      theme,
      mayPublish: response.locals.mayPublish,
    };
    setTimeout(() => response.json(answer), faults.settings.holdReadsMs);
  });

  router.put("/apps/:app/themingOn", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return refuse(response, 404, "app");
    app.themingOn = ((request.body ?? {}) as { on?: boolean }).on === true;
    store.save();
    response.json({ themingOn: app.themingOn });
  });

  router.put("/apps/:app/theme", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return refuse(response, 404, "app");
    if (!response.locals.mayPublish) return refuse(response, 403, "publish");
    if (!app.themingOn) return refuse(response, 409, "theming is off");
    const theme = structuredClone(request.body ?? {}) as AppTheme;
    if (!theme.tones || !theme.day || !theme.night) return refuse(response, 422, "no theme");
    const colours = Object.values({ ...theme.tones, ...theme.day, ...theme.night });
    if (colours.length === 0 || colours.some((c) => !/^#[0-9a-f]{6}$/.test(c)))
      return refuse(response, 422, "a tone or part is no colour");
    const gone = Object.keys(app.theme?.tones ?? {}).filter((name) => !(name in theme.tones));
    if (gone.length > 0) return refuse(response, 422, `formulas refer to ${gone.join(", ")}`);
    if (faults.settings.partial) theme.night = {};
    if (faults.settings.garble) theme.day.press = "#ff00ff";
    app.theme = theme;
    app.writes++;
    store.save();
    response.json({ app: request.params.app, theme: theme.name });
  });

  router.delete("/apps/:app/theme", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return refuse(response, 404, "app");
    if (!response.locals.mayPublish) return refuse(response, 403, "publish");
    app.theme = null;
    store.save();
    response.json({ app: request.params.app, theme: null });
  });
  return router;
}

/** The pages of Sluice: each app as the people at the harbour use it. */
export function sluicePages(store: SluiceStore): Router {
  const router = Router();
  router.use(express.urlencoded({ extended: false }));
  router.get("/:app", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return void response.status(404).type("text").send("No such app.");
    const scheme = request.query.scheme === "night" ? "night" : "day";
    response
      .set("cache-control", "no-store")
      .type("html")
      .send(
        appPage(
          app,
          scheme,
          request.query.berth as string | undefined,
          `${request.baseUrl}/${request.params.app}/settings`,
        ),
      );
  });
  router.post("/:app/settings", (request, response) => {
    const app = appOf(store, request.params.app);
    if (!app) return void response.status(404).type("text").send("No such app.");
    app.themingOn = (request.body as { themingOn?: string }).themingOn === "on";
    store.save();
    response.redirect(303, `${request.baseUrl}/${request.params.app}`);
  });
  return router;
}

/** Somebody gives the app another look. */
export function tamperSluice(store: SluiceStore, key: string): boolean {
  const theme = appOf(store, key)?.theme;
  if (!theme) return false;
  theme.day.press = "#c71585";
  theme.day.pressInk = "#ffffff";
  store.save();
  return true;
}
