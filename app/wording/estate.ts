import type { DeliveryState } from "#server/db/models/delivery.ts";
import type { PlaceKind } from "#server/db/models/place.ts";

export const KIND_WORDS: Record<PlaceKind, string> = {
  organisation: "Organisation",
  tenant: "Tenant",
  application: "Application",
  area: "Area",
};

/** What people must know before they deliver to a kind of platform. */
export const platformNotice = (platform: string | null, release: string): string | null =>
  platform === "commons"
    ? `Commons shows one scheme at a time, so readers get the light palette; the dark one goes up beside it as “${release} (dark)”.`
    : null;

export const PLATFORM_WORDS: Record<string, string> = { commons: "intranet on Commons" };

export const STATE_WORDS: Record<DeliveryState, string> = {
  queued: "Waiting",
  delivering: "Under way",
  delivered: "Delivered and confirmed",
  failed: "Not delivered",
};
