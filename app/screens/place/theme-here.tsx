import { useState } from "react";
import { Link } from "react-router";
import { ChangeDialog, type Wanted } from "../../components/change-dialog.tsx";
import { Standing } from "../../components/standing.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { effectiveWords } from "../../wording/effective.ts";
import type { Route } from "./+types/route";

/** Which theme the place has and why, its seasons, and what can be done about it. */
export function ThemeHere({ loaderData }: { loaderData: Route.ComponentProps["loaderData"] }) {
  const { place, row, names, themes, seasons, mayChange, parents } = loaderData;
  const [wanted, setWanted] = useState<Wanted | null>(null);
  if (!row) return null;
  const theme = themes.find((t) => t.id === row.effective.theme);
  const self = { id: place.id as string, name: place.name };
  const follows = place.platform !== null && place.connectionId === null;
  return (
    <section aria-labelledby="theme" className="mt-6 border border-hair bg-surface p-5">
      <h2 id="theme">Theme</h2>
      <div className="mt-3 flex items-center gap-4">
        {theme ? <Stripe colours={theme.stripe} className="h-9 w-28" /> : null}
        <p className="flex-1">
          <strong>{theme?.name ?? "None"}</strong>
          <span className="block text-sm text-faint">
            {effectiveWords(row.effective.reason, new Map(Object.entries(names)))}
            {row.locked ? "; locked for everything below" : ""}
          </span>
        </p>
        <Standing standing={row.standing} />
      </div>
      {follows ? (
        <p className="mt-2 text-sm">
          The platform shows the palette of the hub here; nothing is delivered to it alone.
        </p>
      ) : null}
      {seasons.length > 0 ? (
        <ul className="mt-3 text-sm">
          {seasons.map((season) => (
            <li key={season.id}>
              {season.theme.name} from {season.from} to {season.until}{" "}
              <Link to="/estate/seasons" className="go">
                Seasons
              </Link>
            </li>
          ))}
        </ul>
      ) : null}
      {mayChange ? (
        <div className="mt-3 flex flex-wrap gap-2">
          <button
            type="button"
            className="press py-1"
            onClick={() => setWanted({ kind: "assign", places: [self] })}
          >
            Give a theme …
          </button>
          {row.own ? (
            <button
              type="button"
              className="press py-1"
              onClick={() => setWanted({ kind: "lock", place: self, locked: !row.locked })}
            >
              {row.locked ? "Unlock …" : "Lock for all below …"}
            </button>
          ) : null}
          <button
            type="button"
            className="press py-1"
            onClick={() => setWanted({ kind: "season", place: self })}
          >
            Plan a season …
          </button>
          {place.parentId ? (
            <button
              type="button"
              className="press py-1"
              onClick={() => setWanted({ kind: "move", place: self })}
            >
              Move …
            </button>
          ) : null}
          <Link to={`/rollouts/new?below=${place.id}`} className="press py-1">
            Plan a rollout …
          </Link>
        </div>
      ) : null}
      <ChangeDialog
        wanted={wanted}
        themes={themes}
        parents={parents}
        onClose={() => setWanted(null)}
      />
    </section>
  );
}
