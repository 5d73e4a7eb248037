import { useMemo } from "react";
import { Link } from "react-router";
import { stripeOf } from "#core/theme/stripe.ts";
import type { Theme } from "#core/theme/theme.ts";
import { Stripe } from "../../components/stripe.tsx";
import type { DraftState, SaveState } from "./use-draft.ts";

interface BarProps {
  name: string;
  id: string;
  draft: DraftState;
  theme: Theme;
  mayChange: boolean;
}

/** Which theme this is, whether it is saved, undo and redo, and where to go from here. */
export function Bar({ name, id, draft, theme, mayChange }: BarProps) {
  const stripe = useMemo(() => stripeOf(theme), [theme]);
  return (
    <div className="flex shrink-0 items-center gap-x-4 gap-y-1 border-b border-hair px-4 py-2 max-[60rem]:flex-wrap">
      <Stripe colours={stripe} className="h-8 w-22" />
      <h1 className="min-w-0 truncate" title={name}>
        {name}
      </h1>
      <p role="status" className="text-sm whitespace-nowrap text-faint">
        {mayChange
          ? SAVE_WORDS[draft.state]
          : "You can look, but only an administrator can change it."}
      </p>
      <span className="ml-auto flex items-center gap-3">
        {mayChange ? (
          <span className="flex gap-1.5">
            <button
              type="button"
              className="press px-2 py-1"
              disabled={!draft.canUndo}
              onClick={draft.undo}
            >
              Undo
            </button>
            <button
              type="button"
              className="press px-2 py-1"
              disabled={!draft.canRedo}
              onClick={draft.redo}
            >
              Redo
            </button>
          </span>
        ) : null}
        <Link to={`/themes/${id}/versions`} className="go text-sm">
          Versions
        </Link>
        {mayChange ? (
          <Link to={`/themes/${id}/release`} className="press press-main">
            Release …
          </Link>
        ) : null}
      </span>
    </div>
  );
}

const SAVE_WORDS: Record<SaveState, string> = {
  saved: "Saved",
  saving: "Saving …",
  unreachable:
    "Not saved: Livery can't be reached. Your changes are kept here and saved when it answers.",
  "signed-out":
    "Not saved: you were signed out. Sign in in another tab; your changes are kept here.",
  newer: "Not saved: a newer version is there",
  refused: "Not saved: Livery refused this. Your changes are kept here.",
};
