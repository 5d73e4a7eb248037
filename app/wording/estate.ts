import type { Limit, Platform } from "#connectors/connector.ts";
import type { PlaceKind } from "#core/estate/tree.ts";
import type { DeliveryState } from "#server/db/models/delivery.ts";
import type { RolloutState } from "#server/db/models/rollout.ts";
import type { ChangeRefusal } from "#server/estate/assignments.ts";
import type { PlaceRefusal } from "#server/estate/places.ts";
import type { Standing } from "#server/estate/tree.ts";

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

export const PLATFORM_WORDS: Record<Platform, string> = {
  commons: "intranet on Commons",
  sluice: "low-code app on Sluice",
  gangway: "portal on Gangway",
  bollard: "internal app on Bollard",
  tidemark: "dashboard on Tidemark",
};

export const platformWords = (platform: string | null): string =>
  platform === null ? "" : (PLATFORM_WORDS[platform as Platform] ?? platform);

/** What a platform can't do, or does in its own way. */
export const LIMIT_WORDS: Record<Limit, string> = {
  "one-scheme":
    "It shows one scheme at a time. Each release goes up as two palettes, light and dark, under two names.",
  "sites-follow-hub": "Sites that are attached to a hub always have the hub's palette.",
  "shows-later": "Its pages show a change only after a while.",
  "theming-switch": "Themes apply only where a switch in the app's own settings is on.",
  caches: "Its pages may show the look before for a while.",
  "stylesheet-size": "Its stylesheet may have 64 KB at most.",
  "six-values":
    "It takes six colours a scheme, a font by its name and a size in rem; no other role.",
  "nothing-is-sent":
    "Nothing is sent to it. It links a stylesheet that Livery hosts, and a visit of its page shows which version it has.",
  "mark-is-drawn": "No logo was handed over, so a mark is drawn from the theme's colours.",
};

export const STATE_WORDS: Record<DeliveryState, string> = {
  planned: "Planned",
  queued: "Waiting",
  delivering: "Under way",
  delivered: "Delivered and confirmed",
  failed: "Not delivered",
  stopped: "Stopped before it began",
};

export const ROLLOUT_WORDS: Record<RolloutState, string> = {
  scheduled: "Planned for later",
  running: "Under way",
  waiting: "Waits for you",
  paused: "Paused",
  stopped: "Stopped",
  done: "Done",
};

export const STANDING_WORDS: Record<Standing, string> = {
  "passes-on": "",
  "no-theme": "No theme",
  "no-release": "Theme not released",
  due: "Newer to deliver",
  live: "As it should be",
  drifted: "Changed elsewhere",
  "under-way": "Under way",
  failed: "Not delivered",
};

/** How many places stand how, those that need something first. */
const COUNTED: [Standing, string][] = [
  ["failed", "not delivered"],
  ["drifted", "changed elsewhere"],
  ["due", "with something newer to deliver"],
  ["no-theme", "without a theme"],
  ["no-release", "whose theme is not released"],
  ["under-way", "under way"],
  ["live", "as they should be"],
];

/** How all places that are delivered to stand, in one sentence. */
export function summaryWords(standings: readonly Standing[]): string {
  const all = standings.length;
  if (all === 0) return "No place is delivered to yet.";
  const counts = COUNTED.map(([standing, words]) => ({
    words,
    n: standings.filter((s) => s === standing).length,
  })).filter(({ n }) => n > 0);
  const places = all === 1 ? "One place is delivered to" : `${all} places are delivered to`;
  return `${places}: ${counts.map(({ n, words }) => `${n} ${words}`).join(", ")}.`;
}

/** Why a change of the estate can't be made. */
export function refusalWords(refusal: ChangeRefusal): string {
  switch (refusal.code) {
    case "no-such-place":
      return "A place is no longer there. Load the page again.";
    case "locked-above":
      return `${refusal.place} can't have another theme: ${refusal.by} has locked its own for everything below. Unlock it there first.`;
    case "no-theme-to-lock":
      return `${refusal.place} has no theme of its own. Give it one, then lock it.`;
    case "overlaps":
      return `${refusal.place} has a season from ${refusal.from} to ${refusal.until} already. Choose other days, or take that one away.`;
    case "ends-before-it-begins":
      return "The season ends before it begins. Choose a later last day.";
    case "below-itself":
      return "A place can't be moved below itself.";
    case "kind-does-not-fit":
      return "A place of this kind can't stand there. Areas stand below applications, applications below tenants, tenants below the organisation.";
  }
}

export const PLACE_REFUSAL_WORDS: Record<PlaceRefusal, string> = {
  "no-such-place": "The place is no longer there. Load the page again.",
  "kind-does-not-fit":
    "A place of this kind can't stand there. Areas stand below applications, applications below tenants, tenants below the organisation.",
  "name-taken": "Another place beside it has this name. Choose one that people can tell apart.",
  "no-such-connection": "That connection is no longer there. Choose another.",
  "below-itself": "A place can't be moved below itself.",
  "has-places-below": "Places stand below it. Move or retire them first.",
  "under-way": "A delivery to it is under way. Wait until it has ended.",
};
