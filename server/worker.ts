import { startWorker } from "./jobs/worker.ts";
import { runUntilStopped } from "./process.ts";

runUntilStopped(startWorker);
