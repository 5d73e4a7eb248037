import { EventEmitter } from "node:events";
import {
  Logger,
  makeWorkerUtils,
  parseCronItems,
  type Runner,
  run,
  type WorkerEvents,
} from "graphile-worker";
import { config } from "../config.ts";
import { checkPlace } from "../deliveries/drift.ts";
import { runDelivery } from "../deliveries/run.ts";
import { log } from "../log.ts";
import { advance } from "../rollouts/advance.ts";
import { tick } from "../rollouts/tick.ts";
import { Liveness } from "./liveness.ts";
import type { Jobs } from "./queue.ts";

const POLL_MS = 500;
/** Connections of the queue: one that listens, and some to take jobs and end them. */
const QUEUE_CONNECTIONS = 4;
/** How long jobs of a pool that ends by itself may go on: its end is not always said, in ms. */
const LAST_JOBS_MS = 3000;

/** Starts working off the queue; the returned function stops it once running jobs have ended. */
export async function startWorker(): Promise<() => Promise<void>> {
  const { DATABASE_URL: connectionString, LIVERY_WORKER_JOBS: concurrency } = config();
  const utils = await makeWorkerUtils({ connectionString, logger: quiet });
  const liveness = new Liveness((ids) => utils.forceUnlockWorkers(ids));
  let stopping = false;
  // A pool that can't go on (the database went in the middle of a job, or the queue's tables were
  // upgraded under it) must not hold its jobs, nor seem to live: the process ends, its locks go with
  // it, and whoever keeps it running starts it again.
  const gone = (error?: unknown) => {
    if (stopping) return;
    log.error({ err: error }, "the worker can't go on");
    process.exit(1);
  };
  const events: WorkerEvents = new EventEmitter();
  // Jobs are locked by the pool that took them, not by the single worker.
  events.on("pool:create", ({ workerPool }) => liveness.add(workerPool.id));
  events.on("pool:release", ({ workerPool }) => {
    liveness.remove(workerPool.id);
    gone();
  });
  events.on("pool:gracefulShutdown", () => setTimeout(gone, LAST_JOBS_MS).unref());
  events.on("job:error", ({ job, error }) =>
    log.error({ job: job.task_identifier, attempt: job.attempts, err: error }, "job failed"),
  );
  await liveness.start();
  const runner: Runner = await run({
    connectionString,
    concurrency,
    maxPoolSize: QUEUE_CONNECTIONS,
    pollInterval: POLL_MS,
    noHandleSignals: true,
    logger: quiet,
    events,
    parsedCronItems: parseCronItems([{ task: "tick", match: "* * * * *", identifier: "tick" }]),
    taskList: {
      deliver: (payload) => runDelivery((payload as Jobs["deliver"]).delivery),
      advance: (payload) => advance((payload as Jobs["advance"]).rollout),
      check: (payload) => checkPlace((payload as Jobs["check"]).place).then(() => undefined),
      tick: () => tick(),
    },
  });
  runner.promise.catch(gone);
  await utils.addJob("tick", {}, { jobKey: "tick at start" });
  return async () => {
    stopping = true;
    await liveness.stop();
    await runner.stop().catch(() => undefined);
    await utils.release();
  };
}

const quiet = new Logger(() => (level, message) => {
  if (level === "error") log.error(message);
});
