import { MOST_ATTEMPTS } from "#core/estate/attempts.ts";
import { Time } from "../../components/time.tsx";
import { Verdict } from "../../components/verdict.tsx";
import { STATE_WORDS } from "../../wording/estate.ts";
import { faultWords, remedyWords } from "../../wording/fault.ts";
import type { Route } from "./+types/route";
import { Value } from "./live-now.tsx";

type Delivery = Route.ComponentProps["loaderData"]["deliveries"][number];

/** A place's deliveries, newest first, each with its receipt or with what went wrong. */
export function Deliveries({ deliveries }: { deliveries: Delivery[] }) {
  return (
    <section aria-labelledby="deliveries" className="mt-6">
      <h2 id="deliveries">Deliveries</h2>
      {deliveries.length === 0 ? (
        <p className="mt-2 text-faint">None yet.</p>
      ) : (
        <ol className="rows mt-2 border border-hair bg-surface" aria-live="polite">
          {deliveries.map((delivery) => (
            <li key={delivery.id} className="px-5 py-3">
              <p className="flex flex-wrap items-baseline justify-between gap-x-4">
                <strong className="min-w-0 break-words">
                  {delivery.release ?? "Back to its own look"}
                </strong>
                <State delivery={delivery} />
              </p>
              <p className="text-sm text-faint">
                Asked for by {delivery.requestedBy}, <Time at={delivery.requestedAt} />
              </p>
              {delivery.failure ? <Failure delivery={delivery} failure={delivery.failure} /> : null}
              {delivery.receipt ? <Receipt receipt={delivery.receipt} /> : null}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

function State({ delivery: { state } }: { delivery: Delivery }) {
  const ended = state === "delivered" || state === "failed";
  return (
    <span className="inline-flex items-center gap-2 text-sm font-medium" data-state={state}>
      {ended ? (
        <Verdict passes={state === "delivered"} />
      ) : (
        <progress className="w-16" aria-label="Under way" />
      )}
      {STATE_WORDS[state]}
    </span>
  );
}

function Failure({
  delivery,
  failure,
}: {
  delivery: Delivery;
  failure: NonNullable<Delivery["failure"]>;
}) {
  return (
    <p className="mt-1.5 border-l-2 border-ink pl-3">
      {faultWords(failure)}{" "}
      {delivery.retryAt ? (
        <>
          Tried {delivery.attempt} of {MOST_ATTEMPTS} times; again <Time at={delivery.retryAt} />.
        </>
      ) : (
        remedyWords(failure)
      )}
    </p>
  );
}

function Receipt({ receipt }: { receipt: NonNullable<Delivery["receipt"]> }) {
  const equal = receipt.sentSha256 === receipt.foundSha256;
  return (
    <details className="mt-1.5 text-sm">
      <summary className="go">
        Receipt: {receipt.slots} values {equal ? "sent and found equal" : "sent, others found"}
      </summary>
      <dl className="mt-1.5 grid grid-cols-[4rem_1fr] gap-y-1">
        <dt className="text-faint">Sent</dt>
        <dd className="number text-xs break-all">SHA-256 {receipt.sentSha256}</dd>
        <dt className="text-faint">Found</dt>
        <dd className="number text-xs break-all">SHA-256 {receipt.foundSha256}</dd>
        <dt className="text-faint">Read</dt>
        <dd>
          <Time at={receipt.readAt} />
        </dd>
      </dl>
      <section
        aria-label="Receipt, slot by slot"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
        tabIndex={0}
        className="relative mt-2 max-h-72 overflow-y-auto border-t border-hair"
      >
        <table className="w-full [&_:is(th,td)]:py-0.5 [&_:is(th,td)+:is(th,td)]:pl-3">
          <caption className="sr-only">Receipt, slot by slot</caption>
          <thead>
            <tr className="text-left text-faint">
              <th scope="col" className="font-normal">
                Slot
              </th>
              <th scope="col" className="font-normal">
                Sent
              </th>
              <th scope="col" className="font-normal">
                Found
              </th>
            </tr>
          </thead>
          <tbody>
            {slotNames(receipt).map((slot) => (
              <tr key={slot} className={receipt.differing.includes(slot) ? "font-bold" : ""}>
                <th scope="row" className="text-left font-[inherit]">
                  {receipt.differing.includes(slot) ? "≠ " : ""}
                  {slot}
                </th>
                <td>
                  <Value value={receipt.sent[slot] ?? ""} />
                </td>
                <td>
                  <Value value={receipt.found[slot] ?? ""} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </details>
  );
}

/** Every slot of a receipt, those that differ first. */
const slotNames = ({ sent, found, differing }: NonNullable<Delivery["receipt"]>): string[] => [
  ...differing,
  ...Object.keys({ ...sent, ...found }).filter((slot) => !differing.includes(slot)),
];
