import { FormData } from "undici";
import { z } from "zod";
import { toHex } from "#core/colour/srgb.ts";
import { toCss } from "#core/exchange/css.ts";
import { STATUSES } from "#core/scale/scales.ts";
import type { Role, Scheme } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { artefactOf, beforeEntry, bytesOf, check, faultOf, filled, sameValues } from "../checks.ts";
import {
  type Artefact,
  type Connector,
  DeliveryFault,
  type Fault,
  type Link,
  type Parcel,
  type SlotMap,
} from "../connector.ts";
import { type Access, call, expectOk, read, type Session, sessionOf } from "../http.ts";

const MOST_BYTES = 64 * 1024;
const STYLESHEET = "gangway.css";
const SETTINGS = "gangway-sign-in.json";
const MESSAGES = "gangway-messages.json";
const FAVICON = "gangway-favicon-32.png";
const SCHEMES: readonly Scheme[] = ["light", "dark"];
const SHAPES = ["desktop", "phone"] as const;

/** What the portal's own stylesheet asks for, under the portal's own names. */
const USUAL: SlotMap = {
  deck: "canvas",
  "deck-ink": "canvas-text",
  "deck-faint": "canvas-text-muted",
  card: "panel",
  "card-ink": "panel-text",
  "card-line": "line",
  banner: "header",
  "banner-ink": "header-text",
  box: "field",
  "box-ink": "field-text",
  "box-line": "field-line",
  go: "action",
  "go-over": "action-hover",
  "go-ink": "action-text",
  anchor: "link",
  ring: "focus",
};

const manifest = z.object({
  files: z.record(z.string(), z.string()),
  mayPublish: z.boolean(),
  shownInMs: z.number().nonnegative(),
});

/** Gangway: a stylesheet, logos, a favicon, sign-in settings and message colours, in one upload. */
export const gangway: Connector = {
  platform: "gangway",
  limits: ["stylesheet-size", "caches", "mark-is-drawn"],
  usualSlots: USUAL,

  artefacts({ theme, document, slots }) {
    const block = (scheme: Scheme) =>
      `:root {\n${Object.entries(filled(theme, scheme, slots))
        .map(([slot, hex]) => `  --gangway-${slot}: ${hex};`)
        .join("\n")}\n}`;
    const css = `${toCss(theme)}\n${block("light")}\n@media (prefers-color-scheme: dark) {\n${block("dark")}\n}\n`;
    return [
      { name: STYLESHEET, mediaType: "text/css", body: css },
      ...SCHEMES.flatMap((scheme) => SHAPES.map((shape) => logo(theme, scheme, shape))),
      {
        name: "gangway-favicon.svg",
        mediaType: "image/svg+xml",
        body: mark(theme, "light", 32, 32),
        raster: { name: FAVICON, size: 32 },
      },
      json(SETTINGS, {
        font: document.typography.bodyFont,
        radiusRem: document.shape.radius,
        ground: { light: hex(theme, "light", "header"), dark: hex(theme, "dark", "header") },
      }),
      json(
        MESSAGES,
        Object.fromEntries(
          STATUSES.map((status) => [
            status,
            Object.fromEntries(
              SCHEMES.map((scheme) => [
                scheme,
                {
                  fill: hex(theme, scheme, `${status}-soft`),
                  ink: hex(theme, scheme, `${status}-soft-text`),
                  line: hex(theme, scheme, `${status}-line`),
                },
              ]),
            ),
          ]),
        ),
      ),
    ];
  },

  reference(kind, name) {
    if (kind === "slot") return `var(--gangway-${name})`;
    return `var(--livery-${name})`;
  },

  async probe(link) {
    const { rights } = await enter(link);
    return { mayPublish: rights.includes("publish") };
  },

  async preflight({ link, key }, parcel) {
    const size = sizeObstacle(parcel);
    let found: z.infer<typeof manifest> | null;
    try {
      found = await look(await enter(link), key);
    } catch (error) {
      return [...beforeEntry(faultOf(error), ["place"]), check("size", size)];
    }
    return [
      check("reachable", null),
      check(
        "right",
        found && !found.mayPublish
          ? { code: "no-right", account: link.account, scope: link.scope }
          : null,
      ),
      check("place", found ? null : { code: "no-such-place", key }),
      check("size", size),
    ];
  },

  expected: (parcel) =>
    parcel ? Object.fromEntries(sent(parcel).map((a) => [a.name, a.sha256])) : {},

  async deliver(target, parcel) {
    const { link, key } = target;
    const tooLarge = parcel && sizeObstacle(parcel);
    if (tooLarge) throw new DeliveryFault(tooLarge);
    const session = await enter(link);
    const path = `/api/portals/${encodeURIComponent(key)}/look`;
    const found = await look(session, key);
    if (!found) throw new DeliveryFault({ code: "no-such-place", key });
    if (sameValues(found.files, gangway.expected(parcel, target))) return;
    const answer = parcel
      ? await session.ask(path, { method: "PUT", body: formOf(parcel) })
      : await session.ask(path, { method: "DELETE" });
    expectOk(answer);
  },

  async readBack({ link, key }) {
    const found = await look(await enter(link), key);
    if (found && found.shownInMs > 0)
      throw new DeliveryFault({ code: "not-shown-yet", retryAfterMs: found.shownInMs });
    return found?.files ?? {};
  },
};

