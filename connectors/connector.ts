import type { Theme } from "#core/theme/theme.ts";

export const PLATFORMS = ["commons"] as const;
export type Platform = (typeof PLATFORMS)[number];

/** How a platform is reached. The secret is clear only here, on its way to the platform. */
export interface Link {
  address: string;
  /** The tenant, on platforms that hold several. */
  scope: string;
  account: string;
  secret: string;
}

/** One file made from a release, in a platform's own form. */
export interface Artefact {
  name: string;
  mediaType: string;
  body: string;
}

/** What is to be delivered: a release's name and its artefacts for this platform. */
export interface Parcel {
  name: string;
  artefacts: readonly Artefact[];
}

/** What a platform holds, slot by slot, flat: what was sent and what was found are compared by it. */
export type SlotValues = Record<string, string>;

/** Why a platform could not be worked with, as data; the words are the interface's. */
export type Fault =
  | { code: "unreachable"; address: string }
  | { code: "platform-error"; status: number }
  | { code: "nonsense"; where: string }
  | { code: "wrong-credential"; account: string }
  | { code: "no-right"; account: string; scope: string }
  | { code: "no-such-place"; key: string }
  | { code: "name-too-long"; name: string; longest: number }
  | { code: "name-taken"; name: string }
  | { code: "slots-missing"; slots: string[] }
  | { code: "read-back-differs"; slots: string[] };

/** Faults that may pass by themselves, so that trying again makes sense. */
export const isPassing = (fault: Fault): boolean =>
  fault.code === "unreachable" || fault.code === "platform-error" || fault.code === "nonsense";

export class DeliveryFault extends Error {
  override name = "DeliveryFault";
  constructor(readonly fault: Fault) {
    super(fault.code);
  }
}

export const PREFLIGHT_SUBJECTS = ["reachable", "right", "place", "name", "slots"] as const;
export type PreflightSubject = (typeof PREFLIGHT_SUBJECTS)[number];

/** One thing looked at before anything is sent; `unknown` where an earlier obstacle hides it. */
export interface PreflightCheck {
  subject: PreflightSubject;
  outcome: "clear" | "obstacle" | "unknown";
  fault: Fault | null;
}

/** The code that speaks to one kind of platform. Every method may throw DeliveryFault. */
export interface Connector {
  platform: Platform;
  /** The files that a release holds for this platform. Pure. */
  artefacts(theme: Theme): Artefact[];
  /** Looks at everything that could stand in the way, and changes nothing. */
  preflight(link: Link, key: string, parcel: Parcel): Promise<PreflightCheck[]>;
  /** What the platform holds once the parcel is delivered. Pure. */
  expected(parcel: Parcel): SlotValues;
  /** Delivers; delivering twice has the effect of once. */
  deliver(link: Link, key: string, parcel: Parcel): Promise<void>;
  /** Reads from the platform what it now holds of the parcel. */
  readBack(link: Link, key: string, parcel: Parcel): Promise<SlotValues>;
}
