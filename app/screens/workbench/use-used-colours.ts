import { useEffect, useState } from "react";
import type { Hex } from "#core/colour/srgb.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { SaveState } from "./use-draft.ts";

const MOST_KEPT = 24;

/** The colours that were ever saved in this theme from this browser, newest first. */
export function useUsedColours(key: string, document: ThemeDocument, state: SaveState): Hex[] {
  const [used, setUsed] = useState<Hex[]>([]);
  useEffect(() => setUsed(read(key)), [key]);
  useEffect(() => {
    if (state !== "saved") return;
    setUsed((old) => {
      const all = [...new Set([...coloursOf(document), ...read(key), ...old])].slice(0, MOST_KEPT);
      store(key, all);
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

function read(key: string): Hex[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(key) ?? "[]");
    return Array.isArray(found) ? (found as Hex[]) : [];
  } catch {
    return [];
  }
}

/** The browser's own store may be full or forbidden; then the colours are not remembered. */
function store(key: string, colours: Hex[]): void {
  try {
    localStorage.setItem(key, JSON.stringify(colours));
  } catch {
    return;
  }
}