const hex = (theme: Theme, scheme: Scheme, role: Role) =>
  toHex(theme.schemes[scheme].standard[role].colour);
const json = (name: string, value: unknown): Artefact => ({
  name,
  mediaType: "application/json",
  body: JSON.stringify(value, null, 2),
});

/** The theme's mark: a pennant of its colours, drawn since no logo was handed over. */
function mark(theme: Theme, scheme: Scheme, width: number, height: number): string {
  const c = (role: Role) => hex(theme, scheme, role);
  const h = height;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="${width}" height="${h}" fill="${c("header")}"/><path d="M${h * 0.2} ${h * 0.15}h${h * 0.08}v${h * 0.7}h-${h * 0.08}z" fill="${c("header-text")}"/><path d="M${h * 0.32} ${h * 0.18}L${width - h * 0.15} ${h * 0.42}L${h * 0.32} ${h * 0.66}z" fill="${c("accent")}"/><path d="M${h * 0.32} ${h * 0.42}L${width - h * 0.15} ${h * 0.42}L${h * 0.32} ${h * 0.66}z" fill="${c("header-text")}"/></svg>`;
}

const logo = (theme: Theme, scheme: Scheme, shape: (typeof SHAPES)[number]): Artefact => ({
  name: `gangway-logo-${scheme}-${shape}.svg`,
  mediaType: "image/svg+xml",
  body: shape === "desktop" ? mark(theme, scheme, 120, 40) : mark(theme, scheme, 40, 40),
});

/** The files that go up: everything but the drawing that the favicon was made from. */
const sent = (parcel: Parcel) => parcel.artefacts.filter((a) => a.name !== "gangway-favicon.svg");

function sizeObstacle(parcel: Parcel): Fault | null {
  const bytes = bytesOf(artefactOf(parcel, STYLESHEET).body);
  return bytes > MOST_BYTES
    ? { code: "too-large", name: STYLESHEET, bytes, most: MOST_BYTES }
    : null;
}

function formOf(parcel: Parcel): FormData {
  const form = new FormData();
  for (const { name, mediaType, body, encoding } of sent(parcel)) {
    const bytes =
      encoding === "base64" ? Uint8Array.from(atob(body), (c) => c.charCodeAt(0)) : body;
    form.set(name, new Blob([bytes], { type: mediaType }), name);
  }
  return form;
}

async function signIn(link: Link): Promise<Access> {
  const answer = await call(link, "/api/sign-in", {
    method: "POST",
    body: { account: link.account, password: link.secret },
  });
  const schema = z.object({
    token: z.string().min(1),
    rights: z.array(z.string()),
    lifeSeconds: z.number().positive(),
  });
  return read(schema, expectOk(answer), "sign-in");
}

const enter = (link: Link): Promise<Session> => sessionOf(link, signIn);

async function look(session: Session, key: string) {
  const answer = await session.ask(`/api/portals/${encodeURIComponent(key)}/look`);
  return answer.status === 404 ? null : read(manifest, expectOk(answer), "look");
}
