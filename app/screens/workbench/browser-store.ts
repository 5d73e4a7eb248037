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
