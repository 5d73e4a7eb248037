import { z } from "zod";
import { PLATFORMS, type Platform, type SlotMap } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { ROLES } from "#core/theme/roles.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { SlotMapRow } from "../db/models/index.ts";
import type { PersonId } from "../ids.ts";

const changes = z.record(z.string(), z.enum(ROLES));

/** Each platform's slots with the roles that fill them now, as changed by people. */
export async function readSlotMaps(): Promise<Record<Platform, SlotMap>> {
  const rows = await SlotMapRow.findAll();
  const of = (platform: Platform): SlotMap => {
    const { usualSlots } = CONNECTORS[platform];
    const changed = rows.find((row) => row.platform === platform)?.slots ?? {};
    return Object.fromEntries(
      Object.entries(usualSlots).map(([slot, usual]) => [slot, changed[slot] ?? usual]),
    );
  };
  return Object.fromEntries(PLATFORMS.map((platform) => [platform, of(platform)])) as Record<
    Platform,
    SlotMap
  >;
}

/**
 * Fills a platform's slots anew, for releases that are made from now on. Slots that the platform
 * hasn't are refused; an empty map sets everything back.
 */
export async function changeSlotMap(
  platform: Platform,
  slots: unknown,
  person: PersonId,
): Promise<boolean> {
  const read = changes.safeParse(slots);
  const { usualSlots } = CONNECTORS[platform];
  if (!read.success || Object.keys(read.data).some((slot) => !(slot in usualSlots))) return false;
  const changed = Object.fromEntries(
    Object.entries(read.data).filter(([slot, role]) => usualSlots[slot] !== role),
  );
  await inTransaction(async (transaction) => {
    await SlotMapRow.upsert(
      { platform, slots: changed, changedBy: person, changedAt: new Date() },
      { transaction },
    );
    await record(
      {
        person,
        action: "slot-map-changed",
        subjectKind: "connection",
        subjectId: null,
        detail: { platform, slots: changed },
      },
      transaction,
    );
  });
  return true;
}
