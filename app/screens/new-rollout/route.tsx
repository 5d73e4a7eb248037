import { useEffect, useState } from "react";
import { data, Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { planWaves } from "#core/estate/waves.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { type PlaceId, type ReleaseId, readId } from "#server/ids.ts";
import { findRelease, listReleases, namesOf } from "#server/releases/releases.ts";
import { planPlaces } from "#server/rollouts/plan.ts";
import { type PlaceChecks, preflightAll } from "#server/rollouts/preflight.ts";
import { createRollout } from "#server/rollouts/rollouts.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { Field, Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { mayChange } from "../../session.ts";
import { platformWords } from "../../wording/estate.ts";
import type { Route } from "./+types/route";
import { Checks } from "./checks.tsx";

const RELEASES_SHOWN = 100;
/** Places that are looked at before a rollout; a larger one is checked as each wave begins. */
const MOST_CHECKED = 120;

export const meta: Route.MetaFunction = () => [{ title: "Plan a rollout · Livery" }];

const idsIn = (params: URLSearchParams): PlaceId[] =>
  params.getAll("below").flatMap((text) => readId<PlaceId>(text) ?? []);

export async function loader({ request }: Route.LoaderArgs) {
  await mayChange(request);
  const params = new URL(request.url).searchParams;
  const chosen = readId<ReleaseId>(params.get("release"));
  const [places, releases, release] = await Promise.all([
    planPlaces(chosen, idsIn(params)),
    listReleases(RELEASES_SHOWN),
    chosen && findRelease(chosen),
  ]);
  const waves = planWaves(places);
  const waveOf = new Map(waves.flatMap((wave, i) => wave.map((id) => [id, i + 1] as const)));
  const names = await namesOf(
    places.flatMap((p) => [p.release, p.live]).filter((id) => id !== null),
  );
  const look = (id: ReleaseId | null) => {
    const found = id && names.get(id);
    return found
      ? { name: found.name, stripe: stripeOfDocument(found.document as ThemeDocument) }
      : null;
  };
  const isChecked = params.get("check") !== null;
  const checked: PlaceChecks[] = isChecked
    ? await preflightAll(
        places.slice(0, MOST_CHECKED).map((p) => ({ place: p.id, release: p.release })),
      )
    : [];
  return {
    release: release && { id: release.id, name: release.name, theme: release.theme },
    releases: releases.map(({ id, name, theme }) => ({ id, name, theme })),
    below: idsIn(params),
    waves: waves.length,
    isChecked,
    unchecked: isChecked ? Math.max(0, places.length - MOST_CHECKED) : 0,
    places: places.map((place) => ({
      ...place,
      wave: waveOf.get(place.id) ?? 1,
      gets: look(place.release),
      has: look(place.live),
      checks: checked.find((c) => c.place === place.id)?.checks ?? null,
    })),
  };
}

const form = z.object({
  name: z.string().trim().min(1, "Give the rollout a name.").max(120),
  gate: z.enum(["person", "clean"]),
  startsAt: z.union([z.literal(""), z.iso.datetime({ local: true })]),
});

/** Plans the rollout for the places that are ticked. */
export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const entered = await request.formData();
  const read = form.safeParse(Object.fromEntries(entered));
  const refuse = (problem: string, status = 400) => data({ problem }, status);
  if (!read.success) return refuse(read.error.issues.map((i) => i.message).join(" "));
  const params = new URL(request.url).searchParams;
  const ticked = new Set(entered.getAll("place").map(String));
  const places = await planPlaces(readId<ReleaseId>(params.get("release")), idsIn(params));
  const legs = places
    .filter((p) => ticked.has(p.id))
    .map((p) => ({ place: p.id, release: p.release }));
  const { name, gate, startsAt } = read.data;
  const offset = Number(entered.get("offset") ?? 0) || 0;
  const begins = startsAt === "" ? null : new Date(Date.parse(`${startsAt}Z`) + offset * 60_000);
  const made = await createRollout({ name, gate, legs, startsAt: begins }, person.id);
  if (made.ok) return redirect(`/rollouts/${made.id}`);
  return made.code === "no-places"
    ? refuse("Tick at least one place.")
    : refuse(
        `Something is being delivered to ${made.places.slice(0, 3).join(", ")}. Wait until it has ended, or stop that rollout.`,
        409,
      );
}

