import { useEffect } from "react";
import { useRevalidator } from "react-router";

/** Loads the page's data again whenever something changes at a place (at the given one, if any). */
export function useLive(place?: string): void {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const source = new EventSource("/live");
    source.addEventListener("change", (event) => {
      if (place === undefined || event.data === place) void revalidate();
    });
    source.addEventListener("open", () => void revalidate());
    return () => source.close();
  }, [place, revalidate]);
}
