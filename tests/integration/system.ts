import { type ChildProcess, fork } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Hex } from "#core/colour/srgb.ts";
import { fromPrimary } from "#core/theme/document.ts";
import { closeDatabase, database } from "#server/db/connection.ts";
import { migrate } from "#server/db/migrate.ts";
import { Connection, MODELS, Person, Place, Theme } from "#server/db/models/index.ts";
import { seedDemo } from "#server/demo/seed.ts";
import type { PersonId, PlaceId, ReleaseId } from "#server/ids.ts";
import { makeRelease } from "#server/releases/releases.ts";
import { createTheme } from "#server/themes/themes.ts";

const ROOT = join(import.meta.dirname, "../..");
const PORT = process.env.STANDINS_PORT as string;
export const STANDINS = `http://127.0.0.1:${PORT}`;
export const COMMONS = `${STANDINS}/commons`;

/** A migrated database that holds the demo organisation and nothing else. */
export async function freshDemo(): Promise<{ ines: PersonId; tomas: PersonId; quayside: PlaceId }> {
  await database().query("DROP SCHEMA IF EXISTS graphile_worker CASCADE");
  await database().query("DROP SCHEMA public CASCADE; CREATE SCHEMA public");
  await migrate();
  await seedDemo({ standins: STANDINS, live: false });
  const person = async (email: string) =>
    (await Person.findOne({ where: { email } }))?.id as PersonId;
  const place = await Place.findOne({ where: { name: "Quayside" } });
  return {
    ines: await person("ines@orrinsound.example"),
    tomas: await person("tomas@orrinsound.example"),
    quayside: place?.id as PlaceId,
  };
}

export { Connection, closeDatabase, MODELS, Theme };

let made = 0;

/** A released theme of one colour. */
export async function release(
  person: PersonId,
  primary: Hex,
  name = `Release ${++made}`,
): Promise<ReleaseId> {
  const theme = await createTheme(`Theme for ${name}`.slice(0, 80), fromPrimary(primary), person);
  if (!theme.ok) throw new Error(theme.code);
  const result = await makeRelease(theme.id, 1, { name, note: "for a test" }, person);
  if (!result.ok) throw new Error(result.code);
  return result.id;
}

/** A program of the build, running until it is stopped. */
export interface Running {
  process: ChildProcess;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

async function start(program: "standins" | "worker", env: NodeJS.ProcessEnv): Promise<Running> {
  const child = fork(join(ROOT, "build/programs", `${program}.mjs`), {
    env: { ...process.env, NODE_OPTIONS: "", ...env },
    stdio: ["ignore", "ignore", "inherit", "ipc"],
  });
  await new Promise<void>((resolve, reject) => {
    child.once("message", () => resolve());
    child.once("exit", (code) => reject(new Error(`${program} ended with ${code}`)));
  });
  return {
    process: child,
    stop: (signal = "SIGTERM") =>
      new Promise((resolve) => {
        if (child.exitCode !== null || child.signalCode !== null) return resolve();
        child.once("exit", () => resolve());
        child.kill(signal);
      }),
  };
}

/** The stand-ins with a state of their own, gone when they stop. */
export async function startStandins(): Promise<Running> {
  const folder = mkdtempSync(join(tmpdir(), "livery-standins-"));
  const running = await start("standins", { STANDINS_STATE: folder });
  return {
    ...running,
    stop: async () => {
      await running.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export const startWorker = (): Promise<Running> => start("worker", { LIVERY_RETRY_MS: "50" });

/** Switches faults of Commons on; all that are not named go off. */
export async function faults(settings: Record<string, unknown>): Promise<void> {
  const response = await fetch(`${COMMONS}/faults`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(settings),
  });
  if (!response.ok) throw new Error(`faults: ${response.status}`);
}

export interface Held {
  palette: { slots: Record<string, string>; uploads: number } | null;
  chosen: string | null;
}

/** What Commons holds of a palette, asked of Commons itself. */
export async function held(name: string): Promise<Held> {
  const tenant = `${COMMONS}/api/tenants/orrin-sound-ferries`;
  const signIn = await fetch(`${tenant}/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({
      account: "brand.steward@orrinsound.example",
      password: "slack-water-42",
    }),
  });
  const { token } = (await signIn.json()) as { token: string };
  const get = async (path: string) => {
    const response = await fetch(`${tenant}${path}`, {
      headers: { authorization: `Bearer ${token}` },
    });
    return response.ok ? ((await response.json()) as never) : null;
  };
  const palette = await get(`/palettes/${encodeURIComponent(name)}`);
  const site = (await get("/sites/quayside")) as { palette: string | null } | null;
  return { palette, chosen: site?.palette ?? null };
}

/** Waits until a look gives something, at most half a minute. */
export async function until<T>(look: () => Promise<T | null | undefined | false>): Promise<T> {
  for (let i = 0; i < 600; i++) {
    const seen = await look();
    if (seen) return seen;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("it did not happen within half a minute");
}
