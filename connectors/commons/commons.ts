import { toHex } from "#core/colour/srgb.ts";
import type { Scheme } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import {
  type Connector,
  DeliveryFault,
  type Fault,
  type Link,
  type Parcel,
  type PreflightCheck,
  type PreflightSubject,
  type SlotValues,
} from "../connector.ts";
import { type CommonsSession, signIn } from "./client.ts";
import { LONGEST_NAME, paletteName, SLOT_MAP, SLOTS } from "./slot-map.ts";

const SCHEMES: readonly Scheme[] = ["light", "dark"];
const fileOf = (scheme: Scheme) => `commons-palette.${scheme}.json`;

/** Commons: a named palette a scheme, uploaded to the tenant; the light one is chosen for the site. */
export const commons: Connector = {
  platform: "commons",

  artefacts(theme: Theme) {
    return SCHEMES.map((scheme) => ({
      name: fileOf(scheme),
      mediaType: "application/json",
      body: JSON.stringify(palette(theme, scheme), null, 2),
    }));
  },

  async preflight(link, key, parcel) {
    const name = nameObstacle(parcel);
    const slots = slotsObstacle(parcel);
    const own = [check("name", name), check("slots", slots)];
    let session: CommonsSession;
    try {
      session = await signIn(link);
    } catch (error) {
      return [...beforeSignIn(faultOf(error)), ...own];
    }
    const right = rightObstacle(link, session);
    const [place, taken] = await Promise.all([
      obstacle(() => placeObstacle(session, key)),
      name ? name : obstacle(() => takenObstacle(session, parcel)),
    ]);
    return [
      check("reachable", null),
      check("right", right),
      check("place", place),
      check("name", taken),
      check("slots", slots),
    ];
  },

  expected(parcel) {
    const values: SlotValues = { "site palette": paletteName(parcel.name, "light") };
    for (const scheme of SCHEMES) Object.assign(values, prefixed(scheme, slotsOf(parcel, scheme)));
    return values;
  },

  async deliver(link, key, parcel) {
    const obstacle = nameObstacle(parcel) ?? slotsObstacle(parcel);
    if (obstacle) throw new DeliveryFault(obstacle);
    const session = await signIn(link);
    const right = rightObstacle(link, session);
    if (right) throw new DeliveryFault(right);
    if (!(await session.site(key))) throw new DeliveryFault({ code: "no-such-place", key });
    for (const scheme of SCHEMES) await uploadOnce(session, parcel, scheme);
    await session.choosePalette(key, paletteName(parcel.name, "light"));
  },

  async readBack(link, key, parcel) {
    const session = await signIn(link);
    const site = await session.site(key);
    const values: SlotValues = { "site palette": site?.palette ?? "" };
    for (const scheme of SCHEMES) {
      const found = await session.palette(paletteName(parcel.name, scheme));
      Object.assign(values, prefixed(scheme, found?.slots ?? {}));
    }
    return values;
  },
};

function palette(theme: Theme, scheme: Scheme): SlotValues {
  const colours = theme.schemes[scheme].standard;
  return Object.fromEntries(
    SLOTS.map((slot) => [slot, toHex(colours[SLOT_MAP[slot]].colour).slice(1)]),
  );
}

function slotsOf(parcel: Parcel, scheme: Scheme): SlotValues {
  const file = parcel.artefacts.find((a) => a.name === fileOf(scheme));
  return file ? (JSON.parse(file.body) as SlotValues) : {};
}

const prefixed = (scheme: Scheme, slots: SlotValues): SlotValues =>
  Object.fromEntries(Object.entries(slots).map(([slot, value]) => [`${scheme} ${slot}`, value]));

/** Uploads a palette unless the very same one is already there, so that a second run changes nothing. */
async function uploadOnce(session: CommonsSession, parcel: Parcel, scheme: Scheme): Promise<void> {
  const name = paletteName(parcel.name, scheme);
  const slots = slotsOf(parcel, scheme);
  if (await session.addPalette(name, slots)) return;
  const there = await session.palette(name);
  if (!there || !sameSlots(there.slots, slots))
    throw new DeliveryFault({ code: "name-taken", name });
}

const sameSlots = (a: SlotValues, b: SlotValues): boolean =>
  Object.keys(a).length === Object.keys(b).length &&
  Object.entries(a).every(([slot, value]) => b[slot] === value);

function nameObstacle(parcel: Parcel): Fault | null {
  const name = paletteName(parcel.name, "dark");
  return name.length > LONGEST_NAME ? { code: "name-too-long", name, longest: LONGEST_NAME } : null;
}

function slotsObstacle(parcel: Parcel): Fault | null {
  const missing = SCHEMES.flatMap((scheme) => {
    const slots = slotsOf(parcel, scheme);
    return SLOTS.filter((slot) => !/^[0-9a-f]{6}$/.test(slots[slot] ?? "")).map(
      (s) => `${scheme} ${s}`,
    );
  });
  return missing.length > 0 ? { code: "slots-missing", slots: missing } : null;
}

const rightObstacle = (link: Link, session: CommonsSession): Fault | null =>
  session.rights.includes("publish")
    ? null
    : { code: "no-right", account: link.account, scope: link.scope };

async function placeObstacle(session: CommonsSession, key: string): Promise<Fault | null> {
  return (await session.site(key)) ? null : { code: "no-such-place", key };
}

async function takenObstacle(session: CommonsSession, parcel: Parcel): Promise<Fault | null> {
  for (const scheme of SCHEMES) {
    const name = paletteName(parcel.name, scheme);
    const there = await session.palette(name);
    if (there && !sameSlots(there.slots, slotsOf(parcel, scheme)))
      return { code: "name-taken", name };
  }
  return null;
}

async function obstacle(look: () => Promise<Fault | null>): Promise<Fault | null> {
  try {
    return await look();
  } catch (error) {
    return faultOf(error);
  }
}

function faultOf(error: unknown): Fault {
  if (error instanceof DeliveryFault) return error.fault;
  throw error;
}

/** What is known where signing in failed: a refused credential shows that the platform answers. */
function beforeSignIn(fault: Fault): PreflightCheck[] {
  const answers = fault.code === "wrong-credential";
  return [
    answers ? check("reachable", null) : check("reachable", fault),
    answers ? check("right", fault) : unknown("right"),
    unknown("place"),
  ];
}

const check = (subject: PreflightSubject, fault: Fault | null): PreflightCheck => ({
  subject,
  outcome: fault ? "obstacle" : "clear",
  fault,
});

const unknown = (subject: PreflightSubject): PreflightCheck => ({
  subject,
  outcome: "unknown",
  fault: null,
});
