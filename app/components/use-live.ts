import { useEffect } from "react";
import { useRevalidator } from "react-router";

/** Changes within this time are loaded together, in milliseconds. */
const TOGETHER_MS = 400;

/** Loads the page's data again whenever something changes (at the given place or rollout, if any). */
export function useLive(subject?: string): void {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const soon = () => {
      timer ??= setTimeout(() => {
        timer = undefined;
        void revalidate();
      }, TOGETHER_MS);
    };
    const source = new EventSource("/live");
    source.addEventListener("change", (event) => {
      if (subject === undefined || event.data === subject) soon();
    });
    source.addEventListener("open", soon);
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [subject, revalidate]);
}
