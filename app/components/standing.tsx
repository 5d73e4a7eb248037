import type { Standing as Kind } from "#server/estate/tree.ts";
import { STANDING_WORDS } from "../wording/estate.ts";

const SHAPES: Record<Kind, string> = {
  "passes-on": "",
  "no-theme": "○",
  "no-release": "○",
  due: "◐",
  live: "✓",
  drifted: "≠",
  "under-way": "…",
  failed: "▲",
};

/** How a place stands, by shape and word. */
export function Standing({ standing }: { standing: Kind }) {
  if (standing === "passes-on") return null;
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap" data-standing={standing}>
      <span aria-hidden="true" className="w-3 text-center">
        {SHAPES[standing]}
      </span>
      {STANDING_WORDS[standing]}
    </span>
  );
}
