import express, { type Request, type RequestHandler, type Response, Router } from "express";
import { faultPage } from "./fault-page.ts";

/** What can be made to go wrong with a platform. */
export interface FaultSettings {
  /** Every call waits this long, in milliseconds. */
  latencyMs: number;
  /** Reading back waits this long in addition, in milliseconds. */
  holdReadsMs: number;
  /** A change shows on the pages only after this long, in milliseconds. */
  showAfterMs: number;
  /** More calls than this in a second are turned away; 0 lets all pass. */
  throttlePerSecond: number;
  /** The line drops without an answer. */
  down: boolean;
  /** Every account and password is refused. */
  rejectCredentials: boolean;
  /** Every token counts as run out the moment after it was given. */
  expireTokens: boolean;
  /** Share of changes that are refused, 0 to 1. */
  refuseShare: number;
  /** Share of changes that are made, but whose answer is lost, 0 to 1. */
  loseShare: number;
  /** Only a part of each upload is stored. */
  partial: boolean;
  /** An upload is stored with one value wrong. */
  garble: boolean;
  /** Answers are no answer. */
  nonsense: boolean;
}

export const NO_FAULTS: FaultSettings = {
  latencyMs: 0,
  holdReadsMs: 0,
  showAfterMs: 0,
  throttlePerSecond: 0,
  down: false,
  rejectCredentials: false,
  expireTokens: false,
  refuseShare: 0,
  loseShare: 0,
  partial: false,
  garble: false,
  nonsense: false,
};

/** One platform's faults, as they are switched on now. */
export class Faults {
  settings: FaultSettings = { ...NO_FAULTS };
  /** How many calls the platform has answered, or turned away, since it started. */
  calls = 0;
  #allowance = 0;
  #filledAt = Date.now();
  #seed = 1;

  set(change: Partial<FaultSettings>): void {
    this.settings = { ...NO_FAULTS, ...change };
    this.#allowance = this.settings.throttlePerSecond;
    this.#seed = 1;
  }

  /** Applies every fault that concerns whole calls to what stands behind it. */
  readonly apply: RequestHandler = (request, response, next) => {
    this.calls++;
    const { down, latencyMs, nonsense, refuseShare, loseShare } = this.settings;
    if (down) {
      request.socket.destroy();
      return;
    }
    if (!this.#mayPass()) {
      response.set("retry-after", "1").status(429).json({ refused: "too many calls" });
      return;
    }
    const isChange = request.method === "PUT" || request.method === "DELETE";
    setTimeout(() => {
      if (nonsense) response.type("html").send("<p>The harbour office is closed.</p>");
      else if (isChange && this.#roll() < refuseShare)
        response.status(422).json({ refused: "the platform is set to refuse" });
      else {
        if (isChange && this.#roll() < loseShare) loseAnswer(request, response);
        next();
      }
    }, latencyMs);
  };

  /** Whether the allowance of calls, which fills up evenly, has one left. */
  #mayPass(): boolean {
    const { throttlePerSecond } = this.settings;
    if (throttlePerSecond === 0) return true;
    const now = Date.now();
    const filled = ((now - this.#filledAt) / 1000) * throttlePerSecond;
    this.#filledAt = now;
    this.#allowance = Math.min(throttlePerSecond, this.#allowance + filled);
    if (this.#allowance < 1) return false;
    this.#allowance--;
    return true;
  }

  /** A number from 0 to 1 that comes out the same in every run: mulberry32, common practice, no source. */
  #roll(): number {
    this.#seed = (this.#seed + 0x6d2b79f5) | 0;
    let t = Math.imul(this.#seed ^ (this.#seed >>> 15), 1 | this.#seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
}

/** The change is made; the line drops before the answer is out. */
function loseAnswer(request: Request, response: Response): void {
  response.end = () => {
    request.socket.destroy();
    return response;
  };
}

/** Changes something at a place behind everybody's back; false where there is no such place. */
export type Tamper = (key: string) => boolean;

/** Reads and sets the faults over HTTP; a set of faults replaces the last. A page does the same by hand. */
export function faultRoutes(platform: string, faults: Faults, tamper: Tamper): Router {
  const router = Router();
  router.use(express.json(), express.urlencoded({ extended: false }));
  router.get("/", (request, response) => {
    if (request.accepts(["json", "html"]) === "json")
      return void response.json({ ...faults.settings, calls: faults.calls });
    response.type("html").send(faultPage(platform, faults.settings, request.query.done as string));
  });
  router.put("/", (request, response) => {
    faults.set(request.body as Partial<FaultSettings>);
    response.json(faults.settings);
  });
  router.post("/", (request, response) => {
    faults.set(fromForm(request.body as Record<string, string>));
    response.redirect(303, `${request.baseUrl}?done=saved`);
  });
  router.post("/tamper", (request, response) => {
    const { key = "" } = (request.body ?? {}) as { key?: string };
    const done = tamper(key);
    if (request.is("json")) return void response.status(done ? 200 : 404).json({ changed: done });
    response.redirect(303, `${request.baseUrl}?done=${done ? "changed" : "no-such-place"}`);
  });
  return router;
}

function fromForm(form: Record<string, string>): Partial<FaultSettings> {
  const entries = Object.entries(NO_FAULTS).map(([name, none]) => [
    name,
    typeof none === "boolean" ? form[name] === "on" : Number(form[name]) || 0,
  ]);
  return Object.fromEntries(entries) as Partial<FaultSettings>;
}
