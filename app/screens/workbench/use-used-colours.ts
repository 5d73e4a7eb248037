import { useEffect, useState } from "react";
import type { Hex } from "#core/colour/srgb.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { keep, readKept } from "./browser-store.ts";
import type { SaveState } from "./use-draft.ts";

const MOST_KEPT = 24;

/** The colours that were ever saved in this theme from this browser, newest first. */
export function useUsedColours(key: string, document: ThemeDocument, state: SaveState): Hex[] {
  const [used, setUsed] = useState<Hex[]>([]);
  useEffect(() => setUsed(readKept<Hex[]>(key, [])), [key]);
  useEffect(() => {
    if (state !== "saved") return;
    setUsed((old) => {
      const all = [...new Set([...coloursOf(document), ...readKept<Hex[]>(key, []), ...old])].slice(
        0,
        MOST_KEPT,
      );
      keep(key, all);
      return all;
    });
  }, [key, document, state]);
  return used;
}

function coloursOf({ primary, accent, overrides }: ThemeDocument): Hex[] {
  const byHand = [overrides.light, overrides.dark].flatMap((inScheme) =>
    Object.values(inScheme).flatMap((o) => (o.kind === "colour" ? [o.colour] : [])),
  );
  return [primary, ...(accent ? [accent] : []), ...byHand];
}
