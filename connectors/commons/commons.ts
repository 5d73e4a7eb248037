import type { Scheme } from "#core/theme/roles.ts";
import {
  artefactOf,
  beforeEntry,
  check,
  faultOf,
  filled,
  obstacle,
  prefixed,
  sameValues,
  unknown,
} from "../checks.ts";
import {
  type Connector,
  DeliveryFault,
  type Fault,
  type Link,
  type Parcel,
  type PreflightCheck,
  type SlotValues,
} from "../connector.ts";
import { type CommonsSession, type CommonsSite, signIn } from "./client.ts";
import { LONGEST_NAME, paletteName, SLOT_MAP } from "./slot-map.ts";

const SCHEMES: readonly Scheme[] = ["light", "dark"];
const SLOTS = Object.keys(SLOT_MAP);
const fileOf = (scheme: Scheme) => `commons-palette.${scheme}.json`;

/** Commons: a named palette a scheme, uploaded to the tenant; the light one is chosen for the site. */
export const commons: Connector = {
  platform: "commons",
  limits: ["one-scheme", "sites-follow-hub", "shows-later"],
  usualSlots: SLOT_MAP,

  artefacts({ theme, slots }) {
    return SCHEMES.map((scheme) => ({
      name: fileOf(scheme),
      mediaType: "application/json",
      body: JSON.stringify(filled(theme, scheme, slots, ""), null, 2),
    }));
  },

  reference: (kind, name) => (kind === "slot" ? `slots.${name}` : null),

  async probe(link) {
    const { rights } = await signIn(link);
    return { mayPublish: rights.includes("publish") };
  },

  async preflight({ link, key }, parcel) {
    const name = nameObstacle(parcel);
    const slots = slotsObstacle(parcel);
    let session: CommonsSession;
    let site: CommonsSite | null;
    try {
      session = await signIn(link);
      site = await session.site(key);
    } catch (error) {
      return [
        ...beforeEntry(faultOf(error), ["place"]),
        check("name", name),
        check("slots", slots),
        unknown("reach"),
      ];
    }
    const taken = name ? name : await obstacle(() => takenObstacle(session, parcel));
    return [
      check("reachable", null),
      check("right", rightObstacle(link, session)),
      check("place", placeObstacle(key, site)),
      check("name", taken),
      check("slots", slots),
      reach(site),
    ];
  },

  expected(parcel) {
    if (parcel === null) return { "site palette": "" };
    const values: SlotValues = { "site palette": paletteName(parcel.name, "light") };
    for (const scheme of SCHEMES) Object.assign(values, prefixed(scheme, slotsOf(parcel, scheme)));
    return values;
  },

  async deliver({ link, key }, parcel) {
    const found = parcel && (nameObstacle(parcel) ?? slotsObstacle(parcel));
    if (found) throw new DeliveryFault(found);
    const session = await signIn(link);
    const right = rightObstacle(link, session);
    if (right) throw new DeliveryFault(right);
    const site = await session.site(key);
    const place = placeObstacle(key, site);
    if (place) throw new DeliveryFault(place);
    const wanted = parcel && paletteName(parcel.name, "light");
    if (parcel) for (const scheme of SCHEMES) await uploadOnce(session, parcel, scheme);
    if (site?.palette !== wanted) await session.choosePalette(key, wanted);
  },

  async readBack({ link, key }, parcel) {
    const session = await signIn(link);
    const site = await session.site(key);
    if (site && site.shown !== site.palette)
      throw new DeliveryFault({ code: "not-shown-yet", retryAfterMs: site.showsInMs });
    const values: SlotValues = { "site palette": site?.shown ?? "" };
    if (parcel)
      for (const scheme of SCHEMES) {
        const found = await session.palette(paletteName(parcel.name, scheme));
        Object.assign(values, prefixed(scheme, found?.slots ?? {}));
      }
    return values;
  },
};

const slotsOf = (parcel: Parcel, scheme: Scheme): SlotValues =>
  JSON.parse(artefactOf(parcel, fileOf(scheme)).body) as SlotValues;

/** Uploads a palette unless the very same one is already there, so that a second run changes nothing. */
async function uploadOnce(session: CommonsSession, parcel: Parcel, scheme: Scheme): Promise<void> {
  const name = paletteName(parcel.name, scheme);
  const slots = slotsOf(parcel, scheme);
  const there = await session.palette(name);
  if (there && sameValues(there.slots, slots)) return;
  if (there || !(await session.addPalette(name, slots)))
    throw new DeliveryFault({ code: "name-taken", name });
}

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

function placeObstacle(key: string, site: CommonsSite | null): Fault | null {
  if (!site) return { code: "no-such-place", key };
  return site.hub === null ? null : { code: "follows-hub", hub: site.hub };
}

async function takenObstacle(session: CommonsSession, parcel: Parcel): Promise<Fault | null> {
  for (const scheme of SCHEMES) {
    const name = paletteName(parcel.name, scheme);
    const there = await session.palette(name);
    if (there && !sameValues(there.slots, slotsOf(parcel, scheme)))
      return { code: "name-taken", name };
  }
  return null;
}

/** Who else changes with a hub. */
const reach = (site: CommonsSite | null): PreflightCheck =>
  site ? { ...check("reach", null), inheritedBy: site.followers } : unknown("reach");
