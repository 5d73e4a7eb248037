import { mkdirSync } from "node:fs";
import { join } from "node:path";
import express, { type Router } from "express";
import { bollardApi, bollardPages, openBollard, tamperBollard } from "./bollard/bollard.ts";
import { commonsApi, tamperCommons } from "./commons/api.ts";
import { commonsPages } from "./commons/pages.ts";
import { openCommons } from "./commons/state.ts";
import { Faults, faultRoutes, type Tamper } from "./faults.ts";
import { gangwayApi, gangwayPages, tamperGangway } from "./gangway/gangway.ts";
import { openGangway } from "./gangway/state.ts";
import { sluiceApi, sluicePages, tamperSluice } from "./sluice/sluice.ts";
import { openSluice } from "./sluice/state.ts";
import { writeAll } from "./store.ts";
import { openTidemark, tamperTidemark, tidemarkApi, tidemarkPages } from "./tidemark/tidemark.ts";

/** The simulated platforms: one program, each platform under an address of its own. */
const port = Number(process.env.STANDINS_PORT ?? 4610);
const folder = process.env.STANDINS_STATE ?? ".livery/standins";
mkdirSync(folder, { recursive: true });

const app = express();
app.disable("x-powered-by");

interface Parts {
  api(faults: Faults): Router;
  pages: Router;
  tamper: Tamper;
}

function platform(name: string, { api, pages, tamper }: Parts): void {
  const faults = new Faults();
  const router = express.Router();
  router.use("/faults", faultRoutes(name, faults, tamper));
  router.use("/api", api(faults));
  router.use(pages);
  app.use(`/${name.toLowerCase()}`, router);
}

const file = (name: string) => join(folder, `${name}.json`);
const commons = openCommons(file("commons"));
platform("Commons", {
  api: (faults) => commonsApi(commons, faults),
  pages: commonsPages(commons),
  tamper: (key) => tamperCommons(commons, key),
});
const sluice = openSluice(file("sluice"));
platform("Sluice", {
  api: (faults) => sluiceApi(sluice, faults),
  pages: sluicePages(sluice),
  tamper: (key) => tamperSluice(sluice, key),
});
const gangway = openGangway(file("gangway"));
platform("Gangway", {
  api: (faults) => gangwayApi(gangway, faults),
  pages: gangwayPages(gangway),
  tamper: (key) => tamperGangway(gangway, key),
});
const bollard = openBollard(file("bollard"));
platform("Bollard", {
  api: (faults) => bollardApi(bollard, faults),
  pages: bollardPages(bollard),
  tamper: (key) => tamperBollard(bollard, key),
});
const tidemark = openTidemark(file("tidemark"));
platform("Tidemark", {
  api: (faults) => tidemarkApi(tidemark, faults),
  pages: tidemarkPages(tidemark),
  tamper: (key) => tamperTidemark(tidemark, key),
});

const server = app.listen(port, "127.0.0.1", () => process.send?.({ ready: true }));
server.on("error", (error: NodeJS.ErrnoException) => {
  process.send?.({ failed: error.code === "EADDRINUSE" ? `port ${port} is taken` : error.message });
  process.exit(1);
});

const stop = () => {
  writeAll();
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
if (process.send) process.on("disconnect", stop);
