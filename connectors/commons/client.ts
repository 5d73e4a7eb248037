import { z } from "zod";
import { DeliveryFault, type Link } from "../connector.ts";

/** A call that takes longer than this counts as unreachable, in milliseconds. */
const PATIENCE = 15_000;

const signedIn = z.object({ token: z.string().min(1), rights: z.array(z.string()) });
const palette = z.object({ name: z.string(), slots: z.record(z.string(), z.string()) });
const site = z.object({ site: z.string(), palette: z.string().nullable() });

export type CommonsPalette = z.infer<typeof palette>;

/** A signed-in session with one tenant of Commons. Each method throws DeliveryFault. */
export interface CommonsSession {
  rights: readonly string[];
  /** The site and the palette chosen for it; null where the tenant has no such site. */
  site(key: string): Promise<z.infer<typeof site> | null>;
  /** A palette by its name; null where there is none. */
  palette(name: string): Promise<CommonsPalette | null>;
  /** Uploads a palette under a new name; false where the name is taken. */
  addPalette(name: string, slots: Record<string, string>): Promise<boolean>;
  choosePalette(key: string, name: string): Promise<void>;
}

/** Signs in to a tenant with an account's password for a short-lived token. */
export async function signIn(link: Link): Promise<CommonsSession> {
  const tenant = `${link.address}/api/tenants/${encodeURIComponent(link.scope)}`;
  const answer = await call(link, `${tenant}/sign-in`, {
    method: "POST",
    body: { account: link.account, password: link.secret },
  });
  if (answer.status === 401)
    throw new DeliveryFault({ code: "wrong-credential", account: link.account });
  const { token, rights } = read(signedIn, expectOk(answer), "sign-in");
  const ask = (path: string, options: CallOptions = {}) =>
    call(link, `${tenant}${path}`, { ...options, token });
  const named = (name: string) => `/palettes/${encodeURIComponent(name)}`;
  return {
    rights,
    async site(key) {
      const found = await ask(`/sites/${encodeURIComponent(key)}`);
      return found.status === 404 ? null : read(site, expectOk(found), "site");
    },
    async palette(name) {
      const found = await ask(named(name));
      return found.status === 404 ? null : read(palette, expectOk(found), "palette");
    },
    async addPalette(name, slots) {
      const added = await ask(named(name), { method: "PUT", body: { slots }, ifNoneMatch: true });
      if (added.status === 412) return false;
      expectOk(added);
      return true;
    },
    async choosePalette(key, name) {
      expectOk(
        await ask(`/sites/${encodeURIComponent(key)}/palette`, {
          method: "PUT",
          body: { palette: name },
        }),
      );
    },
  };
}

interface CallOptions {
  method?: "GET" | "POST" | "PUT";
  body?: unknown;
  token?: string;
  /** Only where nothing stands at the address yet. */
  ifNoneMatch?: boolean;
}

interface Answer {
  status: number;
  body: unknown;
  link: Link;
}

async function call(link: Link, url: string, options: CallOptions): Promise<Answer> {
  let response: Response;
  let text: string;
  try {
    response = await fetch(url, {
      method: options.method ?? "GET",
      headers: {
        ...(options.body === undefined ? {} : { "content-type": "application/json" }),
        ...(options.token ? { authorization: `Bearer ${options.token}` } : {}),
        ...(options.ifNoneMatch ? { "if-none-match": "*" } : {}),
      },
      ...(options.body === undefined ? {} : { body: JSON.stringify(options.body) }),
      signal: AbortSignal.timeout(PATIENCE),
      redirect: "error",
    });
    text = await response.text();
  } catch {
    throw new DeliveryFault({ code: "unreachable", address: link.address });
  }
  return { status: response.status, body: parseJson(text), link };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** The body of an answer in the 200s; other statuses become faults. */
function expectOk({ status, body, link }: Answer): unknown {
  if (status >= 200 && status < 300) return body;
  if (status === 401) throw new DeliveryFault({ code: "wrong-credential", account: link.account });
  if (status === 403)
    throw new DeliveryFault({ code: "no-right", account: link.account, scope: link.scope });
  throw new DeliveryFault({ code: "platform-error", status });
}

function read<T>(schema: z.ZodType<T>, body: unknown, where: string): T {
  const result = schema.safeParse(body);
  if (!result.success) throw new DeliveryFault({ code: "nonsense", where });
  return result.data;
}
