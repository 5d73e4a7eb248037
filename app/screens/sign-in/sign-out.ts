import { redirect } from "react-router";
import { signOut } from "#server/auth/sign-in.ts";
import { clearSession, sessionToken, signedIn } from "../../session.ts";
import type { Route } from "./+types/sign-out";

export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  return redirect("/");
}

/** Revokes the session that asks. */
export async function action({ request }: Route.ActionArgs) {
  await signedIn(request);
  const token = await sessionToken(request);
  if (token) await signOut(token);
  return redirect("/sign-in", { headers: { "set-cookie": await clearSession() } });
}
