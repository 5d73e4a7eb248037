import { Form, Link } from "react-router";
import { MOST_ATTEMPTS } from "#core/estate/attempts.ts";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import { Verdict } from "../../components/verdict.tsx";
import { platformWords, STATE_WORDS } from "../../wording/estate.ts";
import { faultWords, remedyWords } from "../../wording/fault.ts";
import type { Route } from "./+types/route";

type Leg = Route.ComponentProps["loaderData"]["legs"][number];

interface LegsProps {
  legs: Leg[];
  state: string;
  mayChange: boolean;
}

/** Every place of a rollout with what it answered; those that failed stand first. */
export function Legs({ legs, state, mayChange }: LegsProps) {
  return (
    <table className="cells mt-4 w-full border border-hair bg-surface">
      <caption className="sr-only">Places of the rollout</caption>
      <thead>
        <tr>
          <th scope="col">Place</th>
          <th scope="col">Wave</th>
          <th scope="col">Gets</th>
          <th scope="col">Answer</th>
          <th scope="col">
            <span className="sr-only">Actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {legs.map((leg) => (
          <tr key={leg.place} data-place={leg.name}>
            <th scope="row" className="align-top">
              <Link to={`/estate/${leg.place}`} className="go font-semibold">
                {leg.name}
              </Link>
              <span className="block text-sm text-faint">{platformWords(leg.platform)}</span>
            </th>
            <td className="tabular-nums">{leg.wave}</td>
            <td>
              <span className="flex items-center gap-2">
                {leg.stripe ? <Stripe colours={leg.stripe} className="h-6 w-14" /> : null}
                <span>
                  {leg.release ?? "its own look"}
                  <span className="block text-sm text-faint">
                    before: {leg.previous ?? "its own look"}
                  </span>
                </span>
              </span>
            </td>
            <td>
              <Answer leg={leg} />
            </td>
            <td className="text-right">{mayChange ? <Acts leg={leg} state={state} /> : null}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Answer({ leg }: { leg: Leg }) {
  const ended = leg.state === "delivered" || leg.state === "failed";
  return (
    <div data-state={leg.state}>
      <span className="flex items-center gap-2 font-medium">
        {ended ? <Verdict passes={leg.state === "delivered"} /> : null}
        {STATE_WORDS[leg.state]}
        {leg.state === "delivered" && leg.readAt ? (
          <span className="text-sm font-normal text-faint">
            <Time at={leg.readAt} />
          </span>
        ) : null}
      </span>
      {leg.failure && leg.state !== "delivered" ? (
        <p className="mt-0.5 text-sm">
          {faultWords(leg.failure)}{" "}
          {leg.retryAt ? (
            <>
              Tried {leg.attempt} times, {MOST_ATTEMPTS} failures end it; again{" "}
              <Time at={leg.retryAt} />.
            </>
          ) : (
            remedyWords(leg.failure)
          )}
        </p>
      ) : null}
    </div>
  );
}

function Acts({ leg, state }: { leg: Leg; state: string }) {
  const mayRetry = leg.state === "failed" && state !== "stopped" && state !== "scheduled";
  const mayTakeBack = leg.state === "delivered" && state !== "running";
  if (!mayRetry && !mayTakeBack) return null;
  return (
    <Form method="post">
      <input type="hidden" name="place" value={leg.place} />
      <button
        type="submit"
        name="act"
        value={mayRetry ? "retry" : "take-back"}
        className="press py-0.5 text-sm"
        aria-label={`${mayRetry ? "Try again" : "Take back"}: ${leg.name}`}
      >
        {mayRetry ? "Try again" : "Take back"}
      </button>
    </Form>
  );
}
