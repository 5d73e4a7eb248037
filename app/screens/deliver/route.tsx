import { data, Form, Link, redirect, useNavigation } from "react-router";
import { preflight, requestDelivery } from "#server/deliveries/deliveries.ts";
import { findPlace } from "#server/estate/places.ts";
import { viewEstate } from "#server/estate/tree.ts";
import type { PlaceId, ReleaseId } from "#server/ids.ts";
import { findRelease } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { openTheme } from "#server/themes/themes.ts";
import { Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { Verdict } from "../../components/verdict.tsx";
import { found, idFrom } from "../../params.ts";
import { mayChange } from "../../session.ts";
import { platformNotice } from "../../wording/estate.ts";
import { faultWords, PREFLIGHT_WORDS, remedyWords } from "../../wording/fault.ts";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = () => [{ title: "Deliver · Livery" }];

const releaseIn = (request: Request) =>
  idFrom<ReleaseId>(new URL(request.url).searchParams.get("release") ?? undefined);

/** Runs the checks that change nothing, anew at each visit. */
export async function loader({ request, params }: Route.LoaderArgs) {
  await mayChange(request);
  const place = found(await findPlace(idFrom<PlaceId>(params.place)));
  const release = found(await findRelease(releaseIn(request)));
  const checks = found(await preflight(place.id, release.id));
  const { rows } = await viewEstate();
  const theme = rows.find((row) => row.id === place.id)?.effective.theme ?? null;
  const isOther = theme !== null && theme !== release.themeId;
  return {
    place,
    release,
    checks,
    /** The theme that the place has, where the release is of another. */
    otherThan: isOther ? ((await openTheme(theme))?.name ?? null) : null,
    followers: checks.flatMap((check) => check.inheritedBy ?? []),
    before: place.live && stripeOfDocument(place.live.release.document),
    after: stripeOfDocument(release.document),
  };
}

/** Queues the delivery. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const place = idFrom<PlaceId>(params.place);
  const result = await requestDelivery(place, releaseIn(request), person.id);
  if (result.ok) return redirect(`/estate/${place}`);
  if (result.code === "no-such-place") throw data(null, { status: 404 });
  return data(
    {
      problem:
        "A delivery to this place is under way. Wait until it has ended, then deliver this one.",
    },
    { status: 409 },
  );
}

export default function Deliver({ loaderData, actionData }: Route.ComponentProps) {
  const { place, release, checks, before, after, otherThan, followers } = loaderData;
  const busy = useNavigation().state !== "idle";
  const obstacles = checks.filter((c) => c.outcome !== "clear").length;
  return (
    <Page
      title={`Deliver “${release.name}” to ${place.name}`}
      lead="Nothing has been sent yet."
      actions={
        <Link to={`/estate/${place.id}`} className="press">
          Back to {place.name}
        </Link>
      }
    >
      <div className="grid grid-cols-[1fr_1.3fr] items-start gap-8">
        <section aria-labelledby="change" className="border border-hair bg-surface p-5">
          <h2 id="change">What will change</h2>
          <dl className="mt-3 space-y-4">
            <div>
              <dt className="mb-1 text-sm text-faint">Readers see now</dt>
              <dd className="flex items-center gap-3">
                {before && place.live ? (
                  <>
                    <Stripe colours={before} className="h-10 w-32" />
                    {place.live.release.name}
                  </>
                ) : (
                  "the platform's own look"
                )}
              </dd>
            </div>
            <div>
              <dt className="mb-1 text-sm text-faint">Readers will see</dt>
              <dd className="flex items-center gap-3">
                <Stripe colours={after} className="h-10 w-32" />
                {release.name}
              </dd>
            </div>
          </dl>
          <p className="mt-4 text-sm text-faint">
            {followers.length === 0
              ? `One place: ${place.name}.`
              : `${place.name}, and what follows it: ${followers.join(", ")}.`}{" "}
            {platformNotice(place.platform, release.name)}
          </p>
          {otherThan ? (
            <p className="mt-3 border-l-2 border-ink pl-3 text-sm">
              <strong>
                {place.name} has the theme {otherThan}.
              </strong>{" "}
              The next rollout would deliver that one here again. To keep this look, give the place
              its theme in the estate.
            </p>
          ) : null}
        </section>
        <section aria-labelledby="checks" className="border border-hair bg-surface p-5">
          <h2 id="checks">
            {obstacles === 0 ? "Nothing stands in the way" : "This can't be delivered yet"}
          </h2>
          <ul className="rows mt-3 border-y border-hair">
            {checks.map((check) => (
              <Check key={check.subject} check={check} />
            ))}
          </ul>
          {actionData ? <Problem>{actionData.problem}</Problem> : null}
          <div className="mt-4 flex gap-3">
            {obstacles === 0 ? (
              <Form method="post">
                <button type="submit" className="press press-main" disabled={busy}>
                  Deliver now
                </button>
              </Form>
            ) : (
              <Form method="get">
                <input type="hidden" name="release" value={release.id} />
                <button type="submit" className="press press-main" disabled={busy}>
                  Check again
                </button>
              </Form>
            )}
          </div>
        </section>
      </div>
    </Page>
  );
}

function Check({ check }: { check: Route.ComponentProps["loaderData"]["checks"][number] }) {
  const words = PREFLIGHT_WORDS[check.subject];
  return (
    <li className="flex gap-3 py-2" data-check={check.subject} data-outcome={check.outcome}>
      <span className="mt-1">
        {check.outcome === "unknown" ? (
          <span aria-hidden="true" className="block w-3 text-center leading-none text-faint">
            ?
          </span>
        ) : (
          <Verdict passes={check.outcome === "clear"} />
        )}
      </span>
      {check.fault ? (
        <span>
          <strong className="font-semibold">{faultWords(check.fault)}</strong>{" "}
          {remedyWords(check.fault)}
        </span>
      ) : check.outcome === "clear" ? (
        <span>{words.clear}</span>
      ) : (
        <span className="text-faint">
          {words.asked} Not known until the obstacle above is gone.
        </span>
      )}
    </li>
  );
}
