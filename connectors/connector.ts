import type { ThemeDocument } from "#core/theme/document.ts";
import type { Role } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";

export const PLATFORMS = ["commons", "sluice", "gangway", "bollard", "tidemark"] as const;
export type Platform = (typeof PLATFORMS)[number];

/** How a platform is reached. The secret is clear only here, on its way to the platform. */
export interface Link {
  address: string;
  /** The tenant, on platforms that hold several. */
  scope: string;
  account: string;
  secret: string;
}

/** One place on a platform. */
export interface Target {
  link: Link;
  /** What the platform calls the place. */
  key: string;
  /** Address of the place's hosted stylesheet. */
  hosted: string;
}

/** Which role fills which slot of a platform. */
export type SlotMap = Record<string, Role>;

/** What the files of a release are made from. */
export interface Material {
  /** The release's name. */
  name: string;
  theme: Theme;
  document: ThemeDocument;
  slots: SlotMap;
}

/** One file made from a release, in a platform's own form. */
export interface Artefact {
  name: string;
  mediaType: string;
  /** Text, or base64 where `encoding` says so. */
  body: string;
  encoding?: "base64";
  /** A square picture in PNG that is to be drawn from this SVG, of this many pixels. */
  raster?: { name: string; size: number };
}

export interface SealedArtefact extends Artefact {
  /** Of the bytes, in hexadecimal. */
  sha256: string;
}

/** What is to be delivered: a release's name and its artefacts for this platform. */
export interface Parcel {
  name: string;
  artefacts: readonly SealedArtefact[];
}

/** What a platform holds, slot by slot, flat: what was sent and what was found are compared by it. */
export type SlotValues = Record<string, string>;

/** Why a platform could not be worked with, as data; the words are the interface's. */
export type Fault =
  | { code: "unreachable"; address: string }
  | { code: "platform-error"; status: number }
  | { code: "nonsense"; where: string }
  | { code: "throttled"; retryAfterMs: number }
  | { code: "refused"; reason: string }
  | { code: "wrong-credential"; account: string }
  | { code: "credential-unreadable" }
  | { code: "token-refused" }
  | { code: "no-right"; account: string; scope: string }
  | { code: "no-such-place"; key: string }
  | { code: "follows-hub"; hub: string }
  | { code: "feature-off"; key: string }
  | { code: "name-too-long"; name: string; longest: number }
  | { code: "name-taken"; name: string }
  | { code: "names-changed"; names: string[] }
  | { code: "too-large"; name: string; bytes: number; most: number }
  | { code: "slots-missing"; slots: string[] }
  | { code: "changed-meanwhile"; file: string }
  | { code: "not-shown-yet"; retryAfterMs: number }
  | { code: "other-stylesheet"; linked: string; hosted: string }
  | { code: "read-back-differs"; slots: string[] };

/** Faults in which a platform asks for patience; they say how long, in milliseconds. */
export const waitOf = (fault: Fault): number | null =>
  fault.code === "throttled" || fault.code === "not-shown-yet" ? fault.retryAfterMs : null;

/** Faults that may pass by themselves, so that trying again makes sense. */
export function isPassing(fault: Fault): boolean {
  if (fault.code === "platform-error") return fault.status >= 500 || fault.status === 408;
  return (
    waitOf(fault) !== null ||
    fault.code === "unreachable" ||
    fault.code === "token-refused" ||
    fault.code === "nonsense" ||
    fault.code === "changed-meanwhile"
  );
}

export class DeliveryFault extends Error {
  override name = "DeliveryFault";
  constructor(readonly fault: Fault) {
    super(fault.code);
  }
}

export const PREFLIGHT_SUBJECTS = [
  "reachable",
  "right",
  "place",
  "feature",
  "name",
  "slots",
  "size",
  "reach",
] as const;
export type PreflightSubject = (typeof PREFLIGHT_SUBJECTS)[number];

/** One thing looked at before anything is sent; `unknown` where an earlier obstacle hides it. */
export interface PreflightCheck {
  subject: PreflightSubject;
  outcome: "clear" | "obstacle" | "unknown";
  fault: Fault | null;
  /** Others that will change with this place, as the platform names them. */
  inheritedBy?: string[];
}

/** What a kind of platform can't do, as data; the words are the interface's. */
export type Limit =
  | "one-scheme"
  | "sites-follow-hub"
  | "shows-later"
  | "theming-switch"
  | "caches"
  | "stylesheet-size"
  | "six-values"
  | "nothing-is-sent"
  | "mark-is-drawn";

/** The code that speaks to one kind of platform. Methods that reach it may throw DeliveryFault. */
export interface Connector {
  platform: Platform;
  limits: readonly Limit[];
  /** The slots of the platform, each with the role that usually fills it. */
  usualSlots: SlotMap;
  /** The files that a release holds for this platform. Pure. */
  artefacts(material: Material): Artefact[];
  /** How people who build on the platform refer to a slot, role or step; null where they can't. Pure. */
  reference(kind: "slot" | "role" | "step", name: string): string | null;
  /** Signs in and looks what the account may do, changing nothing. */
  probe(link: Link): Promise<{ mayPublish: boolean }>;
  /** Looks at everything that could stand in the way, and changes nothing. */
  preflight(target: Target, parcel: Parcel): Promise<PreflightCheck[]>;
  /** What the platform holds once the parcel is delivered, or its own look where there is none. Pure. */
  expected(parcel: Parcel | null, target: Target): SlotValues;
  /** Delivers; delivering twice has the effect of once. Null takes the place back to its own look. */
  deliver(target: Target, parcel: Parcel | null): Promise<void>;
  /** Reads from the platform what it now holds and shows of the parcel. */
  readBack(target: Target, parcel: Parcel | null): Promise<SlotValues>;
}
