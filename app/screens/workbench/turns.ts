import { useEffect, useRef, useState } from "react";

/** Time between two panels that follow a change, in milliseconds. */
const APART_MS = 32;

const waiting = new Map<object, () => void>();
let underWay = false;

/** Lets the panel that has waited longest follow, then the next, each in a task of its own. */
function takeTurns(): void {
  const [next] = waiting;
  underWay = next !== undefined;
  if (!next) return;
  waiting.delete(next[0]);
  next[1]();
  setTimeout(takeTurns, APART_MS);
}

/**
 * A value that follows another in turn with everything else that does so: a drag changes all of
 * them many times a second, and drawing all at once would hold up the previews. Only the newest
 * value is ever taken, and the last always is.
 */
export function useTurn<T>(value: T): T {
  const [shown, setShown] = useState(value);
  const self = useRef({}).current;
  useEffect(() => {
    waiting.set(self, () => setShown(() => value));
    if (!underWay) {
      underWay = true;
      setTimeout(takeTurns, 0);
    }
  }, [self, value]);
  useEffect(() => () => void waiting.delete(self), [self]);
  return shown;
}
