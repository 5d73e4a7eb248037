import { type ChildProcess, fork } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:http";
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

async function start(
  program: "standins" | "worker" | "web",
  env: NodeJS.ProcessEnv,
): Promise<Running> {
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

export const startWorker = (env: NodeJS.ProcessEnv = {}): Promise<Running> =>
  start("worker", { LIVERY_RETRY_MS: "50", ...env });

/** The web server, for what is reached without a session. */
export const startWeb = (env: NodeJS.ProcessEnv = {}): Promise<Running> => start("web", env);
export const WEB = process.env.LIVERY_ORIGIN as string;

/** A place of the demo by its name in addresses. */
export async function placeOf(slug: string): Promise<PlaceId> {
  return (await Place.findOne({ where: { slug } }))?.id as PlaceId;
}

/** Takes the database away in the middle of everything, without a goodbye. */
export async function stopDatabase(): Promise<void> {
  const home = process.env.LIVERY_TEST_HOME as string;
  const pid = Number(
    readFileSync(join(home, "postgres", "data", "postmaster.pid"), "utf8").split("\n")[0],
  );
  process.kill(pid, "SIGQUIT");
  await until(async () => !existsSync(`/proc/${pid}`));
}

/** Starts it again where it was. */
export async function startDatabase(): Promise<void> {
  const home = process.env.LIVERY_TEST_HOME as string;
  const { port } = new URL(process.env.DATABASE_URL as string);
  const secrets = JSON.parse(readFileSync(join(home, "secrets.json"), "utf8")) as {
    databasePassword: string;
  };
  const keeper = fork(
    join(ROOT, "build/commands/keeper.mjs"),
    [home, process.env.LIVERY_TEST_POSTGRES as string, port, "scratch"],
    {
      env: {
        ...process.env,
        NODE_OPTIONS: "",
        LIVERY_DATABASE_PASSWORD: secrets.databasePassword,
      },
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    },
  );
  await new Promise<void>((resolve) => keeper.once("message", () => resolve()));
  keeper.unref();
  keeper.channel?.unref();
}

/** Somebody changes a place behind Livery's back. */
export async function tamper(platform: string, key: string): Promise<void> {
  const response = await fetch(`${STANDINS}/${platform}/faults/tamper`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ key }),
  });
  if (!response.ok) throw new Error(`tamper: ${response.status}`);
}

/** Switches a platform's faults on; all that are not named go off. */
export async function faults(
  settings: Record<string, unknown>,
  platform = "commons",
): Promise<void> {
  const response = await fetch(`${STANDINS}/${platform}/faults`, {
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

/** A port that was free a moment ago. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

/** Waits until a look gives something, at most half a minute. */
export async function until<T>(look: () => Promise<T | null | undefined | false>): Promise<T> {
  for (let i = 0; i < 600; i++) {
    const seen = await look();
    if (seen) return seen;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("it did not happen within half a minute");
}
