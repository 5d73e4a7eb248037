import { Dialog } from "radix-ui";
import { useEffect, useId, useState } from "react";
import { Link, useFetcher } from "react-router";
import type { Stripe as StripeColours } from "#core/theme/stripe.ts";
import type { Outcome } from "#server/estate/assignments.ts";
import { Problem } from "./field.tsx";
import { Stripe } from "./stripe.tsx";

/** A theme as a choice. */
export interface ThemeChoice {
  id: string;
  name: string;
  stripe: StripeColours;
}

/** A change that is about to be made; what is left out is asked for in the dialog. */
export type Wanted =
  | { kind: "assign"; places: { id: string; name: string }[]; theme?: string | null }
  | { kind: "lock"; place: { id: string; name: string }; locked: boolean }
  | { kind: "season"; place: { id: string; name: string } }
  | { kind: "move"; place: { id: string; name: string } };

interface Answer {
  kind: "preview" | "done" | "refused";
  outcome?: Outcome;
  refused?: string[];
  altered?: number;
}

interface ChangeDialogProps {
  wanted: Wanted | null;
  themes: ThemeChoice[];
  /** Places that something may be moved below. */
  parents?: { id: string; name: string }[];
  onClose(): void;
}

/** Says what a change of the estate would do and where, and does it when that is confirmed. */
export function ChangeDialog({ wanted, ...props }: ChangeDialogProps) {
  return (
    <Dialog.Root open={wanted !== null} onOpenChange={(open) => !open && props.onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-[rgb(0_0_0/0.45)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 max-h-[85vh] w-[min(38rem,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-edge bg-surface p-5 shadow-lg"
        >
          {wanted ? <Content wanted={wanted} {...props} /> : null}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What is listed of what would change; the rest is counted. */
const LISTED = 8;

function Content({
  wanted,
  themes,
  parents = [],
  onClose,
}: Omit<ChangeDialogProps, "wanted"> & { wanted: Wanted }) {
  const id = useId();
  const preview = useFetcher<Answer>();
  const apply = useFetcher<Answer>();
  const [theme, setTheme] = useState<string | null | undefined>(
    wanted.kind === "assign" ? wanted.theme : undefined,
  );
  const [days, setDays] = useState({ from: "", until: "" });
  const [delivers, setDelivers] = useState(true);
  const [parent, setParent] = useState("");
  const change = changeOf(wanted, theme, days, parent);
  const asked = JSON.stringify(change);

  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew whenever the change is another
  useEffect(() => {
    if (change) send(preview, "preview", change, delivers);
  }, [asked]);

  const seen = preview.data;
  const stripeOf = (wantedId: string | null) => themes.find((t) => t.id === wantedId);
  const refused = apply.data?.refused ?? seen?.refused ?? [];
  if (apply.data?.kind === "done") return <Done wanted={wanted} onClose={onClose} />;
  return (
    <>
      <Dialog.Title className="text-lg font-semibold">{titleOf(wanted)}</Dialog.Title>
      {wanted.kind === "assign" || wanted.kind === "season" ? (
        <div className="mt-3">
          <label htmlFor={`${id}-theme`} className="font-medium">
            Theme
          </label>
          <select
            id={`${id}-theme`}
            className="entry mt-1"
            value={theme === undefined ? "" : (theme ?? "inherit")}
            onChange={(e) => setTheme(e.target.value === "inherit" ? null : e.target.value)}
          >
            <option value="" disabled>
              choose one
            </option>
            {wanted.kind === "assign" ? (
              <option value="inherit">none of its own: inherit</option>
            ) : null}
            {themes.map((t) => (
              <option key={t.id} value={t.id}>
                {t.name}
              </option>
            ))}
          </select>
        </div>
      ) : null}
      {wanted.kind === "season" ? (
        <div className="mt-3 flex gap-4">
          {(["from", "until"] as const).map((end) => (
            <div key={end}>
              <label htmlFor={`${id}-${end}`} className="font-medium">
                {end === "from" ? "First day" : "Last day"}
              </label>
              <input
                id={`${id}-${end}`}
                type="date"
                className="entry mt-1"
                value={days[end]}
                onChange={(e) => setDays({ ...days, [end]: e.target.value })}
              />
            </div>
          ))}
        </div>
      ) : null}
      {wanted.kind === "season" ? (
        <label className="mt-3 flex items-start gap-2">
          <input
            type="checkbox"
            checked={delivers}
            onChange={(e) => setDelivers(e.target.checked)}
            className="mt-1 accent-ink"
          />
          Deliver by itself on the first day, and what was there before after the last
        </label>
      ) : null}
      {wanted.kind === "move" ? (
        <div className="mt-3">
          <label htmlFor={`${id}-parent`} className="font-medium">
            Below
          </label>
          <select
            id={`${id}-parent`}
            className="entry mt-1"
            value={parent}
            onChange={(e) => setParent(e.target.value)}
          >
            <option value="" disabled>
              choose a place
            </option>
            {parents.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </div>
      ) : null}
      <div role="status" className="mt-4 min-h-16">
        {refused.length > 0 ? (
          refused.map((words) => <Problem key={words}>{words}</Problem>)
        ) : seen?.outcome && change ? (
          <Altered altered={seen.outcome.altered} stripeOf={stripeOf} />
        ) : (
          <p className="text-faint">
            {change ? "Looking …" : "Choose first; nothing is changed yet."}
          </p>
        )}
      </div>
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="press press-main"
          disabled={!change || !seen || refused.length > 0 || apply.state !== "idle"}
          onClick={() => change && send(apply, "apply", change, delivers)}
        >
          {ACTS[wanted.kind]}
        </button>
        <Dialog.Close className="press">Leave it</Dialog.Close>
      </div>
    </>
  );
}

const ACTS: Record<Wanted["kind"], string> = {
  assign: "Change the theme",
  lock: "Do it",
  season: "Plan the season",
  move: "Move it",
};

type Fetcher = ReturnType<typeof useFetcher<Answer>>;

const send = (fetcher: Fetcher, intent: string, change: object, delivers: boolean) =>
  fetcher.submit(JSON.parse(JSON.stringify({ intent, change, delivers })), {
    method: "post",
    action: "/estate/change",
    encType: "application/json",
  });

function titleOf(wanted: Wanted): string {
  switch (wanted.kind) {
    case "assign": {
      const [first] = wanted.places;
      const whom = wanted.places.length === 1 ? first?.name : `${wanted.places.length} places`;
      return `Give ${whom} a theme`;
    }
    case "lock":
      return wanted.locked
        ? `Lock the theme of ${wanted.place.name} for everything below`
        : `Unlock ${wanted.place.name}`;
    case "season":
      return `Plan a season for ${wanted.place.name}`;
    case "move":
      return `Move ${wanted.place.name}`;
  }
}

/** The change as it is sent; null until everything is chosen. */
function changeOf(
  wanted: Wanted,
  theme: string | null | undefined,
  { from, until }: { from: string; until: string },
  parent: string,
): object | null {
  switch (wanted.kind) {
    case "assign":
      return theme === undefined
        ? null
        : { kind: "assign", places: wanted.places.map((p) => p.id), theme };
    case "lock":
      return { kind: "lock", place: wanted.place.id, locked: wanted.locked };
    case "season":
      return theme && from && until
        ? { kind: "season", place: wanted.place.id, theme, from, until }
        : null;
    case "move":
      return parent ? { kind: "move", place: wanted.place.id, parent } : null;
  }
}

interface AlteredProps {
  altered: Outcome["altered"];
  stripeOf(id: string | null): ThemeChoice | undefined;
}

function Altered({ altered, stripeOf }: AlteredProps) {
  if (altered.length === 0)
    return <p>No place would have another theme than now. Nothing has to be delivered.</p>;
  const delivered = altered.filter((a) => a.deliverable).length;
  return (
    <>
      <p>
        {altered.length === 1 ? "One place" : `${altered.length} places`} would have another theme;{" "}
        {delivered === 1 ? "one of them is" : `${delivered} of them are`} delivered to. Readers see
        it once it is delivered.
      </p>
      <ul className="rows mt-2 border-y border-hair text-sm">
        {altered.slice(0, LISTED).map((a) => (
          <li key={a.place} className="flex items-center gap-2 py-1.5">
            <span className="min-w-0 flex-1 truncate">{a.name}</span>
            <Side theme={stripeOf(a.before)} />
            <span aria-hidden="true">→</span>
            <span className="sr-only">becomes</span>
            <Side theme={stripeOf(a.after)} />
          </li>
        ))}
      </ul>
      {altered.length > LISTED ? (
        <p className="mt-1 text-sm text-faint">and {altered.length - LISTED} more</p>
      ) : null}
    </>
  );
}

function Side({ theme }: { theme: ThemeChoice | undefined }) {
  return (
    <span className="flex w-40 items-center gap-2">
      {theme ? <Stripe colours={theme.stripe} className="h-5 w-12" /> : null}
      <span className="truncate">{theme?.name ?? "none"}</span>
    </span>
  );
}

function Done({ wanted, onClose }: { wanted: Wanted; onClose(): void }) {
  const places = wanted.kind === "assign" ? wanted.places : [wanted.place];
  return (
    <>
      <Dialog.Title className="text-lg font-semibold">It is changed</Dialog.Title>
      <p role="status" className="mt-2">
        {wanted.kind === "season"
          ? "The season is planned."
          : "Readers see it once it is delivered."}
      </p>
      <div className="mt-4 flex gap-2">
        <Link
          to={`/rollouts/new?${places
            .slice(0, 50)
            .map((p) => `below=${p.id}`)
            .join("&")}`}
          className="press press-main"
        >
          Plan the rollout …
        </Link>
        <button type="button" className="press" onClick={onClose}>
          Later
        </button>
      </div>
    </>
  );
}
