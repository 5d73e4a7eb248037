import { useCallback, useEffect, useRef, useState } from "react";
import type { ThemeDocument } from "#core/theme/document.ts";
import { keepSoon, readKept } from "./browser-store.ts";

const MOST_KEPT = 100;
/** Changes of the same setting within this time are one, in milliseconds: a drag is undone at once. */
const ONE_CHANGE_MS = 800;

interface Kept {
  past: ThemeDocument[];
  future: ThemeDocument[];
}

/** What was changed in this theme and can be taken back, also after the page is loaded again. */
export interface History {
  canUndo: boolean;
  canRedo: boolean;
  /** Notes that a document is about to be changed into another. */
  note(before: ThemeDocument, after: ThemeDocument): void;
  undo(now: ThemeDocument): ThemeDocument | null;
  redo(now: ThemeDocument): ThemeDocument | null;
}

export function useHistory(key: string, loaded: ThemeDocument): History {
  const kept = useRef<Kept>({ past: [], future: [] });
  const last = useRef({ settings: "", at: 0 });
  const [counts, setCounts] = useState({ past: 0, future: 0 });
  const changed = useCallback(
    (now: ThemeDocument) => {
      const { past, future } = kept.current;
      setCounts({ past: past.length, future: future.length });
      const stored: Stored = { ...kept.current, now };
      keepSoon(key, stored);
    },
    [key],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: looked for once, for the document as it was loaded
  useEffect(() => {
    const found = readKept<Stored | null>(key, null);
    if (!found || !same(found.now, loaded)) return;
    kept.current = { past: found.past, future: found.future };
    setCounts({ past: found.past.length, future: found.future.length });
  }, [key]);

  return {
    canUndo: counts.past > 0,
    canRedo: counts.future > 0,
    note(before, after) {
      const settings = settingsChanged(before, after);
      const now = Date.now();
      const goesOn = settings === last.current.settings && now - last.current.at < ONE_CHANGE_MS;
      last.current = { settings, at: now };
      if (!goesOn) kept.current.past = [...kept.current.past, before].slice(-MOST_KEPT);
      kept.current.future = [];
      changed(after);
    },
    undo(now) {
      const before = kept.current.past.at(-1);
      if (!before) return null;
      kept.current = {
        past: kept.current.past.slice(0, -1),
        future: [now, ...kept.current.future],
      };
      last.current = { settings: "", at: 0 };
      changed(before);
      return before;
    },
    redo(now) {
      const after = kept.current.future[0];
      if (!after) return null;
      kept.current = { past: [...kept.current.past, now], future: kept.current.future.slice(1) };
      changed(after);
      return after;
    },
  };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Names of the settings in which two documents differ. */
function settingsChanged(a: ThemeDocument, b: ThemeDocument): string {
  return (Object.keys(b) as (keyof ThemeDocument)[]).filter((k) => !same(a[k], b[k])).join(" ");
}

interface Stored extends Kept {
  now: ThemeDocument;
}
