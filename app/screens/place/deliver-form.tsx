import { Form, Link } from "react-router";
import { Stripe } from "../../components/stripe.tsx";
import type { Route } from "./+types/route";

/** Chooses a release for this one place; checks come before anything is sent. */
export function DeliverForm({ loaderData }: { loaderData: Route.ComponentProps["loaderData"] }) {
  const { place, releases } = loaderData;
  const live = place.live?.release.id ?? null;
  return (
    <section aria-labelledby="deliver" className="border border-hair bg-surface p-5">
      <h2 id="deliver">Deliver a release</h2>
      {releases.length === 0 ? (
        <p className="mt-2">
          Nothing is released yet.{" "}
          <Link to="/themes" className="go">
            Open a theme
          </Link>{" "}
          and release it first.
        </p>
      ) : (
        <Form method="get" action={`/estate/${place.id}/deliver`} className="mt-3">
          <fieldset>
            <legend className="sr-only">Release</legend>
            <div className="max-h-60 overflow-y-auto rows border-y border-hair">
              {releases.map((release, i) => (
                <label key={release.id} className="flex items-center gap-3 py-2 pl-1">
                  <input
                    type="radio"
                    name="release"
                    value={release.id}
                    defaultChecked={i === 0}
                    className="accent-ink"
                  />
                  <Stripe colours={release.stripe} className="h-7 w-20" />
                  <span className="min-w-0 flex-1 truncate">{release.name}</span>
                  <span className="pr-1 text-sm text-faint">
                    {[
                      ...(release.isOfTheme ? [] : ["another theme's"]),
                      ...(release.id === live ? ["live"] : []),
                    ].join(", ")}
                  </span>
                </label>
              ))}
            </div>
          </fieldset>
          <button type="submit" className="press press-main mt-3">
            Check and deliver …
          </button>
        </Form>
      )}
    </section>
  );
}
