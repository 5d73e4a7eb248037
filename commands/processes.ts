import { join } from "node:path";
import { programFile } from "./build.ts";
import { Child, runOnce } from "./children.ts";
import { databaseUrl } from "./postgres.ts";
import { openHome, type Ports, type Secrets } from "./settings.ts";
import { requirePostgres } from "./system.ts";

/** Everything that `up` runs. */
export interface Running {
  address: string;
  standins: string;
  database: string;
  secrets: Secrets;
  worker: Child;
  /** Stops all of it, the database last. */
  stop(): Promise<void>;
}

export interface UpOptions {
  root: string;
  home: string;
  ports: Ports;
  /** Whether data must outlive a power cut; tests need not wait for the disk. */
  durable: boolean;
  env?: NodeJS.ProcessEnv;
  onGivenUp(reason: string): void;
}

/** Starts only the database of a home folder. */
export async function startDatabase(
  options: UpOptions,
): Promise<{ child: Child; secrets: Secrets }> {
  const { root, home, ports, durable, onGivenUp } = options;
  const secrets = openHome(home);
  const child = new Child(
    {
      name: "the database",
      file: join(root, "build/commands/keeper.mjs"),
      args: [home, requirePostgres(), String(ports.postgres), durable ? "durable" : "scratch"],
      env: { ...process.env, LIVERY_DATABASE_PASSWORD: secrets.databasePassword },
    },
    onGivenUp,
  );
  await child.start();
  return { child, secrets };
}

/** Starts database, stand-ins, worker and web server, and waits until all of them are ready. */
export async function startAll(options: UpOptions): Promise<Running> {
  const { root, home, ports } = options;
  const { child: keeper, secrets } = await startDatabase(options);
  const started: Child[] = [keeper];
  const stop = async () => {
    await Promise.all(started.slice(1).map((child) => child.stop()));
    await keeper.stop();
  };
  const standins = `http://127.0.0.1:${ports.standins}`;
  const address = process.env.LIVERY_ORIGIN ?? `http://127.0.0.1:${ports.web}`;
  const database = databaseUrl(ports.postgres, secrets.databasePassword);
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    NODE_ENV: "production",
    LIVERY_SECRET_KEY: process.env.LIVERY_SECRET_KEY ?? secrets.secretKey,
    DATABASE_URL: database,
    LIVERY_ORIGIN: address,
    LIVERY_STANDINS_ADDRESS: standins,
    LIVERY_STYLESHEET_COPIES: process.env.LIVERY_STYLESHEET_COPIES ?? join(home, "stylesheets"),
    STANDINS_STYLESHEETS: address,
    PORT: String(ports.web),
    STANDINS_PORT: String(ports.standins),
    STANDINS_STATE: join(home, "standins"),
    ...options.env,
  };
  const child = (name: string, program: "worker" | "web" | "standins") => {
    const made = new Child({ name, file: programFile(root, program), env }, options.onGivenUp);
    started.push(made);
    return made;
  };
  try {
    await runOnce({ name: "the preparation", file: programFile(root, "prepare"), env });
    const worker = child("the worker", "worker");
    await Promise.all([
      worker.start(),
      child("the web server", "web").start(),
      child("the stand-ins", "standins").start(),
    ]);
    return { address, standins, database, secrets, worker, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}
