import { data } from "react-router";
import type { Id } from "#server/ids.ts";
import { readId } from "#server/ids.ts";

/** The identifier in an address; throws 404 where it can be none. */
export function idFrom<T extends Id<string>>(text: string | undefined): T {
  const id = readId<T>(text);
  if (id === null) throw data(null, { status: 404 });
  return id;
}

/** What was looked for; throws 404 where there is none. */
export function found<T>(value: T | null): T {
  if (value === null) throw data(null, { status: 404 });
  return value;
}
