import { type ChildProcess, fork } from "node:child_process";
import { say, Trouble } from "./trouble.ts";

const MOST_RESTARTS = 5;
const RESTART_WINDOW_MS = 30_000;
const RESTART_PAUSE_MS = 500;

export interface ChildSpec {
  name: string;
  file: string;
  args?: string[];
  env: NodeJS.ProcessEnv;
}

interface Message {
  ready?: true;
  failed?: string;
}

/**
 * A program that runs beside us. It sits in a session of its own, so that Ctrl+C reaches only us,
 * and leaves by itself when its channel to us closes. One that dies is started again.
 */
export class Child {
  #process: ChildProcess | undefined;
  #stopping = false;
  #deaths: number[] = [];

  constructor(
    private readonly spec: ChildSpec,
    private readonly onGivenUp: (reason: string) => void,
  ) {}

  get pid(): number | undefined {
    return this.#process?.pid;
  }

  /** Starts the program and waits until it says that it is ready. Throws Trouble in its own words. */
  async start(): Promise<void> {
    const child = fork(this.spec.file, this.spec.args ?? [], {
      env: this.spec.env,
      detached: true,
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    });
    this.#process = child;
    await new Promise<void>((resolve, reject) => {
      child.on("message", (message: Message) => {
        if (message.ready) resolve();
        if (message.failed) reject(new Trouble(message.failed));
      });
      child.once("exit", (code) =>
        reject(
          new Trouble(
            `${this.spec.name} ended at once (status ${code}); its own message is above.`,
          ),
        ),
      );
    });
    child.once("exit", () => this.#died());
  }

  #died(): void {
    if (this.#stopping) return;
    const now = Date.now();
    this.#deaths = [...this.#deaths.filter((t) => now - t < RESTART_WINDOW_MS), now];
    if (this.#deaths.length > MOST_RESTARTS) {
      this.onGivenUp(`${this.spec.name} keeps ending`);
      return;
    }
    say(`${this.spec.name} ended; starting it again`);
    setTimeout(() => {
      if (!this.#stopping) this.start().catch(() => this.#died());
    }, RESTART_PAUSE_MS);
  }

  /** Asks the program to end and waits until it has. */
  async stop(): Promise<void> {
    this.#stopping = true;
    const child = this.#process;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    await new Promise<void>((resolve) => {
      child.once("exit", () => resolve());
      child.kill("SIGTERM");
      setTimeout(() => child.kill("SIGKILL"), 10_000).unref();
    });
  }
}

/** Runs a program to its end, which it must say went well. Throws Trouble in its own words. */
export async function runOnce(spec: ChildSpec): Promise<void> {
  const child = new Child(spec, () => undefined);
  await child.start();
  await child.stop();
}
