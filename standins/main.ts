import { mkdirSync } from "node:fs";
import { join } from "node:path";
import express from "express";
import { commonsApi } from "./commons/api.ts";
import { commonsPages } from "./commons/pages.ts";
import { openCommons } from "./commons/state.ts";
import { Faults, faultRoutes } from "./faults.ts";

/** The simulated platforms: one program, each platform under an address of its own. */
const port = Number(process.env.STANDINS_PORT ?? 4610);
const folder = process.env.STANDINS_STATE ?? ".livery/standins";
mkdirSync(folder, { recursive: true });

const app = express();
app.disable("x-powered-by");
const faults = new Faults();
const commons = openCommons(join(folder, "commons.json"));
const platform = express.Router();
platform.use("/faults", faultRoutes(faults));
platform.use("/api", commonsApi(commons, faults));
platform.use(commonsPages(commons));
app.use("/commons", platform);

const server = app.listen(port, "127.0.0.1", () => process.send?.({ ready: true }));
server.on("error", (error: NodeJS.ErrnoException) => {
  process.send?.({ failed: error.code === "EADDRINUSE" ? `port ${port} is taken` : error.message });
  process.exit(1);
});

const stop = () => {
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
if (process.send) process.on("disconnect", stop);
