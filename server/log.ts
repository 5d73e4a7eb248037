import pino from "pino";

/** The process log: one JSON line an event on standard error. Secrets are never passed to it. */
export const log = pino(
  {
    base: null,
    level: process.env.LIVERY_LOG_LEVEL ?? "warn",
    redact: ["password", "secret", "token", "*.password", "*.secret", "*.token"],
  },
  pino.destination(2),
);
