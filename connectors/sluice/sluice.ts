import { z } from "zod";
import { flatten } from "#core/exchange/flat.ts";
import type { Scheme } from "#core/theme/roles.ts";
import {
  artefactOf,
  beforeEntry,
  check,
  faultOf,
  filled,
  prefixed,
  sameValues,
} from "../checks.ts";
import {
  type Connector,
  DeliveryFault,
  type Fault,
  type Link,
  type Parcel,
  type SlotMap,
  type SlotValues,
} from "../connector.ts";
import { call, expectOk, read } from "../http.ts";

const FILE = "sluice-theme.json";
/** The scales whose steps apps may refer to by name. */
const RUNS = ["brand", "accent", "neutral"] as const;

/** Which role fills which part of an app. */
const PARTS: SlotMap = {
  floor: "canvas",
  floorInk: "canvas-text",
  floorFaintInk: "canvas-text-muted",
  board: "panel",
  boardInk: "panel-text",
  rule: "line",
  bar: "header",
  barInk: "header-text",
  entry: "field",
  entryInk: "field-text",
  entryRule: "field-line",
  press: "action",
  pressOver: "action-hover",
  pressInk: "action-text",
  softPress: "action-soft",
  softPressInk: "action-soft-text",
  anchor: "link",
  ring: "focus",
  wrong: "danger-soft",
  wrongInk: "danger-soft-text",
  wrongRule: "danger-line",
  right: "success-soft",
  rightInk: "success-soft-text",
  rightRule: "success-line",
};

interface SluiceTheme {
  name: string;
  primary: string;
  tones: SlotValues;
  day: SlotValues;
  night: SlotValues;
}

const app = z.object({
  app: z.string(),
  themingOn: z.boolean(),
  mayPublish: z.boolean(),
  theme: z
    .object({
      name: z.string(),
      primary: z.string(),
      tones: z.record(z.string(), z.string()),
      day: z.record(z.string(), z.string()),
      night: z.record(z.string(), z.string()),
    })
    .nullable(),
});
type App = z.infer<typeof app>;

/** Sluice: one theme document an app, with a run of tones that formulas in the app refer to. */
export const sluice: Connector = {
  platform: "sluice",
  limits: ["theming-switch"],
  usualSlots: PARTS,

  artefacts({ name, theme, slots }) {
    const { brand, scales } = flatten(theme);
    const tones = RUNS.flatMap((run) =>
      Object.entries(scales[run]).map(([step, hex]) => [`${run}-${step}`, hex] as const),
    );
    const of = (scheme: Scheme) => filled(theme, scheme, slots);
    const body: SluiceTheme = {
      name,
      primary: brand,
      tones: Object.fromEntries(tones),
      day: of("light"),
      night: of("dark"),
    };
    return [{ name: FILE, mediaType: "application/json", body: JSON.stringify(body, null, 2) }];
  },

  reference(kind, name) {
    if (kind === "slot") return `part("${name}")`;
    return kind === "step" && RUNS.some((run) => name.startsWith(`${run}-`))
      ? `tone("${name}")`
      : null;
  },

  async probe(link) {
    const answer = await ask(link, "/api/account");
    return read(z.object({ mayPublish: z.boolean() }), expectOk(answer), "account");
  },

  async preflight({ link, key }, parcel) {
    let found: App | null;
    try {
      found = await look(link, key);
    } catch (error) {
      return [...beforeEntry(faultOf(error), ["place", "feature"]), check("slots", null)];
    }
    const right: Fault | null =
      found && !found.mayPublish
        ? { code: "no-right", account: link.account, scope: link.scope }
        : null;
    const gone = found && namesGone(found, themeIn(parcel));
    return [
      check("reachable", null),
      check("right", right),
      check("place", found ? null : { code: "no-such-place", key }),
      found
        ? check("feature", found.themingOn ? null : { code: "feature-off", key })
        : { subject: "feature", outcome: "unknown", fault: null },
      check("slots", gone && gone.length > 0 ? { code: "names-changed", names: gone } : null),
    ];
  },

  expected: (parcel) => (parcel ? flat(themeIn(parcel)) : { name: "" }),

  async deliver({ link, key }, parcel) {
    const path = `/api/apps/${encodeURIComponent(key)}/theme`;
    const found = await look(link, key);
    if (!found) throw new DeliveryFault({ code: "no-such-place", key });
    if (parcel && found.theme && sameValues(flat(found.theme), flat(themeIn(parcel)))) return;
    const answer = parcel
      ? await ask(link, path, "PUT", themeIn(parcel))
      : await ask(link, path, "DELETE");
    if (answer.status === 409) throw new DeliveryFault({ code: "feature-off", key });
    expectOk(answer);
  },

  async readBack({ link, key }) {
    const found = await look(link, key);
    return found?.theme ? flat(found.theme) : { name: "" };
  },
};

const ask = (link: Link, path: string, method: "GET" | "PUT" | "DELETE" = "GET", body?: unknown) =>
  call(link, path, {
    method,
    ...(body === undefined ? {} : { body }),
    headers: { authorization: `Key ${link.account}:${link.secret}` },
  });

async function look(link: Link, key: string): Promise<App | null> {
  const answer = await ask(link, `/api/apps/${encodeURIComponent(key)}`);
  return answer.status === 404 ? null : read(app, expectOk(answer), "app");
}

const themeIn = (parcel: Parcel): SluiceTheme =>
  JSON.parse(artefactOf(parcel, FILE).body) as SluiceTheme;

/** Names of tones that formulas may refer to now and that would be gone. */
const namesGone = (found: App, theme: SluiceTheme): string[] =>
  Object.keys(found.theme?.tones ?? {}).filter((name) => !(name in theme.tones));

const flat = ({ name, primary, tones, day, night }: SluiceTheme): SlotValues => ({
  name,
  primary,
  ...prefixed("tone", tones),
  ...prefixed("day", day),
  ...prefixed("night", night),
});
