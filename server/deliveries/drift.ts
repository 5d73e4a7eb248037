import { DeliveryFault, type Fault } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { Place, Receipt } from "../db/models/index.ts";
import type { DriftedSlot } from "../db/models/place.ts";
import { targetOf } from "../estate/target.ts";
import type { PersonId, PlaceId } from "../ids.ts";
import { announce } from "../live/changes.ts";
import { parcelOf } from "./parcel.ts";
import { differingSlots } from "./slots.ts";

export type CheckResult =
  | { ok: true; drift: DriftedSlot[] }
  | { ok: false; code: "nothing-live" }
  | { ok: false; code: "fault"; fault: Fault };

/** Reads from the platform what a place holds, and compares it with its receipt. */
export async function checkPlace(id: PlaceId): Promise<CheckResult> {
  const place = await Place.findByPk(id);
  const receipt = place?.liveReceiptId ? await Receipt.findByPk(place.liveReceiptId) : null;
  if (!place?.liveReleaseId || !receipt) return { ok: false, code: "nothing-live" };
  try {
    const target = await targetOf(id);
    if (!target) return { ok: false, code: "nothing-live" };
    const { account } = target.link;
    if (target.refused) throw new DeliveryFault({ code: "wrong-credential", account });
    const parcel = await parcelOf(place.liveReleaseId, target.platform);
    const found = await CONNECTORS[target.platform].readBack(target, parcel);
    const drift = differingSlots(receipt.found, found).map((slot) => ({
      slot,
      expected: receipt.found[slot] ?? "",
      found: found[slot] ?? "",
    }));
    await keep(place, drift);
    return { ok: true, drift };
  } catch (error) {
    if (!(error instanceof DeliveryFault)) throw error;
    await Place.update({ checkedAt: new Date() }, { where: { id } });
    return { ok: false, code: "fault", fault: error.fault };
  }
}

/** Keeps what a check found, unless something was delivered to the place meanwhile. */
async function keep(place: Place, drift: DriftedSlot[]): Promise<void> {
  await inTransaction(async (transaction) => {
    const [kept] = await Place.update(
      { checkedAt: new Date(), drift: drift.length > 0 ? drift : null },
      { where: { id: place.id, liveReceiptId: place.liveReceiptId }, transaction },
    );
    if (kept === 0) return;
    if (drift.length > 0 && place.drift === null)
      await record(
        {
          person: null,
          action: "drift-found",
          subjectKind: "place",
          subjectId: place.id,
          detail: { place: place.name, slots: drift.map((d) => d.slot) },
        },
        transaction,
      );
    if (drift.length > 0 !== (place.drift !== null)) await announce(place.id, transaction);
  });
}

/** Accepts what was found: the place shows something that is no release of ours, and that is all right. */
export async function acceptDrift(id: PlaceId, person: PersonId): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const place = await Place.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!place?.drift) return false;
    const slots = place.drift.map((d) => d.slot);
    await place.update({ liveReleaseId: null, liveReceiptId: null, drift: null }, { transaction });
    await record(
      {
        person,
        action: "drift-accepted",
        subjectKind: "place",
        subjectId: id,
        detail: { place: place.name, slots },
      },
      transaction,
    );
    await announce(id, transaction);
    return true;
  });
}
