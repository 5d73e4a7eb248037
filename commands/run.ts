import { bench } from "./bench.ts";
import { reset } from "./reset.ts";
import { test } from "./test.ts";
import { say, Trouble } from "./trouble.ts";
import { up } from "./up.ts";

const COMMANDS: Record<string, (root: string, rest: string[]) => Promise<number>> = {
  up,
  test,
  reset,
  bench,
};

/** Runs one command by its name; the process ends with its exit status. */
export async function run(root: string, name: string, rest: string[]): Promise<void> {
  try {
    process.exitCode = await (COMMANDS[name] as (typeof COMMANDS)[string])(root, rest);
  } catch (error) {
    if (!(error instanceof Trouble)) throw error;
    say(error.message);
    process.exitCode = 1;
  }
}
