import { useCallback, useEffect, useRef, useState } from "react";
import type { ThemeDocument } from "#core/theme/document.ts";
import { formOf, type NewerDraft, type SaveAnswer } from "./draft-form.ts";
import { useHistory } from "./use-history.ts";

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;

/** How the draft stands with the server. */
export type SaveState = "saved" | "saving" | "unreachable" | "signed-out" | "newer" | "refused";

export interface DraftState {
  document: ThemeDocument;
  revision: number;
  state: SaveState;
  newer: NewerDraft | null;
  change(change: Partial<ThemeDocument>): void;
  canUndo: boolean;
  canRedo: boolean;
  undo(): void;
  redo(): void;
  keepMine(): void;
  takeTheirs(): void;
}

interface Start {
  document: ThemeDocument;
  revision: number;
  newer: NewerDraft | null;
}

/**
 * The draft under the hand: changes show at once and are saved a moment later. A save that can't
 * be made is tried again; one that meets somebody's newer save waits for a decision.
 */
export function useDraft(address: string, start: Start): DraftState {
  const [document, setDocument] = useState(start.document);
  const history = useHistory(`livery-undo ${address}`, start.document);
  const [revision, setRevision] = useState(start.revision);
  const [state, setState] = useState<SaveState>(start.newer ? "newer" : "saved");
  const [newer, setNewer] = useState(start.newer);
  const saved = useRef(start.newer ? null : start.document);
  const sending = useRef(false);
  const [round, setRound] = useState(0);

  const send = useCallback(async () => {
    sending.current = true;
    setState("saving");
    const outcome = await post(address, document, revision);
    sending.current = false;
    if (outcome.state === "saved") {
      saved.current = document;
      setRevision(outcome.revision);
    }
    if (outcome.state === "newer") setNewer(outcome.newer);
    setState(outcome.state);
    setRound((n) => n + 1);
  }, [address, document, revision]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a finished round looks again for changes made meanwhile
  useEffect(() => {
    if (saved.current === document || newer || sending.current || state === "refused") return;
    const waits =
      state === "unreachable" || state === "signed-out" ? RETRY_AFTER_MS : SAVE_AFTER_MS;
    const timer = setTimeout(() => void send(), waits);
    return () => clearTimeout(timer);
  }, [document, newer, send, state, round]);

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (saved.current !== document) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [document]);

  const put = (after: ThemeDocument | null) => {
    if (after === null) return;
    setState((old) => (old === "saved" || old === "refused" ? "saving" : old));
    setDocument(after);
  };

  return {
    document,
    revision,
    state,
    newer,
    change: (change) => {
      const after = { ...document, ...change };
      history.note(document, after);
      put(after);
    },
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    undo: () => put(history.undo(document)),
    redo: () => put(history.redo(document)),
    keepMine: () => {
      if (!newer) return;
      setRevision(newer.revision);
      setNewer(null);
      setState("saving");
      setDocument((old) => ({ ...old }));
    },
    takeTheirs: () => {
      if (!newer) return;
      saved.current = newer.document;
      setDocument(newer.document);
      setRevision(newer.revision);
      setNewer(null);
      setState("saved");
    },
  };
}

type Outcome =
  | { state: "saved"; revision: number }
  | { state: "newer"; newer: NewerDraft }
  | { state: "unreachable" | "signed-out" | "refused" };

async function post(address: string, document: ThemeDocument, revision: number): Promise<Outcome> {
  try {
    const response = await fetch(address, {
      method: "POST",
      body: formOf(document, revision),
      redirect: "manual",
    });
    if (response.type === "opaqueredirect") return { state: "signed-out" };
    if (response.status >= 500) return { state: "unreachable" };
    if (!response.ok) return { state: "refused" };
    const answer = (await response.json()) as SaveAnswer;
    if (answer.kind === "saved") return { state: "saved", revision: answer.revision };
    if (answer.kind === "newer") return { state: "newer", newer: answer.theirs };
    return { state: "refused" };
  } catch {
    return { state: "unreachable" };
  }
}
