import { EventEmitter } from "node:events";
import { Logger, makeWorkerUtils, type Runner, run, type WorkerEvents } from "graphile-worker";
import { config } from "../config.ts";
import { runDelivery } from "../deliveries/run.ts";
import { log } from "../log.ts";
import { Liveness } from "./liveness.ts";
import type { Jobs } from "./queue.ts";

const CONCURRENCY = 4;
const POLL_MS = 500;

/** Starts working off the queue; the returned function stops it once running jobs have ended. */
export async function startWorker(): Promise<() => Promise<void>> {
  const connectionString = config().DATABASE_URL;
  const utils = await makeWorkerUtils({ connectionString, logger: quiet });
  const liveness = new Liveness((ids) => utils.forceUnlockWorkers(ids));
  const events: WorkerEvents = new EventEmitter();
  events.on("worker:create", ({ worker }) => liveness.add(worker.workerId));
  events.on("worker:stop", ({ worker }) => liveness.remove(worker.workerId));
  events.on("job:error", ({ job, error }) =>
    log.error({ job: job.task_identifier, attempt: job.attempts, err: error }, "job failed"),
  );
  const runner: Runner = await run({
    connectionString,
    concurrency: CONCURRENCY,
    pollInterval: POLL_MS,
    noHandleSignals: true,
    logger: quiet,
    events,
    taskList: {
      deliver: (payload) => runDelivery((payload as Jobs["deliver"]).delivery),
    },
  });
  liveness.start();
  return async () => {
    await liveness.stop();
    await runner.stop();
    await utils.release();
  };
}

const quiet = new Logger(() => (level, message) => {
  if (level === "error") log.error(message);
});
