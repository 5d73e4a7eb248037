import { DeliveryFault, type Fault, isPassing, waitOf } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { MOST_ATTEMPTS, MOST_BEGINNINGS, pauseAfter, spreadWait } from "#core/estate/attempts.ts";
import { config } from "../config.ts";
import { clear, hostedAddress, type PlaceTarget } from "../estate/target.ts";
import { type DeliveryId, newId, type ReceiptId } from "../ids.ts";
import { markRefused } from "../platforms/connections.ts";
import { advance } from "../rollouts/advance.ts";
import { parcelOf } from "./parcel.ts";
import { differingSlots, digest } from "./slots.ts";
import {
  type Begun,
  begin,
  endWithFault,
  endWithReceipt,
  host,
  putOff,
  waveEndedBy,
} from "./steps.ts";

/**
 * The job of one delivery: deliver, read back, write the receipt. It may be killed at any point and
 * run again, since delivering twice has the effect of once and the receipt is written together
 * with the delivery's end. Faults end in the delivery's row; anything else is thrown for the queue.
 */
export async function runDelivery(id: DeliveryId): Promise<void> {
  const begun = await begin(id);
  if (begun) await deliver(begun);
  // Also where it had ended before: the process may have been killed between its end and this.
  const ended = await waveEndedBy(id);
  if (ended) await advance(ended);
}

async function deliver(begun: Begun): Promise<void> {
  try {
    await carry(begun, targetIn(begun));
  } catch (error) {
    if (!(error instanceof DeliveryFault)) throw error;
    if (error.fault.code === "wrong-credential" && begun.connection && !begun.refused)
      await markRefused(begun.connection);
    await fail(begun, error.fault);
  }
}

function targetIn(begun: Begun): PlaceTarget {
  const { place, platform, connection, address, scope, account, secret, key, slug } = begun;
  if (!platform || !connection || address === null || account === null || key === null)
    throw new DeliveryFault({ code: "no-such-place", key: place });
  if (begun.refused) throw new DeliveryFault({ code: "wrong-credential", account });
  return {
    platform,
    connection,
    refused: false,
    link: { address, scope: scope ?? "", account, secret: clear(secret ?? "") },
    key,
    hosted: hostedAddress(slug),
  };
}

async function carry({ id, place, release }: Begun, target: PlaceTarget): Promise<void> {
  const connector = CONNECTORS[target.platform];
  const parcel = release && (await parcelOf(release, target.platform));
  await connector.deliver(target, parcel);
  await host(place, release);
  const found = await connector.readBack(target, parcel);
  const sent = connector.expected(parcel, target);
  const differing = differingSlots(sent, found);
  await endWithReceipt(
    id,
    {
      receipt: newId<ReceiptId>(),
      sent,
      sentSha256: digest(sent),
      found,
      foundSha256: digest(found),
    },
    differing.length > 0 ? { code: "read-back-differs", slots: differing } : null,
  );
}

async function fail({ id, failures, attempt }: Begun, fault: Fault): Promise<void> {
  const asked = waitOf(fault);
  const failed = failures + (asked === null ? 1 : 0);
  const givesUp = failed >= MOST_ATTEMPTS || attempt >= MOST_BEGINNINGS;
  if (!isPassing(fault) || givesUp) return endWithFault(id, fault);
  const pause =
    asked === null
      ? pauseAfter(failed, config().LIVERY_RETRY_MS)
      : spreadWait(asked, attempt, Math.random());
  await putOff(id, fault, failed, new Date(Date.now() + pause));
}
