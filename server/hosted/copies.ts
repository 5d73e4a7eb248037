import { mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import { config } from "../config.ts";
import { log } from "../log.ts";
import { sha256 } from "../releases/artefact.ts";
import type { Sheet } from "./find.ts";

/** Keeps a place's stylesheet on disk, for a start without a database. */
export function keepCopy(slug: string, { body }: Sheet): void {
  const folder = config().LIVERY_STYLESHEET_COPIES;
  if (!folder) return;
  try {
    mkdirSync(folder, { recursive: true });
    const file = join(folder, `${slug}.css`);
    writeFileSync(`${file}.new`, body);
    renameSync(`${file}.new`, file);
  } catch (error) {
    log.warn({ err: error }, "no copy of a hosted stylesheet could be kept");
  }
}

/** The copy that was kept last; null where there is none. */
export function readCopy(slug: string): Sheet | null {
  const folder = config().LIVERY_STYLESHEET_COPIES;
  if (!folder) return null;
  try {
    const body = readFileSync(join(folder, `${slug}.css`));
    return { sha256: sha256(body), body, gzip: gzipSync(body), brotli: brotliCompressSync(body) };
  } catch {
    return null;
  }
}
