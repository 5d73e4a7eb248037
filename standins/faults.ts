import express, { type RequestHandler, Router } from "express";

/** What can be made to go wrong with a platform. */
export interface FaultSettings {
  /** Every call waits this long, in milliseconds. */
  latencyMs: number;
  /** Reading a palette waits this long in addition, in milliseconds. */
  holdReadsMs: number;
  /** The line drops without an answer. */
  down: boolean;
  /** An upload is stored with one slot wrong. */
  garble: boolean;
}

const NONE: FaultSettings = { latencyMs: 0, holdReadsMs: 0, down: false, garble: false };

/** One platform's faults, as they are switched on now. */
export class Faults {
  settings: FaultSettings = { ...NONE };

  set(change: Partial<FaultSettings>): void {
    this.settings = { ...NONE, ...change };
  }

  /** Applies latency and dropped lines to every call behind it. */
  readonly apply: RequestHandler = (request, _response, next) => {
    if (this.settings.down) {
      request.socket.destroy();
      return;
    }
    setTimeout(next, this.settings.latencyMs);
  };
}

/** Reads and sets the faults over HTTP; a set of faults replaces the last. */
export function faultRoutes(faults: Faults): Router {
  const router = Router();
  router.use(express.json());
  router.get("/", (_request, response) => {
    response.json(faults.settings);
  });
  router.put("/", (request, response) => {
    faults.set(request.body as Partial<FaultSettings>);
    response.json(faults.settings);
  });
  return router;
}
