import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { Trouble } from "./trouble.ts";

export interface Ports {
  web: number;
  standins: number;
  postgres: number;
}

const DEFAULTS: Ports = { web: 4600, standins: 4610, postgres: 4620 };

export interface UpSettings {
  ports: Ports;
  /** How many places for load the demo's estate is to have beside its own. */
  fleet: number;
}

/** Reads what `up` is told on the command line. Throws Trouble on a wrong option. */
export function readUpSettings(rest: string[]): UpSettings {
  try {
    const { values } = parseArgs({
      args: rest,
      options: {
        port: { type: "string" },
        "standins-port": { type: "string" },
        "postgres-port": { type: "string" },
        fleet: { type: "string" },
      },
    });
    return {
      ports: {
        web: portNumber(values.port, DEFAULTS.web),
        standins: portNumber(values["standins-port"], DEFAULTS.standins),
        postgres: portNumber(values["postgres-port"], DEFAULTS.postgres),
      },
      fleet: fleetSize(values.fleet),
    };
  } catch (error) {
    throw error instanceof Trouble
      ? error
      : new Trouble(`${(error as Error).message} See ./livery help.`);
  }
}

const MOST_PLACES = 20_000;

function fleetSize(text: string | undefined): number {
  if (text === undefined) return 0;
  const size = Number(text);
  if (!Number.isInteger(size) || size < 0 || size > MOST_PLACES)
    throw new Trouble(`--fleet takes a number of places from 0 to ${MOST_PLACES}, not "${text}".`);
  return size;
}

function portNumber(text: string | undefined, fallback: number): number {
  if (text === undefined) return fallback;
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Trouble(`"${text}" is no port. Give a number from 1 to 65535.`);
  return port;
}

const OPTION: Record<keyof Ports, string> = {
  web: "--port",
  standins: "--standins-port",
  postgres: "--postgres-port",
};

/** Throws Trouble for the first port that another program holds. */
export async function requireFreePorts(ports: Ports): Promise<void> {
  for (const name of Object.keys(ports) as (keyof Ports)[])
    if (!(await isFree(ports[name])))
      throw new Trouble(
        `port ${ports[name]} is taken. Stop the program that holds it, or choose another with ${OPTION[name]} N.`,
      );
}

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(true)));
  });
}

/** Three ports that were free a moment ago. */
export async function freePorts(): Promise<Ports> {
  const probes = await Promise.all([probe(), probe(), probe()]);
  const [web, standins, postgres] = probes.map((p) => p.port) as [number, number, number];
  await Promise.all(probes.map((p) => p.close()));
  return { web, standins, postgres };
}

function probe(): Promise<{ port: number; close: () => Promise<void> }> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () =>
      resolve({
        port: (server.address() as { port: number }).port,
        close: () => new Promise((done) => server.close(() => done())),
      }),
    );
  });
}

export interface Secrets {
  databasePassword: string;
  secretKey: string;
}

/** Where `up` keeps its data: a folder of the project, or the one that LIVERY_HOME names. */
export const homeOf = (root: string): string =>
  resolve(process.env.LIVERY_HOME ?? join(root, ".livery"));

/** The folder for data, made on first use. Throws Trouble where it can't be written. */
export function openHome(home: string): Secrets {
  const file = join(home, "secrets.json");
  try {
    mkdirSync(home, { recursive: true, mode: 0o711 });
    if (!existsSync(file)) writeFileSync(file, JSON.stringify(freshSecrets()), { mode: 0o600 });
    return JSON.parse(readFileSync(file, "utf8")) as Secrets;
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "EACCES" || code === "EPERM")
      throw new Trouble(
        `${home} belongs to another user. Run this as that user, or remove the folder.`,
      );
    throw new Trouble(
      `${file} can't be used (${(error as Error).message}). ./livery reset starts afresh.`,
    );
  }
}

const freshSecrets = (): Secrets => ({
  databasePassword: randomBytes(24).toString("base64url"),
  secretKey: randomBytes(32).toString("base64"),
});
