import { Client } from "pg";
import { config } from "../config.ts";

/** How often workers look for jobs of workers that are gone, in milliseconds. */
const LOOK_EVERY_MS = 1000;
/** A lock younger than this is left alone: its worker may not have said yet that it lives. */
const GRACE = "1 second";
const NAMESPACE = 4600;

/**
 * Frees the jobs of workers that were killed. Each pool of workers holds a session-level
 * advisory lock on its name; PostgreSQL lets go of it the moment the process is gone, and then any other worker may
 * take the lock, which proves that the holder of the job is dead. Without this a killed worker's job
 * would wait for the queue's own time-out of four hours.
 */
export class Liveness {
  #client: Client | undefined;
  readonly #names = new Set<string>();
  #timer: NodeJS.Timeout | undefined;

  constructor(private readonly unlock: (poolIds: string[]) => Promise<void>) {}

  /** Begins to watch; to be awaited before any pool takes a job. */
  async start(): Promise<void> {
    this.#timer = setInterval(() => void this.#look(), LOOK_EVERY_MS);
    await this.#look();
  }

  async stop(): Promise<void> {
    clearInterval(this.#timer);
    await this.#client?.end().catch(() => undefined);
  }

  /** Says that a pool of this process lives. */
  add(poolId: string): void {
    this.#names.add(poolId);
    const client = this.#client;
    if (client) void this.#hold(client, poolId).catch(() => this.#drop(client));
  }

  remove(poolId: string): void {
    this.#names.delete(poolId);
  }

  async #look(): Promise<void> {
    const client = this.#client ?? (await this.#connect());
    if (!client) return;
    try {
      const { rows } = await client.query<{ locked_by: string }>(
        `SELECT DISTINCT locked_by FROM graphile_worker.jobs
         WHERE locked_by IS NOT NULL AND locked_at < now() - interval '${GRACE}'`,
      );
      const dead: string[] = [];
      for (const { locked_by } of rows)
        if (!this.#names.has(locked_by) && (await isFree(client, locked_by))) dead.push(locked_by);
      if (dead.length > 0) await this.unlock(dead);
    } catch {
      this.#drop(client);
    }
  }

  async #connect(): Promise<Client | undefined> {
    const client = new Client({ connectionString: config().DATABASE_URL });
    client.on("error", () => this.#drop(client));
    client.on("end", () => this.#drop(client));
    try {
      await client.connect();
      for (const name of this.#names) await this.#hold(client, name);
      this.#client = client;
      return client;
    } catch {
      await client.end().catch(() => undefined);
      return undefined;
    }
  }

  async #hold(client: Client, name: string): Promise<void> {
    await client.query("SELECT pg_advisory_lock($1, hashtext($2))", [NAMESPACE, name]);
  }

  /** Forgets a broken connection; the next look makes a new one and holds every name again. */
  #drop(client: Client): void {
    if (this.#client === client) this.#client = undefined;
  }
}

/** Whether nobody holds a worker's lock. */
async function isFree(client: Client, name: string): Promise<boolean> {
  const { rows } = await client.query<{ free: boolean }>(
    "SELECT pg_try_advisory_xact_lock($1, hashtext($2)) AS free",
    [NAMESPACE, name],
  );
  return rows[0]?.free ?? false;
}
