import { Form, useNavigation } from "react-router";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import type { Route } from "./+types/route";

interface LiveNowProps {
  loaderData: Route.ComponentProps["loaderData"];
  checked: string | null;
}

/** What the place shows by its last receipt, and whether it still does. */
export function LiveNow({ loaderData, checked }: LiveNowProps) {
  const { place, liveStripe, mayChange } = loaderData;
  const busy = useNavigation().state !== "idle";
  return (
    <section aria-labelledby="live" className="border border-hair bg-surface p-5">
      <h2 id="live">Live now</h2>
      {place.live && liveStripe ? (
        <div className="mt-3 flex items-center gap-5">
          <Stripe colours={liveStripe} className="h-14 w-40" />
          <div>
            <p className="text-lg font-semibold">{place.live.release.name}</p>
            <p className="text-sm text-faint">
              Read back from the platform <Time at={place.live.readAt} />, equal to what was sent
            </p>
          </div>
        </div>
      ) : (
        <p className="mt-2 text-faint">
          Livery has delivered nothing here that still counts, so the platform shows its own look.
        </p>
      )}
      {place.live ? (
        <div className="mt-3 flex flex-wrap items-center gap-3 text-sm">
          {mayChange ? (
            <Form method="post">
              <button
                type="submit"
                name="act"
                value="check"
                className="press py-0.5"
                disabled={busy}
              >
                Look whether it still does
              </button>
            </Form>
          ) : null}
          <span role="status">
            {checked ??
              (place.checkedAt ? (
                <span className="text-faint">
                  Last looked at <Time at={place.checkedAt} />
                </span>
              ) : null)}
          </span>
        </div>
      ) : null}
      {place.drift && place.live ? <Drift loaderData={loaderData} /> : null}
    </section>
  );
}

const SHOWN = 30;

/** What the platform holds beside what the receipt says, slot by slot. */
function Drift({ loaderData }: { loaderData: LiveNowProps["loaderData"] }) {
  const { place, mayChange } = loaderData;
  const drift = place.drift ?? [];
  return (
    <div className="mt-4 border border-edge p-3">
      <p className="font-semibold">
        Somebody changed this on the platform:{" "}
        {drift.length === 1 ? "one slot" : `${drift.length} slots`}.
      </p>
      <table className="mt-2 w-full text-sm">
        <caption className="sr-only">Slots that differ</caption>
        <thead>
          <tr className="text-left text-faint">
            <th scope="col" className="font-normal">
              Slot
            </th>
            <th scope="col" className="font-normal">
              Receipt says
            </th>
            <th scope="col" className="font-normal">
              Platform holds
            </th>
          </tr>
        </thead>
        <tbody>
          {drift.slice(0, SHOWN).map(({ slot, expected, found }) => (
            <tr key={slot}>
              <th scope="row" className="py-0.5 text-left font-normal">
                {slot}
              </th>
              <td>
                <Value value={expected} />
              </td>
              <td>
                <Value value={found} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {mayChange ? (
        <div className="mt-3 flex gap-2">
          <a
            href={`/estate/${place.id}/deliver?release=${place.live?.release.id}`}
            className="press press-main py-1"
          >
            Deliver again …
          </a>
          <Form method="post">
            <button type="submit" name="act" value="accept" className="press py-1">
              Accept it as it is
            </button>
          </Form>
        </div>
      ) : null}
    </div>
  );
}

/** A slot's value, with its colour where it is one. */
export function Value({ value }: { value: string }) {
  const hex = /^#?([0-9a-f]{6})$/.exec(value)?.[1];
  return (
    <span className="number flex items-center gap-1.5 text-xs break-all">
      {hex ? (
        <span
          aria-hidden="true"
          className="size-3.5 shrink-0 border border-edge [forced-color-adjust:none]"
          style={{ background: `#${hex}` }}
        />
      ) : null}
      {shortened(value)}
    </span>
  );
}

/** A checksum by its beginning, which tells it apart; anything else whole. */
function shortened(value: string) {
  if (value === "") return "nothing";
  if (!/^[0-9a-f]{64}$/.test(value)) return value;
  return <span title={value}>SHA-256 {value.slice(0, 12)} …</span>;
}
