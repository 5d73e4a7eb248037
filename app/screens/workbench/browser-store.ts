/** What the browser keeps under a key; the fallback where it keeps nothing, or nothing that can be read. */
export function readKept<T>(key: string, fallback: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? "null") as T | null) ?? fallback;
  } catch {
    return fallback;
  }
}

/** Keeps a value. The browser's own store may be full or forbidden; then it is forgotten, and nothing else is lost. */
export function keep(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    return;
  }
}

/** A drag changes a value many times a second; writing it each time would hold the drag up, in ms. */
const KEEP_AFTER_MS = 250;
const waiting = new Map<string, unknown>();

/** Keeps a value a moment later, or when the page is left before that: only the newest is written. */
export function keepSoon(key: string, value: unknown): void {
  if (waiting.size === 0) setTimeout(write, KEEP_AFTER_MS);
  waiting.set(key, value);
}

function write(): void {
  for (const [key, value] of waiting) keep(key, value);
  waiting.clear();
}

if (typeof window !== "undefined") window.addEventListener("pagehide", write);
