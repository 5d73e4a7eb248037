import { parse, stringify } from "smol-toml";
import { z } from "zod";
import { artefactOf, beforeEntry, check, faultOf, filled, prefixed } from "../checks.ts";
import {
  type Connector,
  DeliveryFault,
  type Link,
  type SlotMap,
  type SlotValues,
} from "../connector.ts";
import { type Answer, call, expectOk, read } from "../http.ts";

const FILE = "tidemark-look.toml";

/** The six values of a board. */
const USUAL: SlotMap = {
  ground: "canvas",
  ink: "canvas-text",
  sheet: "panel",
  rule: "line-strong",
  anchor: "link",
  series: "chart-1",
};

const look = z.object({
  name: z.string(),
  font: z.object({ family: z.string(), base_rem: z.number() }),
  light: z.record(z.string(), z.string()),
  dark: z.record(z.string(), z.string()),
});

/** Tidemark: a configuration file in a versioned store, changed under optimistic locking. */
export const tidemark: Connector = {
  platform: "tidemark",
  limits: ["six-values"],
  usualSlots: USUAL,

  artefacts({ name, theme, document, slots }) {
    const body = stringify({
      name,
      font: { family: document.typography.bodyFont, base_rem: document.typography.base },
      light: filled(theme, "light", slots),
      dark: filled(theme, "dark", slots),
    });
    return [{ name: FILE, mediaType: "application/toml", body: `${body}\n` }];
  },

  reference: (kind, name) => (kind === "slot" ? `light.${name}, dark.${name}` : null),

  async probe(link) {
    const answer = await ask(link, "/api/account");
    return read(z.object({ mayPublish: z.boolean() }), expectOk(answer), "account");
  },

  async preflight({ link, key }) {
    try {
      const [{ mayPublish }, file] = await Promise.all([
        tidemark.probe(link),
        ask(link, pathOf(key)),
      ]);
      return [
        check("reachable", null),
        check(
          "right",
          mayPublish ? null : { code: "no-right", account: link.account, scope: link.scope },
        ),
        check("place", file.status === 404 ? { code: "no-such-place", key } : null),
        check("slots", null),
      ];
    } catch (error) {
      return [...beforeEntry(faultOf(error), ["place"]), check("slots", null)];
    }
  },

  expected: (parcel) => (parcel ? flat(artefactOf(parcel, FILE).body) : { file: "" }),

  async deliver({ link, key }, parcel) {
    const wanted = parcel ? artefactOf(parcel, FILE).body : "";
    const there = await ask(link, pathOf(key));
    if (there.status === 404) throw new DeliveryFault({ code: "no-such-place", key });
    if (textIn(there) === wanted) return;
    const etag = there.header("etag");
    if (!etag) throw new DeliveryFault({ code: "nonsense", where: "ETag" });
    const put = await ask(link, pathOf(key), "PUT", wanted, { "if-match": etag });
    if (put.status === 412) throw new DeliveryFault({ code: "changed-meanwhile", file: key });
    expectOk(put);
  },

  async readBack({ link, key }) {
    const there = await ask(link, pathOf(key));
    return flat(there.status === 404 ? "" : textIn(there));
  },
};

const pathOf = (key: string) => `/api/files/${encodeURIComponent(key)}/look.toml`;

function ask(
  link: Link,
  path: string,
  method: "GET" | "PUT" = "GET",
  body?: string,
  headers: Record<string, string> = {},
): Promise<Answer> {
  return call(link, path, {
    method,
    ...(body === undefined ? {} : { body }),
    headers: {
      authorization: `Bearer ${link.secret}`,
      "x-account": link.account,
      ...(body === undefined ? {} : { "content-type": "application/toml" }),
      ...headers,
    },
  });
}

/** The file that an answer holds; an answer of another kind is none of the store's. */
function textIn(answer: Answer): string {
  const { header, text } = expectOk(answer);
  if (!header("content-type")?.startsWith("application/toml"))
    throw new DeliveryFault({ code: "nonsense", where: "look.toml" });
  return text;
}

/** A configuration file slot by slot; one that can't be read is a slot of its own. */
function flat(text: string): SlotValues {
  if (text === "") return { file: "" };
  let value: unknown;
  try {
    value = parse(text);
  } catch {
    return { file: text.slice(0, 200) };
  }
  const read = look.safeParse(value);
  if (!read.success) return { file: text.slice(0, 200) };
  const { name, font, light, dark } = read.data;
  return {
    name,
    "font family": font.family,
    "font base_rem": String(font.base_rem),
    ...prefixed("light", light),
    ...prefixed("dark", dark),
  };
}
