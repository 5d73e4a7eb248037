import { toHex } from "#core/colour/srgb.ts";
import type { Scheme } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import {
  DeliveryFault,
  type Fault,
  type Parcel,
  type PreflightCheck,
  type PreflightSubject,
  type SlotMap,
  type SlotValues,
} from "./connector.ts";

export const check = (subject: PreflightSubject, fault: Fault | null): PreflightCheck => ({
  subject,
  outcome: fault ? "obstacle" : "clear",
  fault,
});

export const unknown = (subject: PreflightSubject): PreflightCheck => ({
  subject,
  outcome: "unknown",
  fault: null,
});

export function faultOf(error: unknown): Fault {
  if (error instanceof DeliveryFault) return error.fault;
  throw error;
}

/** What a look finds in the way; a fault on the way counts as one. */
export async function obstacle(look: () => Promise<Fault | null>): Promise<Fault | null> {
  try {
    return await look();
  } catch (error) {
    return faultOf(error);
  }
}

/** What is known where the first call failed: a refused credential shows that the platform answers. */
export function beforeEntry(fault: Fault, hidden: readonly PreflightSubject[]): PreflightCheck[] {
  const answers = fault.code === "wrong-credential" || fault.code === "no-right";
  return [
    check("reachable", answers ? null : fault),
    answers ? check("right", fault) : unknown("right"),
    ...hidden.map(unknown),
  ];
}

/** Slots with the colours of one scheme, as hex digits with or without the number sign. */
export const filled = (
  theme: Theme,
  scheme: Scheme,
  slots: SlotMap,
  sign: "#" | "" = "#",
): SlotValues =>
  Object.fromEntries(
    Object.entries(slots).map(([slot, role]) => [
      slot,
      sign + toHex(theme.schemes[scheme].standard[role].colour).slice(1),
    ]),
  );

/** Whether two states of a platform are one. */
export const sameValues = (a: SlotValues, b: SlotValues): boolean =>
  Object.keys(a).length === Object.keys(b).length &&
  Object.entries(a).every(([slot, value]) => b[slot] === value);

export const prefixed = (prefix: string, values: SlotValues): SlotValues =>
  Object.fromEntries(Object.entries(values).map(([slot, value]) => [`${prefix} ${slot}`, value]));

/** An artefact of a parcel by its name; throws `slots-missing` where the release has none. */
export function artefactOf(parcel: Parcel, name: string): Parcel["artefacts"][number] {
  const found = parcel.artefacts.find((a) => a.name === name);
  if (!found) throw new DeliveryFault({ code: "slots-missing", slots: [name] });
  return found;
}

export const bytesOf = (text: string): number => new TextEncoder().encode(text).length;
