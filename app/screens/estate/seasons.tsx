import { Form } from "react-router";
import { listSeasons, removeSeason } from "#server/estate/assignments.ts";
import { readId, type SeasonId } from "#server/ids.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { listThemes } from "#server/themes/themes.ts";
import { Page } from "../../components/page.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/seasons";

const DAY_MS = 86_400_000;
/** How much the timeline shows at the least, in days. */
const LEAST_DAYS = 60;

export const meta: Route.MetaFunction = () => [{ title: "Seasons · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const [seasons, themes] = await Promise.all([listSeasons(), listThemes(1, 200)]);
  return {
    today: new Date().toISOString().slice(0, 10),
    mayChange: person.capability === "administrator",
    seasons: seasons.map((season) => {
      const document = themes.lines.find((t) => t.id === season.theme.id)?.document;
      return { ...season, stripe: document ? stripeOfDocument(document) : null };
    }),
  };
}

export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const id = readId<SeasonId>((await request.formData()).get("season"));
  if (id) await removeSeason(id, person.id);
  return null;
}

const dayOf = (iso: string) => Date.parse(`${iso}T00:00:00Z`) / DAY_MS;

export default function Seasons({ loaderData }: Route.ComponentProps) {
  const { seasons, today, mayChange } = loaderData;
  const first = dayOf(today);
  const last = Math.max(first + LEAST_DAYS, ...seasons.map((s) => dayOf(s.until) + 1));
  const at = (day: number) => `${(Math.max(0, day - first) / (last - first)) * 100}%`;
  return (
    <Page
      title="Seasons"
      lead="Themes that places have for a time. After the last day each returns to what it had."
    >
      {seasons.length === 0 ? (
        <p className="text-faint">
          None is planned. Plan one from a place's actions in the estate.
        </p>
      ) : (
        <div className="border border-hair bg-surface p-4">
          <p className="flex justify-between text-xs text-faint">
            <span>today, {today}</span>
            <span>{new Date(last * DAY_MS).toISOString().slice(0, 10)}</span>
          </p>
          <ol className="mt-2 space-y-4">
            {seasons.map((season) => (
              <li key={season.id}>
                <div className="relative h-7 border-l border-hair bg-ground">
                  <span
                    aria-hidden="true"
                    className="absolute inset-y-0 overflow-hidden border border-edge"
                    style={{
                      left: at(dayOf(season.from)),
                      right: `calc(100% - ${at(dayOf(season.until) + 1)})`,
                    }}
                  >
                    {season.stripe ? (
                      <Stripe colours={season.stripe} className="h-full w-full" />
                    ) : null}
                  </span>
                </div>
                <p className="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm">
                  <strong>{season.theme.name}</strong> at {season.place.name}, {season.from} to{" "}
                  {season.until}
                  <span className="text-faint">
                    {season.delivers ? "delivered by itself" : "delivered by hand"}
                  </span>
                  {mayChange ? (
                    <Form method="post" className="inline">
                      <input type="hidden" name="season" value={season.id} />
                      <button type="submit" className="go">
                        Take away
                      </button>
                    </Form>
                  ) : null}
                </p>
              </li>
            ))}
          </ol>
        </div>
      )}
    </Page>
  );
}
