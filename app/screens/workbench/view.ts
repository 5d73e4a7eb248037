import { useCallback, useEffect, useMemo, useRef } from "react";
import { useSearchParams } from "react-router";
import { VISIONS } from "#core/colour/vision.ts";
import { CONTRAST_LEVELS } from "#core/theme/roles.ts";
import { PREVIEW_PAGES, SHOWN_STATES } from "../../previews/page.ts";

/** Widths that a page is judged at, in px; `fit` is a small window, scaled into the stage. */
export const WIDTHS = { fit: 760, desktop: 1280, tablet: 820, phone: 390 } as const;

const CHOICES = {
  tab: ["roles", "findings", "by-hand", "type"],
  page: PREVIEW_PAGES,
  show: ["both", "light", "dark"],
  width: ["fit", "desktop", "tablet", "phone"],
  vision: [...VISIONS, "low-contrast"],
  level: CONTRAST_LEVELS,
  state: SHOWN_STATES,
} as const;

type Choices = typeof CHOICES;
export type View = { [Key in keyof Choices]: Choices[Key][number] } & {
  filter: string;
  /** What the draft is shown beside: `nothing`, `release`, or a release that is live somewhere. */
  compare: string;
};

/** What is shown, as the address keeps it, so that a colleague can be sent it. */
export function useView(): [View, (change: Partial<View>) => void] {
  const [params, setParams] = useSearchParams();
  const view = useMemo(() => readView(params), [params]);
  // Two changes in a row must both count, also before the first has reached the address.
  const latest = useRef(params);
  useEffect(() => {
    latest.current = params;
  }, [params]);
  const change = useCallback(
    (change: Partial<View>) => {
      const next = new URLSearchParams(latest.current);
      for (const [key, value] of Object.entries(change)) {
        const first =
          key in CHOICES ? CHOICES[key as keyof Choices][0] : key === "compare" ? "nothing" : "";
        if (value === first) next.delete(key);
        else next.set(key, value);
      }
      latest.current = next;
      setParams(next, { replace: true, preventScrollReset: true });
    },
    [setParams],
  );
  return [view, change];
}

function readView(params: URLSearchParams): View {
  const view: Record<string, string> = {
    filter: params.get("filter") ?? "",
    compare: params.get("compare") ?? "nothing",
  };
  for (const [key, choices] of Object.entries(CHOICES))
    view[key] = (choices as readonly string[]).find((c) => c === params.get(key)) ?? choices[0];
  return view as View;
}
