import { data, Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { listDeliveries } from "#server/deliveries/deliveries.ts";
import { changeCredential, connectionOf, findPlace } from "#server/estate/estate.ts";
import type { PlaceId } from "#server/ids.ts";
import { listReleases } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { Field, Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import { useLive } from "../../components/use-live.ts";
import { found, idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import { PLATFORM_WORDS } from "../../wording/estate.ts";
import type { Route } from "./+types/route";
import { Deliveries } from "./deliveries.tsx";

const SHOWN = 20;

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { place?: { name: string } })?.place?.name ?? "Place"} · Livery` },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const place = found(await findPlace(idFrom<PlaceId>(params.place)));
  const [connection, deliveries, releases] = await Promise.all([
    connectionOf(place.id),
    listDeliveries(place.id, SHOWN),
    listReleases(SHOWN),
  ]);
  return {
    place,
    connection,
    deliveries,
    mayChange: person.capability === "administrator",
    liveStripe: place.live && stripeOfDocument(place.live.release.document),
    releases: releases.map(({ id, name, theme, number, document }) => ({
      id,
      name,
      theme,
      number,
      stripe: stripeOfDocument(document),
    })),
  };
}

const credential = z.object({
  account: z.string().trim().min(1, "Enter the account's name.").max(254),
  password: z.string().min(1, "Enter the account's password.").max(1000),
});

/** Changes the account that the platform is reached with. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const id = idFrom<PlaceId>(params.place);
  const entered = Object.fromEntries(await request.formData());
  const read = credential.safeParse(entered);
  if (!read.success)
    return data({ problems: z.flattenError(read.error).fieldErrors }, { status: 400 });
  const changed = await changeCredential(id, read.data.account, read.data.password, person.id);
  if (!changed) throw data(null, { status: 404 });
  return redirect(`/estate/${id}`);
}

export default function Place({ loaderData, actionData }: Route.ComponentProps) {
  const { place, connection, deliveries, releases, liveStripe, mayChange } = loaderData;
  useLive(place.id);
  return (
    <Page
      title={place.name}
      lead={place.platform ? PLATFORM_WORDS[place.platform] : undefined}
      actions={
        place.page ? (
          <a href={place.page} className="press" target="_blank" rel="noreferrer">
            Open {place.name}
          </a>
        ) : null
      }
    >
      <div className="grid grid-cols-[1.5fr_1fr] items-start gap-8">
        <div>
          <section aria-labelledby="live" className="border border-hair bg-surface p-5">
            <h2 id="live">Live now</h2>
            {place.live && liveStripe ? (
              <div className="mt-3 flex items-center gap-5">
                <Stripe colours={liveStripe} className="h-14 w-40" />
                <div>
                  <p className="text-lg font-semibold">{place.live.release.name}</p>
                  <p className="text-sm text-faint">
                    Read back from the platform <Time at={place.live.readAt} />, equal to what was
                    sent
                  </p>
                </div>
              </div>
            ) : (
              <p className="mt-2 text-faint">
                Livery has delivered nothing here yet, so the platform shows its own look.
              </p>
            )}
          </section>
          <Deliveries deliveries={deliveries} />
        </div>
        <div className="space-y-6">
          {mayChange ? (
            <DeliverForm
              placeId={place.id}
              releases={releases}
              live={place.live?.release.id ?? null}
            />
          ) : null}
          {connection ? (
            <Connection
              connection={connection}
              mayChange={mayChange}
              problems={actionData?.problems ?? {}}
            />
          ) : null}
        </div>
      </div>
    </Page>
  );
}

interface DeliverFormProps {
  placeId: string;
  releases: Route.ComponentProps["loaderData"]["releases"];
  live: string | null;
}

function DeliverForm({ placeId, releases, live }: DeliverFormProps) {
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
        <Form method="get" action={`/estate/${placeId}/deliver`} className="mt-3">
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
                  {release.id === live ? <span className="text-sm text-faint">live</span> : null}
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

interface ConnectionProps {
  connection: NonNullable<Route.ComponentProps["loaderData"]["connection"]>;
  mayChange: boolean;
  problems: { account?: string[]; password?: string[] };
}

/** How the platform is reached. The password goes in and is never shown again. */
function Connection({ connection, mayChange, problems }: ConnectionProps) {
  const busy = useNavigation().formMethod === "POST";
  const wrong = Object.keys(problems).length > 0;
  return (
    <section aria-labelledby="connection" className="border border-hair bg-surface p-5">
      <h2 id="connection">Connection</h2>
      <dl className="mt-2 grid grid-cols-[5.5rem_1fr] gap-y-1 text-sm">
        <dt className="text-faint">Address</dt>
        <dd className="break-all">{connection.address}</dd>
        <dt className="text-faint">Tenant</dt>
        <dd>{connection.scope}</dd>
        <dt className="text-faint">Account</dt>
        <dd className="break-all">{connection.account}</dd>
        <dt className="text-faint">Password</dt>
        <dd>stored encrypted, never shown</dd>
      </dl>
      {mayChange ? (
        <details className="mt-3" open={wrong || undefined}>
          <summary className="go">Change the account</summary>
          <Form method="post" className="mt-3 space-y-3" noValidate key={connection.account}>
            <Field
              id="account"
              label="Account on the platform"
              defaultValue={connection.account}
              errors={problems.account}
              autoComplete="off"
            />
            <Field
              id="password"
              label="Its password"
              type="password"
              errors={problems.password}
              autoComplete="off"
            />
            {wrong ? <Problem>Nothing was changed.</Problem> : null}
            <button type="submit" className="press" disabled={busy}>
              Store
            </button>
          </Form>
        </details>
      ) : null}
    </section>
  );
}
