import type { IncomingMessage, ServerResponse } from "node:http";
import { config } from "../config.ts";
import { onChange } from "../live/changes.ts";
import { log } from "../log.ts";
import { keepCopy, readCopy } from "./copies.ts";
import { findHosted, findSealed, type Sheet } from "./find.ts";

/** How long a copy counts without asking the database, in milliseconds. */
const FRESH_MS = 1000;
/** A year, the most that RFC 9111 speaks of, in seconds. */
const YEAR = 31_536_000;

interface Kept {
  sheet: Sheet | null;
  until: number;
}

const kept = new Map<string, Kept>();
/** Places that nobody gave a theme are kept too; a flood of made-up names must not fill the memory. */
const MOST_KEPT = 20_000;

const HOSTED = /^\/t\/([a-z0-9-]{1,80})\/theme\.css(?:\?.*)?$/;
const SEALED = /^\/r\/([0-9a-f]{64})\/theme\.css(?:\?.*)?$/;

/** Answers requests for hosted stylesheets, without a session; false for all others. */
export function serveStylesheet(request: IncomingMessage, response: ServerResponse): boolean {
  const url = request.url ?? "";
  const hosted = url.startsWith("/t/") && HOSTED.exec(url)?.[1];
  const sealed = url.startsWith("/r/") && SEALED.exec(url)?.[1];
  if (!hosted && !sealed) return false;
  if (request.method !== "GET" && request.method !== "HEAD") {
    response.writeHead(405, { allow: "GET, HEAD" }).end();
    return true;
  }
  const known = kept.get(url);
  if (known && known.until > Date.now()) answer(request, response, known.sheet, Boolean(sealed));
  else
    look(url, hosted || null, sealed || null)
      .then((sheet) => answer(request, response, sheet, Boolean(sealed)))
      .catch((error: unknown) => {
        log.error({ err: error }, "hosted stylesheet");
        response.writeHead(503, { "retry-after": "5", ...SHARED }).end();
      });
  return true;
}

/** Lets a change at a place show at once in this process; the returned function ends that. */
export const followChanges = (): (() => void) =>
  onChange((place) => {
    const url = urls.get(place);
    const known = url && kept.get(url);
    if (known) known.until = 0;
  });

/** Under which address a place's stylesheet is kept. */
const urls = new Map<string, string>();

/** What the database says, else the last good copy that this process or this machine has. */
async function look(
  url: string,
  hosted: string | null,
  sealed: string | null,
): Promise<Sheet | null> {
  const before = kept.get(url)?.sheet;
  let sheet: Sheet | null;
  try {
    const found = hosted ? await findHosted(hosted) : null;
    if (found) urls.set(found.place, url);
    sheet = hosted ? found : await findSealed(sealed as string);
    if (hosted && sheet && sheet.sha256 !== before?.sha256) keepCopy(hosted, sheet);
  } catch (error) {
    const copy = before ?? (hosted ? readCopy(hosted) : null);
    if (!copy) throw error;
    log.warn({ err: error }, "hosted stylesheet served from the last good copy");
    sheet = copy;
  }
  if (kept.size >= MOST_KEPT) {
    kept.clear();
    urls.clear();
  }
  const life = sealed && sheet ? YEAR * 1000 : FRESH_MS;
  kept.set(url, { sheet, until: Date.now() + life });
  return sheet;
}

/** Any page may link and read it: it holds colours and nothing else. */
const SHARED = {
  "access-control-allow-origin": "*",
  "cross-origin-resource-policy": "cross-origin",
  "timing-allow-origin": "*",
  "x-content-type-options": "nosniff",
} as const;

function answer(
  request: IncomingMessage,
  response: ServerResponse,
  sheet: Sheet | null,
  sealed: boolean,
): void {
  if (!sheet) {
    response.writeHead(404, { "cache-control": "no-store", ...SHARED }).end();
    return;
  }
  const { form, etag, bytes } = formFor(sheet, String(request.headers["accept-encoding"] ?? ""));
  const headers = {
    ...SHARED,
    etag,
    vary: "accept-encoding",
    "cache-control": sealed ? `public, max-age=${YEAR}, immutable` : freshness(),
  };
  if (matches(request.headers["if-none-match"], etag)) {
    response.writeHead(304, headers).end();
    return;
  }
  response.writeHead(200, {
    ...headers,
    "content-type": "text/css; charset=utf-8",
    "content-length": bytes.length,
    ...(form ? { "content-encoding": form } : {}),
  });
  response.end(request.method === "HEAD" ? undefined : bytes);
}

/** Browsers ask again soon, a network of caches a little later; either may go on while we are away. */
const freshness = (): string => {
  const seconds = config().LIVERY_STYLESHEET_SECONDS;
  return `public, max-age=${seconds}, s-maxage=${seconds * 6}, stale-while-revalidate=60, stale-if-error=86400`;
};

interface Form {
  form: "br" | "gzip" | null;
  /** Strong, one for each form: RFC 9110, section 8.8.3. */
  etag: string;
  bytes: Buffer;
}

function formFor(sheet: Sheet, accepted: string): Form {
  const short = sheet.sha256.slice(0, 32);
  if (/\bbr\b(?!\s*;\s*q=0(\.0*)?\b)/.test(accepted))
    return { form: "br", etag: `"${short}-br"`, bytes: sheet.brotli };
  if (/\bgzip\b(?!\s*;\s*q=0(\.0*)?\b)/.test(accepted))
    return { form: "gzip", etag: `"${short}-gz"`, bytes: sheet.gzip };
  return { form: null, etag: `"${short}"`, bytes: sheet.body };
}

/** If-None-Match compares weakly: RFC 9110, section 13.1.2. */
function matches(header: string | undefined, etag: string): boolean {
  if (header === undefined) return false;
  if (header === etag) return true;
  return header
    .split(",")
    .map((value) => value.trim().replace(/^W\//, ""))
    .some((value) => value === "*" || value === etag);
}
