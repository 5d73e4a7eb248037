import { Link, useSearchParams } from "react-router";
import { PLATFORMS } from "#connectors/connector.ts";
import { listSeasons } from "#server/estate/assignments.ts";
import { type Standing, viewEstate } from "#server/estate/tree.ts";
import { type ReleaseId, readId } from "#server/ids.ts";
import { listConnections } from "#server/platforms/connections.ts";
import { findRelease } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { listThemes } from "#server/themes/themes.ts";
import { Choice } from "../../components/choice.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { useLive } from "../../components/use-live.ts";
import { signedIn } from "../../session.ts";
import { platformWords, STANDING_WORDS, summaryWords } from "../../wording/estate.ts";
import type { Route } from "./+types/route";
import { Tree } from "./tree.tsx";

/** How many themes can be given by hand; more are found by search on the themes page. */
const THEMES_SHOWN = 200;

export const meta: Route.MetaFunction = () => [{ title: "Estate · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const chosen = readId<ReleaseId>(new URL(request.url).searchParams.get("release"));
  const [estate, themes, seasons, release, connections] = await Promise.all([
    viewEstate(),
    listThemes(1, THEMES_SHOWN),
    listSeasons(),
    chosen && findRelease(chosen),
    listConnections(),
  ]);
  return {
    mayChange: person.capability === "administrator",
    rows: estate.rows,
    releases: estate.releases.map(({ id, name, document }) => ({
      id,
      name,
      stripe: stripeOfDocument(document),
    })),
    themes: themes.lines.map(({ id, name, document }) => ({
      id,
      name,
      stripe: stripeOfDocument(document),
    })),
    seasons,
    connections: connections.map(({ id, name }) => ({ id, name })),
    release: release && {
      id: release.id,
      name: release.name,
      stripe: stripeOfDocument(release.document),
    },
  };
}

const STANDINGS: Standing[] = [
  "live",
  "due",
  "failed",
  "drifted",
  "under-way",
  "no-release",
  "no-theme",
];

export default function Estate({ loaderData }: Route.ComponentProps) {
  const { rows, release, mayChange } = loaderData;
  const [params, setParams] = useSearchParams();
  useLive();
  const filter = {
    search: params.get("search") ?? "",
    standing: params.get("standing") ?? "",
    platform: params.get("platform") ?? "",
  };
  const set = (name: string, value: string) =>
    setParams(
      (old) => {
        const next = new URLSearchParams(old);
        if (value === "") next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true, preventScrollReset: true },
    );
  const places = rows.filter((row) => row.standing !== "passes-on");
  return (
    <div className="mx-auto flex h-[calc(100vh-3rem)] min-h-[34rem] w-full min-w-0 max-w-7xl flex-col px-6 py-5">
      <div className="flex items-end justify-between gap-6 max-[60rem]:flex-wrap">
        <div className="min-w-0">
          <h1>Estate</h1>
          <p className="mt-1 text-faint">{summaryWords(places.map((row) => row.standing))}</p>
        </div>
        <span className="flex flex-wrap gap-2 min-[60rem]:shrink-0">
          <a href="/estate/export?as=csv" className="press py-1">
            Export
          </a>
          {mayChange ? (
            <>
              <Link to="/estate/import" className="press py-1">
                Import …
              </Link>
              <Link to="/estate/new" className="press py-1">
                Add a place …
              </Link>
              <Link to="/rollouts/new" className="press press-main py-1">
                Plan a rollout …
              </Link>
            </>
          ) : null}
        </span>
      </div>
      {release ? (
        <p
          role="status"
          className="mt-3 flex items-center gap-4 border border-edge bg-surface px-4 py-2.5"
        >
          <Stripe colours={release.stripe} className="h-8 w-24" />
          <span className="flex-1">
            <strong>“{release.name}” is released.</strong> It reaches nobody until it is delivered:
            to one place below, or wherever its theme applies.
          </span>
          {mayChange ? (
            <Link to={`/rollouts/new?release=${release.id}`} className="press press-main py-1">
              Wherever it applies …
            </Link>
          ) : null}
        </p>
      ) : null}
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <label htmlFor="search" className="sr-only">
          Find a place
        </label>
        <input
          id="search"
          type="search"
          defaultValue={filter.search}
          onChange={(event) => set("search", event.target.value)}
          placeholder="Find a place"
          className="entry w-72 py-1"
        />
        <Choice
          label="Standing"
          value={filter.standing}
          options={[
            { value: "", label: "all" },
            ...STANDINGS.map((value) => ({ value, label: STANDING_WORDS[value] })),
          ]}
          onChange={(value) => set("standing", value)}
        />
        <Choice
          label="Platform"
          value={filter.platform}
          options={[
            { value: "", label: "all" },
            ...PLATFORMS.map((value) => ({ value, label: platformWords(value) })),
          ]}
          onChange={(value) => set("platform", value)}
        />
        <Link to="/estate/seasons" className="go text-sm">
          Seasons{loaderData.seasons.length > 0 ? ` (${loaderData.seasons.length})` : ""}
        </Link>
      </div>
      <Tree {...loaderData} filter={filter} />
    </div>
  );
}
