import { useEffect, useState } from "react";

const FORMAT: Intl.DateTimeFormatOptions = { dateStyle: "medium", timeStyle: "short" };

/** A moment in the reader's own locale and zone; until scripts run, in UTC and said so. */
export function Time({ at }: { at: Date | string }) {
  const date = new Date(at);
  const [words, setWords] = useState(
    () => `${new Intl.DateTimeFormat("en-GB", { ...FORMAT, timeZone: "UTC" }).format(date)} UTC`,
  );
  const stamp = date.getTime();
  useEffect(() => setWords(new Intl.DateTimeFormat(undefined, FORMAT).format(stamp)), [stamp]);
  return (
    <time dateTime={date.toISOString()} className="tabular-nums">
      {words}
    </time>
  );
}