export default function NewRollout({ loaderData, actionData }: Route.ComponentProps) {
  const { places, release, releases, waves, below, isChecked, unchecked } = loaderData;
  const busy = useNavigation().state !== "idle";
  const blocked = places.filter((p) => p.checks?.some((c) => c.outcome !== "clear"));
  return (
    <Page
      title="Plan a rollout"
      lead="Nothing is sent until you begin it. A test place goes first; the rest follows in waves."
      actions={
        <Link to="/rollouts" className="press">
          All rollouts
        </Link>
      }
    >
      <Form method="get" className="mb-4 flex flex-wrap items-end gap-3">
        {below.map((id) => (
          <input key={id} type="hidden" name="below" value={id} />
        ))}
        <label className="block">
          <span className="block text-sm font-medium">What goes out</span>
          <select name="release" defaultValue={release?.id ?? ""} className="entry mt-1 w-[32rem]">
            <option value="">each theme's newest release, wherever it isn't yet</option>
            {releases.map((r) => (
              <option key={r.id} value={r.id}>
                “{r.name}”, wherever {r.theme} applies
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="press">
          Show the places
        </button>
      </Form>
      {places.length === 0 ? (
        <p className="border border-hair bg-surface px-5 py-4">
          {release
            ? `No place would change: ${release.theme} applies nowhere else, or “${release.name}” is live there. Give a place the theme in the estate first, or deliver it to one place there.`
            : "Every place shows what it should. There is nothing to deliver."}
        </p>
      ) : (
        <Form method="post" className="grid grid-cols-[1.7fr_1fr] items-start gap-6">
          <section className="border border-hair bg-surface">
            <h2 className="px-4 pt-3">
              {places.length === 1 ? "One place" : `${places.length} places`} in{" "}
              {waves === 1 ? "one wave" : `${waves} waves`}
            </h2>
            <ul className="rows mt-2 border-t border-hair">
              {places.map((place) => (
                <li key={place.id} className="px-4 py-2" data-place={place.name}>
                  <label className="flex items-center gap-3">
                    <input
                      // Looked at anew, a place is ticked anew: only where nothing stands in the way.
                      key={String(place.checks?.some((c) => c.outcome !== "clear"))}
                      type="checkbox"
                      name="place"
                      value={place.id}
                      defaultChecked={!place.checks?.some((c) => c.outcome !== "clear")}
                      className="accent-ink"
                    />
                    <span className="min-w-0 flex-1">
                      <span className="block truncate font-semibold">{place.name}</span>
                      <span className="block truncate text-xs text-faint">
                        {platformWords(place.platform)}, wave {place.wave}
                        {place.isTest ? ", test place" : ""}
                      </span>
                    </span>
                    <Look look={place.has} className="w-36" />
                    <span aria-hidden="true">→</span>
                    <span className="sr-only">gets</span>
                    <Look look={place.gets} className="w-52" />
                  </label>
                  {isChecked ? <Checks checks={place.checks} /> : null}
                </li>
              ))}
            </ul>
          </section>
          <section className="space-y-4 border border-hair bg-surface p-5">
            {isChecked ? (
              <p role="status">
                <strong>
                  {blocked.length === 0
                    ? "Nothing stands in the way."
                    : blocked.length === 1
                      ? "At one place something stands in the way; it is not ticked."
                      : `At ${blocked.length} places something stands in the way; they are not ticked.`}
                </strong>
                {unchecked > 0 ? ` ${unchecked} more are looked at as they are delivered.` : ""}
              </p>
            ) : (
              <p>Look first whether anything stands in the way. That changes nothing.</p>
            )}
            <button
              type="submit"
              form="look"
              className={`press ${isChecked ? "" : "press-main"}`}
              disabled={busy}
            >
              {isChecked ? "Look again" : "Look at every place"}
            </button>
            <Field
              id="name"
              label="Name of the rollout"
              defaultValue={release ? release.name : "Everything newest"}
              maxLength={120}
              autoComplete="off"
            />
            <fieldset>
              <legend className="font-medium">The next wave begins</legend>
              <label className="flex items-start gap-2 py-1">
                <input
                  type="radio"
                  name="gate"
                  value="person"
                  defaultChecked
                  className="mt-1 accent-ink"
                />
                when somebody has looked and says so
              </label>
              <label className="flex items-start gap-2 py-1">
                <input type="radio" name="gate" value="clean" className="mt-1 accent-ink" />
                by itself, once every place of the last is confirmed
              </label>
            </fieldset>
            <Starts />
            {actionData?.problem ? <Problem>{actionData.problem}</Problem> : null}
            <button
              type="submit"
              className={`press ${isChecked ? "press-main" : ""}`}
              disabled={busy}
            >
              Begin the rollout
            </button>
          </section>
        </Form>
      )}
      <Form method="get" id="look" className="hidden">
        {below.map((id) => (
          <input key={id} type="hidden" name="below" value={id} />
        ))}
        {release ? <input type="hidden" name="release" value={release.id} /> : null}
        <input type="hidden" name="check" value="" />
      </Form>
    </Page>
  );
}

/** The time is the reader's own; the form carries how far that is from UTC, in minutes. */
function Starts() {
  const [offset, setOffset] = useState(0);
  useEffect(() => setOffset(new Date().getTimezoneOffset()), []);
  return (
    <div>
      <label htmlFor="startsAt" className="block font-medium">
        Begin at
      </label>
      <input
        id="startsAt"
        name="startsAt"
        type="datetime-local"
        aria-describedby="startsAt-hint"
        className="entry mt-1"
      />
      <p id="startsAt-hint" className="mt-1 text-sm text-faint">
        Left empty, it begins at once.
      </p>
      <input type="hidden" name="offset" value={offset} />
    </div>
  );
}

type LookProps = Route.ComponentProps["loaderData"]["places"][number]["has"];

function Look({ look, className }: { look: LookProps; className: string }) {
  return (
    <span className={`flex items-center gap-2 text-sm ${className}`}>
      {look ? (
        <>
          <Stripe colours={look.stripe} className="h-5 w-12 shrink-0" />
          <span className="truncate" title={look.name}>
            {look.name}
          </span>
        </>
      ) : (
        <span className="text-faint">its own look</span>
      )}
    </span>
  );
}
