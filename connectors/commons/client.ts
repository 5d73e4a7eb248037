import { z } from "zod";
import { DeliveryFault, type Link } from "../connector.ts";
import { type Access, call, expectOk, read, sessionOf } from "../http.ts";

const signedIn = z.object({
  token: z.string().min(1),
  rights: z.array(z.string()),
  lifeSeconds: z.number().positive(),
});
const palette = z.object({ name: z.string(), slots: z.record(z.string(), z.string()) });
const site = z.object({
  site: z.string(),
  palette: z.string().nullable(),
  /** What the site's pages show now; it follows the choice after a while. */
  shown: z.string().nullable(),
  showsInMs: z.number().nonnegative(),
  hub: z.string().nullable(),
  followers: z.array(z.string()),
});

export type CommonsPalette = z.infer<typeof palette>;
export type CommonsSite = z.infer<typeof site>;

/** A signed-in session with one tenant of Commons. Each method throws DeliveryFault. */
export interface CommonsSession {
  rights: readonly string[];
  /** The site and the palette chosen for it; null where the tenant has no such site. */
  site(key: string): Promise<CommonsSite | null>;
  /** A palette by its name; null where there is none. */
  palette(name: string): Promise<CommonsPalette | null>;
  /** Uploads a palette under a new name; false where the name is taken. */
  addPalette(name: string, slots: Record<string, string>): Promise<boolean>;
  /** Chooses a palette for a site; null takes the site back to its own look. */
  choosePalette(key: string, name: string | null): Promise<void>;
}

const tenantPath = (link: Link) => `/api/tenants/${encodeURIComponent(link.scope)}`;

async function obtain(link: Link): Promise<Access> {
  const answer = await call(link, `${tenantPath(link)}/sign-in`, {
    method: "POST",
    body: { account: link.account, password: link.secret },
  });
  return read(signedIn, expectOk(answer), "sign-in");
}

/** Signs in to a tenant with an account's password for a short-lived token. */
export async function signIn(link: Link): Promise<CommonsSession> {
  const session = await sessionOf(link, obtain);
  const tenant = tenantPath(link);
  const named = (name: string) => `${tenant}/palettes/${encodeURIComponent(name)}`;
  const sited = (key: string) => `${tenant}/sites/${encodeURIComponent(key)}`;
  return {
    rights: session.rights,
    async site(key) {
      const found = await session.ask(sited(key));
      return found.status === 404 ? null : read(site, expectOk(found), "site");
    },
    async palette(name) {
      const found = await session.ask(named(name));
      return found.status === 404 ? null : read(palette, expectOk(found), "palette");
    },
    async addPalette(name, slots) {
      const added = await session.ask(named(name), {
        method: "PUT",
        body: { slots },
        headers: { "if-none-match": "*" },
      });
      if (added.status === 412) return false;
      expectOk(added);
      return true;
    },
    async choosePalette(key, name) {
      const chosen = await session.ask(`${sited(key)}/palette`, {
        method: "PUT",
        body: { palette: name },
      });
      if (chosen.status === 409) throw new DeliveryFault({ code: "follows-hub", hub: key });
      expectOk(chosen);
    },
  };
}
