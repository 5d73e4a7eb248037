import { redirect } from "react-router";
import { signedIn } from "../../session.ts";
import type { Route } from "./+types/start";

export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  return redirect("/themes");
}
