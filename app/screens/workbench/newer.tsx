import type { ThemeDocument } from "#core/theme/document.ts";
import { stripeOf } from "#core/theme/stripe.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import type { NewerDraft } from "./draft-form.ts";

interface NewerProps {
  theirs: NewerDraft;
  mine: ThemeDocument;
  onKeepMine(): void;
  onTakeTheirs(): void;
}

/**
 * Somebody saved since this page was loaded. Nothing is lost either way; the person chooses what
 * the draft goes on from. The buttons belong to the workbench's form, so that they work without scripts.
 */
export function Newer({ theirs, mine, onKeepMine, onTakeTheirs }: NewerProps) {
  return (
    <div role="alert" className="border-b border-edge bg-sunken px-4 py-3">
      <p className="font-semibold">
        {theirs.savedBy} saved this theme while you were changing it. Both versions are kept.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-x-8 gap-y-2">
        <Side document={theirs.document} label={`${theirs.savedBy}’s, saved`} at={theirs.savedAt}>
          <button
            type="submit"
            form="sources"
            name="decide"
            value="theirs"
            className="press"
            onClick={(event) => {
              event.preventDefault();
              onTakeTheirs();
            }}
          >
            Go on from theirs
          </button>
        </Side>
        <Side document={mine} label="Yours">
          <button
            type="submit"
            form="sources"
            name="decide"
            value="mine"
            className="press"
            onClick={(event) => {
              event.preventDefault();
              onKeepMine();
            }}
          >
            Go on from mine
          </button>
        </Side>
        <p className="text-sm text-faint">The other one stays under “Versions”.</p>
      </div>
    </div>
  );
}

interface SideProps {
  document: ThemeDocument;
  label: string;
  at?: Date | string;
  children: React.ReactNode;
}

function Side({ document, label, at, children }: SideProps) {
  return (
    <div className="flex items-center gap-3">
      <Stripe colours={stripeOf(computeTheme(document))} className="h-9 w-24" />
      <span>
        {label} {at ? <Time at={at} /> : null}
        <span className="number block text-xs">{document.primary}</span>
      </span>
      {children}
    </div>
  );
}
