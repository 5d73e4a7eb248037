import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";

/** How long changes are gathered before they are written, in milliseconds; what ends in time writes at once. */
const WRITE_AFTER_MS = 1000;

/** A platform's own state, kept in a file of its own that is replaced whole. */
export interface Store<State> {
  state: State;
  save(): void;
}

const unwritten = new Set<() => void>();

/** Opens a state file, or starts one. */
export function openStore<State>(file: string, first: () => State): Store<State> {
  const state = existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as State) : first();
  const write = () => {
    unwritten.delete(write);
    writeFileSync(`${file}.new`, JSON.stringify(state));
    renameSync(`${file}.new`, file);
  };
  write();
  return {
    state,
    save() {
      if (unwritten.has(write)) return;
      unwritten.add(write);
      setTimeout(() => unwritten.has(write) && write(), WRITE_AFTER_MS).unref();
    },
  };
}

/** Writes what is still waiting to be written: called before the program ends. */
export function writeAll(): void {
  for (const write of [...unwritten]) write();
}

/** Whether a key is of the fleet that is made for load: such a place is there once it is asked for. */
export const isFleet = (key: string): boolean => /^fleet-\d{1,6}$/.test(key);
