import { createCookie, data, redirect } from "react-router";
import { personOf, SESSION_SECONDS, type SignedIn } from "#server/auth/sign-in.ts";
import { config } from "#server/config.ts";

const sessionCookie = () =>
  createCookie("livery_session", {
    httpOnly: true,
    sameSite: "lax",
    secure: config().LIVERY_ORIGIN.startsWith("https:"),
    path: "/",
    maxAge: SESSION_SECONDS,
  });

export const setSession = (token: string): Promise<string> => sessionCookie().serialize(token);
export const clearSession = (): Promise<string> => sessionCookie().serialize("", { maxAge: 0 });

/** The session token that a request carries; null where it carries none. */
export async function sessionToken(request: Request): Promise<string | null> {
  const token: unknown = await sessionCookie().parse(request.headers.get("cookie"));
  return typeof token === "string" && token !== "" ? token : null;
}

/** Who asks; throws a redirect to the sign-in page where nobody is signed in. */
export async function signedIn(request: Request): Promise<SignedIn> {
  const token = await sessionToken(request);
  const person = token === null ? null : await personOf(token);
  if (person) return person;
  const url = new URL(request.url);
  const back = request.method === "GET" ? url.pathname + url.search : "/";
  throw redirect(`/sign-in?to=${encodeURIComponent(back)}`);
}

/** Who asks, if they may change things; throws 403 for those who only read. */
export async function mayChange(request: Request): Promise<SignedIn> {
  const person = await signedIn(request);
  if (person.capability !== "administrator") throw data({ code: "reader" }, { status: 403 });
  return person;
}

/** A place to go after sign-in: a path of ours, never another site's address. */
export function safePath(to: FormDataEntryValue | string | null): string {
  return typeof to === "string" && /^\/(?![/\\])/.test(to) && !to.startsWith("/sign-") ? to : "/";
}

const displayCookie = createCookie("livery_display", {
  sameSite: "lax",
  path: "/",
  maxAge: 31_536_000,
});

export type Display = "system" | "light" | "dark";

/** The scheme that a person chose for Livery's own pages. */
export async function displayOf(request: Request): Promise<Display> {
  const value: unknown = await displayCookie.parse(request.headers.get("cookie"));
  return value === "light" || value === "dark" ? value : "system";
}

export const setDisplay = (display: Display): Promise<string> => displayCookie.serialize(display);
