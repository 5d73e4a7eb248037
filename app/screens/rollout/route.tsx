import { data, Form, Link, redirect, useNavigation } from "react-router";
import { type PlaceId, type RolloutId, readId } from "#server/ids.ts";
import {
  pauseRollout,
  resumeRollout,
  retryRollout,
  stopRollout,
  takeBack,
} from "#server/rollouts/rollouts.ts";
import { findRollout, listFailures, listLegs } from "#server/rollouts/view.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Pager, pageOf } from "../../components/pager.tsx";
import { RolloutProgress } from "../../components/rollout-progress.tsx";
import { Time } from "../../components/time.tsx";
import { useLive } from "../../components/use-live.ts";
import { found, idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import { ROLLOUT_WORDS } from "../../wording/estate.ts";
import type { Route } from "./+types/route";
import { Failures } from "./failures.tsx";
import { Legs } from "./legs.tsx";

const PAGE_SIZE = 50;
/** More failures than this are summed up by their reasons: one would not see them at a glance. */
const MOST_PLAIN = 3;

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: `${(loaderData as { rollout?: { name: string } })?.rollout?.name ?? "Rollout"} · Livery`,
  },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const rollout = found(await findRollout(idFrom<RolloutId>(params.rollout)));
  const page = pageOf(new URL(request.url).searchParams);
  const [legs, failures] = await Promise.all([
    listLegs(rollout.id, page, PAGE_SIZE),
    rollout.counts.failed > MOST_PLAIN ? listFailures(rollout.id) : [],
  ]);
  return {
    failures,
    page,
    rollout,
    mayChange: person.capability === "administrator",
    legs: legs.map(({ document, ...leg }) => ({
      ...leg,
      stripe: document && stripeOfDocument(document),
    })),
  };
}

/** Takes a step by hand: go on, pause, stop, try again, take back. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const id = idFrom<RolloutId>(params.rollout);
  const form = await request.formData();
  const place = readId<PlaceId>(form.get("place"));
  const act = form.get("act");
  if (act === "take-back") {
    const result = await takeBack(id, person.id, place);
    if (result.ok) return redirect(`/rollouts/${result.id}`);
    return data(
      {
        problem:
          result.code === "under-way"
            ? `Deliveries are under way at ${result.places.slice(0, 3).join(", ")}. Stop that rollout first, or wait.`
            : "Nothing was delivered yet, so there is nothing to take back.",
      },
      409,
    );
  }
  const acts: Record<string, () => Promise<boolean>> = {
    pause: () => pauseRollout(id, person.id),
    resume: () => resumeRollout(id, person.id),
    stop: () => stopRollout(id, person.id),
    retry: () => retryRollout(id, person.id, place),
  };
  const done = await acts[String(act)]?.();
  return done
    ? data({ problem: null })
    : data({ problem: "The rollout has moved on meanwhile. Look at it again, then decide." }, 409);
}

export default function Rollout({ loaderData, actionData }: Route.ComponentProps) {
  const { rollout, legs, failures, page, mayChange } = loaderData;
  const { counts, state } = rollout;
  useLive();
  const busy = useNavigation().state !== "idle";
  const total = Object.values(counts).reduce((a, b) => a + b, 0);
  const acts = [
    {
      act: "resume",
      words: state === "waiting" ? "Begin the next wave" : "Go on",
      on: ["paused", "waiting"],
      main: true,
    },
    { act: "pause", words: "Pause", on: ["running", "scheduled"] },
    { act: "stop", words: "Stop", on: ["running", "waiting", "paused", "scheduled"] },
    {
      act: "retry",
      words: "Try the failed ones again",
      on: counts.failed > 0 ? ["running", "waiting", "paused", "done"] : [],
    },
    {
      act: "take-back",
      words: "Take all back",
      on: counts.delivered > 0 ? ["done", "stopped", "waiting"] : [],
    },
  ].filter(({ on }) => on.includes(state));
  return (
    <Page
      title={rollout.name}
      lead={
        <>
          Asked for by {rollout.requestedBy}, <Time at={rollout.requestedAt} />.{" "}
          {rollout.gate === "person"
            ? "Each wave begins when somebody says so."
            : "The next wave begins once every place of the last is confirmed."}
        </>
      }
      actions={
        <Link to="/rollouts" className="press">
          All rollouts
        </Link>
      }
    >
      <div className="flex flex-wrap items-center gap-x-8 gap-y-3 border border-hair bg-surface px-5 py-3">
        <p role="status" data-state={state}>
          <strong className="block text-lg">{ROLLOUT_WORDS[state]}</strong>
          <span className="text-sm text-faint">
            {state === "scheduled" && rollout.startsAt ? (
              <>
                begins <Time at={rollout.startsAt} />
              </>
            ) : (
              `wave ${Math.max(1, rollout.wave)} of ${rollout.waves}`
            )}
          </span>
        </p>
        <RolloutProgress counts={counts} />
        {mayChange ? (
          <Form method="post" className="ml-auto flex flex-wrap gap-2">
            {acts.map(({ act, words, main }) => (
              <button
                key={act}
                type="submit"
                name="act"
                value={act}
                className={`press py-1 ${main ? "press-main" : ""}`}
                disabled={busy}
              >
                {words}
              </button>
            ))}
          </Form>
        ) : null}
      </div>
      {actionData?.problem ? <Problem>{actionData.problem}</Problem> : null}
      {failures.length > 0 ? <Failures failures={failures} /> : null}
      <Legs legs={legs} mayChange={mayChange} state={state} />
      <Pager page={page} size={PAGE_SIZE} total={total} />
    </Page>
  );
}
