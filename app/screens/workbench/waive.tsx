import { useEffect, useId, useState } from "react";
import { useFetcher } from "react-router";
import type { Waiver } from "#core/contrast/policy.ts";
import type { Finding } from "#core/contrast/verdict.ts";
import { Problem } from "../../components/field.tsx";
import { roleWords } from "../../wording/roles.ts";
import type { WaiverAnswer } from "./waivers.ts";

/** How long a finding is accepted unless somebody says otherwise, in days. */
const USUAL_DAYS = 90;

export const dayFromNow = (days: number): string =>
  new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

interface WaiveProps {
  finding: Finding;
  action: string;
}

/** Accepts a finding for a time, with a reason that the log keeps. */
export function Waive({ finding, action }: WaiveProps) {
  const [open, setOpen] = useState(false);
  const id = useId();
  const fetcher = useFetcher<WaiverAnswer>();
  useEffect(() => {
    if (fetcher.data?.done) setOpen(false);
  }, [fetcher.data]);
  if (!open)
    return (
      <button type="button" className="go mt-0.5" onClick={() => setOpen(true)}>
        Accept for a time …
      </button>
    );
  const { kind, over, ground, scheme, level } = finding;
  const problem = fetcher.data?.problem ?? null;
  return (
    <fetcher.Form
      method="post"
      action={action}
      noValidate
      className="mt-1.5 space-y-2 border border-edge p-2.5"
    >
      {Object.entries({ kind, over, ground, scheme, level }).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <div>
        <label htmlFor={`${id}-reason`} className="block font-medium">
          Why it is accepted
        </label>
        <input
          id={`${id}-reason`}
          name="reason"
          maxLength={500}
          className="entry py-1"
          aria-describedby={problem ? `${id}-problem` : undefined}
        />
      </div>
      <div>
        <label htmlFor={`${id}-until`} className="block font-medium">
          Until
        </label>
        <input
          id={`${id}-until`}
          name="until"
          type="date"
          min={dayFromNow(0)}
          defaultValue={dayFromNow(USUAL_DAYS)}
          className="entry w-44 py-1"
        />
      </div>
      {problem ? <Problem id={`${id}-problem`}>{problem}</Problem> : null}
      <div className="flex gap-2">
        <button type="submit" className="press press-main py-1" disabled={fetcher.state !== "idle"}>
          Accept it
        </button>
        <button type="button" className="press py-1" onClick={() => setOpen(false)}>
          Leave it
        </button>
      </div>
    </fetcher.Form>
  );
}

export interface ShownWaiver extends Waiver {
  id: string;
}

interface AcceptedProps {
  waivers: readonly ShownWaiver[];
  action: string;
  mayChange: boolean;
  today: string;
}

/** What people accepted, why and until when; those that ran out are said to count again. */
export function Accepted({ waivers, action, mayChange, today }: AcceptedProps) {
  const fetcher = useFetcher();
  if (waivers.length === 0) return null;
  return (
    <section aria-labelledby="accepted" className="border-t border-edge px-3 py-2 text-sm">
      <h2 id="accepted" className="text-sm">
        Accepted
      </h2>
      <ul>
        {waivers.map((waiver) => (
          <li key={waiver.id} className="border-t border-hair py-2 first:border-t-0">
            <p>
              <strong className="font-semibold">
                {roleWords(waiver.over)} {waiver.kind === "alike" ? "like" : "on"}{" "}
                {roleWords(waiver.ground).toLowerCase()}, {waiver.scheme}
                {waiver.level === "more" ? ", more contrast" : ""}
              </strong>
              : {waiver.reason}
            </p>
            <p className="text-faint">
              {waiver.by}, {waiver.until < today ? "ran out on" : "until"}{" "}
              <time dateTime={waiver.until}>{waiver.until}</time>
              {waiver.until < today ? "; it counts again" : ""}
              {mayChange ? (
                <button
                  type="button"
                  className="go ml-3 text-ink"
                  onClick={() =>
                    fetcher.submit({ withdraw: waiver.id }, { method: "post", action })
                  }
                >
                  Take back
                </button>
              ) : null}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
