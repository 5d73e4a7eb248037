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

/** One form of a stylesheet with its headers, made once. */
interface Form {
  etag: string;
  bytes: Buffer;
  whole: string[];
  unchanged: string[];
}

interface Forms {
  sha256: string;
  sheet: Sheet;
  brotli: Form;
  gzip: Form;
  plain: Form;
}

interface Kept {
  forms: Forms | null;
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
  if (!url.startsWith("/t/") && !url.startsWith("/r/")) return false;
  if (request.method !== "GET" && request.method !== "HEAD") {
    response.writeHead(405, { allow: "GET, HEAD" }).end();
    return true;
  }
  const known = kept.get(url);
  if (known && known.until > Date.now()) {
    answer(request, response, known.forms);
    return true;
  }
  const hosted = HOSTED.exec(url)?.[1];
  const sealed = SEALED.exec(url)?.[1];
  if (!hosted && !sealed) return false;
  look(url, hosted ?? null, sealed ?? null)
    .then((forms) => answer(request, response, forms))
    .catch((error: unknown) => {
      log.error({ err: error }, "hosted stylesheet");
      response.writeHead(503, ["retry-after", "5", ...SHARED]).end();
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
): Promise<Forms | null> {
  const before = kept.get(url)?.forms ?? null;
  let sheet: Sheet | null;
  try {
    const found = hosted ? await findHosted(hosted) : null;
    if (found) urls.set(found.place, url);
    sheet = hosted ? found : await findSealed(sealed as string);
    if (hosted && sheet && sheet.sha256 !== before?.sha256) keepCopy(hosted, sheet);
  } catch (error) {
    const copy = before?.sheet ?? (hosted ? readCopy(hosted) : null);
    if (!copy) throw error;
    log.warn({ err: error }, "hosted stylesheet served from the last good copy");
    sheet = copy;
  }
  if (kept.size >= MOST_KEPT) {
    kept.clear();
    urls.clear();
  }
  const forms =
    sheet && (before?.sha256 === sheet.sha256 ? before : formsOf(sheet, sealed !== null));
  const life = sealed && sheet ? YEAR * 1000 : FRESH_MS;
  kept.set(url, { forms, until: Date.now() + life });
  return forms;
}

/** Any page may link and read it: it holds colours and nothing else. */
const SHARED = ["access-control-allow-origin", "*", "cross-origin-resource-policy", "cross-origin"];

/** ETags are strong, one for each form: RFC 9110, section 8.8.3. A 304 repeats what section 15.4.5 asks for. */
function formsOf(sheet: Sheet, isSealed: boolean): Forms {
  const freshness = isSealed ? `public, max-age=${YEAR}, immutable` : follows();
  const form = (bytes: Buffer, suffix: string, encoding: string | null): Form => {
    const etag = `"${sheet.sha256.slice(0, 32)}${suffix}"`;
    const unchanged = [
      "etag",
      etag,
      "cache-control",
      freshness,
      "vary",
      "accept-encoding",
      ...SHARED.slice(0, 2),
    ];
    const whole = [
      ...unchanged,
      ...SHARED.slice(2),
      "content-type",
      "text/css; charset=utf-8",
      "content-length",
      String(bytes.length),
      "x-content-type-options",
      "nosniff",
      ...(encoding ? ["content-encoding", encoding] : []),
    ];
    return { etag, bytes, whole, unchanged };
  };
  return {
    sha256: sheet.sha256,
    sheet,
    brotli: form(sheet.brotli, "-br", "br"),
    gzip: form(sheet.gzip, "-gz", "gzip"),
    plain: form(sheet.body, "", null),
  };
}

/** Browsers ask again soon, a network of caches a little later; either may go on while we are away. */
const follows = (): string => {
  const seconds = config().LIVERY_STYLESHEET_SECONDS;
  return `public, max-age=${seconds}, s-maxage=${seconds * 6}, stale-while-revalidate=60, stale-if-error=86400`;
};

function answer(request: IncomingMessage, response: ServerResponse, forms: Forms | null): void {
  if (!forms) {
    response.writeHead(404, ["cache-control", "no-store", ...SHARED]).end();
    return;
  }
  const accepted = request.headers["accept-encoding"];
  const form = typeof accepted === "string" ? formFor(forms, accepted) : forms.plain;
  // Connections of HTTP/1.1 stay open without saying so (RFC 9112, section 9.3).
  if (request.httpVersionMinor > 0) response.removeHeader("connection");
  if (matches(request.headers["if-none-match"], form.etag)) {
    response.writeHead(304, form.unchanged).end();
    return;
  }
  response.writeHead(200, form.whole).end(request.method === "HEAD" ? undefined : form.bytes);
}

function formFor(forms: Forms, accepted: string): Form {
  if (accepts(accepted, BROTLI)) return forms.brotli;
  return accepts(accepted, GZIP) ? forms.gzip : forms.plain;
}

const BROTLI = /\bbr\b(?!\s*;\s*q=0(\.0*)?\b)/;
const GZIP = /\bgzip\b(?!\s*;\s*q=0(\.0*)?\b)/;
const accepts = (header: string, form: RegExp): boolean => form.test(header);

/** If-None-Match compares weakly: RFC 9110, section 13.1.2. */
function matches(header: string | undefined, etag: string): boolean {
  if (header === undefined) return false;
  if (header === etag) return true;
  return header
    .split(",")
    .map((value) => value.trim().replace(/^W\//, ""))
    .some((value) => value === "*" || value === etag);
}
