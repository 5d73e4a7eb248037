import type { Parcel, Platform } from "#connectors/connector.ts";
import { Release } from "../db/models/index.ts";
import type { ReleaseId } from "../ids.ts";

const kept = new Map<string, Parcel>();
const MOST_KEPT = 40;

/** A release as a parcel for one platform; null where there is no such release. Releases never change. */
export async function parcelOf(release: ReleaseId, platform: Platform): Promise<Parcel | null> {
  const key = `${release} ${platform}`;
  const known = kept.get(key);
  if (known) return known;
  const row = await Release.findByPk(release, { attributes: ["name", "artefacts"] });
  if (!row) return null;
  const parcel = {
    name: row.name,
    artefacts: row.artefacts.filter((a) => a.platform === platform),
  };
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(key, parcel);
  return parcel;
}
