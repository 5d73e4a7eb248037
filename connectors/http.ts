import { FormData, request } from "undici";
import type { z } from "zod";
import { DeliveryFault, type Link } from "./connector.ts";

/** A call that takes longer than this counts as unreachable, in milliseconds. */
const PATIENCE = 15_000;
/** The pause where a platform asks for one without saying how long, in milliseconds. */
const USUAL_PAUSE = 1000;

export interface CallOptions {
  method?: "GET" | "POST" | "PUT" | "DELETE";
  /** Sent as JSON unless it is text or a form. */
  body?: unknown;
  headers?: Record<string, string>;
}

export interface Answer {
  status: number;
  text: string;
  /** One header by its name in lower case. */
  header(name: string): string | undefined;
  link: Link;
}

/** Until when nothing is asked of an address, since it asked for patience; in ms since 1970. */
const heldUntil = new Map<string, number>();
/** How many calls wait for an address here, so that what they belong to goes on where it was. */
const waiting = new Map<string, number>();
/** More than these don't wait here: they would keep others from platforms that do answer. */
const MOST_WAITING = 3;
/** A longer pause is not waited for here, in milliseconds. */
const LONGEST_WAIT = 5000;
/** How often one call is turned away before it gives up its turn. */
const MOST_TURNED_AWAY = 40;

/**
 * Calls a platform. Throws `unreachable` where no whole answer comes. Where the platform asks for
 * patience, nothing else is asked of that address until the time is up: a few calls wait here and
 * go on, the others throw `throttled`.
 */
export async function call(link: Link, path: string, options: CallOptions = {}): Promise<Answer> {
  for (let times = 0; ; times++) {
    const held = (heldUntil.get(link.address) ?? 0) - Date.now();
    if (held > 0) await waitHere(link.address, held);
    try {
      return await callOnce(link, path, options);
    } catch (error) {
      const isThrottled = error instanceof DeliveryFault && error.fault.code === "throttled";
      if (!isThrottled || times >= MOST_TURNED_AWAY) throw error;
    }
  }
}

async function waitHere(address: string, ms: number): Promise<void> {
  const others = waiting.get(address) ?? 0;
  if (ms > LONGEST_WAIT || others >= MOST_WAITING)
    throw new DeliveryFault({ code: "throttled", retryAfterMs: ms });
  waiting.set(address, others + 1);
  await new Promise((resolve) => setTimeout(resolve, ms));
  waiting.set(address, (waiting.get(address) ?? 1) - 1);
}

async function callOnce(
  link: Link,
  path: string,
  { method = "GET", body, headers = {} }: CallOptions,
): Promise<Answer> {
  const asIs = typeof body === "string" || body instanceof FormData || body === undefined;
  let response: Awaited<ReturnType<typeof request>>;
  let text: string;
  try {
    response = await request(link.address + path, {
      method,
      headers: { ...(asIs ? {} : { "content-type": "application/json" }), ...headers },
      body: asIs ? ((body ?? null) as string | FormData | null) : JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
    });
    text = await response.body.text();
  } catch {
    throw new DeliveryFault({ code: "unreachable", address: link.address });
  }
  const header = (name: string) => {
    const value = response.headers[name];
    return Array.isArray(value) ? value[0] : value;
  };
  const status = response.statusCode;
  // A platform that sends us elsewhere is not the one whose address was given.
  if (status >= 300 && status < 400 && header("location") !== undefined)
    throw new DeliveryFault({ code: "unreachable", address: link.address });
  if (status === 429) {
    const retryAfterMs = pauseOf(header("retry-after"));
    heldUntil.set(link.address, Date.now() + retryAfterMs);
    throw new DeliveryFault({ code: "throttled", retryAfterMs });
  }
  return { status, text, header, link };
}

/** Retry-After, in seconds or as a date (RFC 9110, section 10.2.3), as milliseconds from now. */
function pauseOf(header: string | undefined): number {
  if (header === undefined) return USUAL_PAUSE;
  const seconds = Number(header);
  const pause = Number.isFinite(seconds) ? seconds * 1000 : Date.parse(header) - Date.now();
  return Number.isFinite(pause) ? Math.max(0, pause) : USUAL_PAUSE;
}

/** An answer in the 200s; other statuses become faults. */
export function expectOk(answer: Answer): Answer {
  const { status, link } = answer;
  if (status >= 200 && status < 300) return answer;
  if (status === 401) throw new DeliveryFault({ code: "wrong-credential", account: link.account });
  if (status === 403)
    throw new DeliveryFault({ code: "no-right", account: link.account, scope: link.scope });
  if (status === 422) throw new DeliveryFault({ code: "refused", reason: reasonIn(answer.text) });
  throw new DeliveryFault({ code: "platform-error", status });
}

function reasonIn(text: string): string {
  const { refused } = (parsed(text) ?? {}) as { refused?: unknown };
  return typeof refused === "string" ? refused : text.slice(0, 120);
}

/** What an answer says, checked; throws `nonsense` with where it was said. */
export function read<T>(schema: z.ZodType<T>, answer: Answer, where: string): T {
  const result = schema.safeParse(parsed(answer.text));
  if (!result.success) throw new DeliveryFault({ code: "nonsense", where });
  return result.data;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** What a sign-in gives: a token, what it allows, and how long it lasts. */
export interface Access {
  token: string;
  rights: readonly string[];
  lifeSeconds: number;
}

interface Kept {
  access: Promise<Access>;
  until: number;
}

const tokens = new Map<string, Kept>();
/** A token is renewed this long before it runs out, in milliseconds. */
const EARLY = 5000;

/** A signed-in account. The token is kept for all deliveries of this process, and renewed. */
export interface Session {
  rights: readonly string[];
  ask(path: string, options?: CallOptions): Promise<Answer>;
}

/** Signs in, or goes on with a token that still counts; a refused token is renewed once. */
export async function sessionOf(
  link: Link,
  signIn: (link: Link) => Promise<Access>,
): Promise<Session> {
  const key = JSON.stringify(link);
  const obtain = async (): Promise<Access> => {
    const access = signIn(link);
    tokens.set(key, { access, until: Number.POSITIVE_INFINITY });
    try {
      const { lifeSeconds } = await access;
      tokens.set(key, { access, until: Date.now() + lifeSeconds * 1000 - EARLY });
    } catch (error) {
      tokens.delete(key);
      throw error;
    }
    return access;
  };
  const kept = tokens.get(key);
  let access = kept && kept.until > Date.now() ? await kept.access : await obtain();
  return {
    rights: access.rights,
    async ask(path, options = {}) {
      const once = (token: string) =>
        call(link, path, {
          ...options,
          headers: { ...options.headers, authorization: `Bearer ${token}` },
        });
      const answer = await once(access.token);
      if (answer.status !== 401) return answer;
      access = await obtain();
      const again = await once(access.token);
      if (again.status === 401) throw new DeliveryFault({ code: "token-refused" });
      return again;
    },
  };
}
