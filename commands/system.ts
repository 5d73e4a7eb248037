import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { findPostgres } from "./postgres.ts";
import { say, Trouble } from "./trouble.ts";

/** The folder of PostgreSQL's programs, installed from Debian when we are root. Throws Trouble. */
export function requirePostgres(): string {
  return findPostgres() ?? installed("postgresql", "PostgreSQL", findPostgres);
}

const CHROMIUM = "/usr/bin/chromium";

/** Debian's Chromium, for the browser tests. Throws Trouble. */
export function requireChromium(): string {
  const find = () => (existsSync(CHROMIUM) ? CHROMIUM : null);
  return find() ?? installed("chromium", "Chromium", find);
}

function installed(pack: string, name: string, find: () => string | null): string {
  if (process.getuid?.() !== 0)
    throw new Trouble(`${name} is missing. Install it once: sudo apt-get install ${pack}`);
  say(`installing ${name} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  const apt = (...args: string[]) =>
    spawnSync("apt-get", ["-qq", ...args], { env, stdio: ["ignore", "ignore", "inherit"] });
  const update = apt("update");
  if (update.error)
    throw new Trouble(
      `${name} is missing and there is no apt-get here. Install ${name}, then run this again.`,
    );
  apt("install", "-y", "--no-install-recommends", pack);
  const found = find();
  if (!found) throw new Trouble(`${name} could not be installed; apt-get's own message is above.`);
  return found;
}
