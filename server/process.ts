import { log } from "./log.ts";

/**
 * Runs a program until it is told to stop: by a signal, or because the process that started it is
 * gone (the IPC channel closes when a parent dies, however it dies).
 */
export function runUntilStopped(start: () => Promise<() => Promise<void>>): void {
  let stop: (() => Promise<void>) | undefined;
  let stopping = false;
  const end = async () => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(1), 8000).unref();
    await stop?.();
    process.exit(0);
  };
  process.on("SIGTERM", () => void end());
  process.on("SIGINT", () => void end());
  if (process.send) process.on("disconnect", () => void end());
  start().then(
    (running) => {
      stop = running;
      process.send?.({ ready: true });
    },
    (error: unknown) => {
      log.fatal(error instanceof Error ? { err: error } : {}, "could not start");
      process.send?.({ failed: error instanceof Error ? error.message : String(error) });
      process.exit(1);
    },
  );
}
