import { redirect } from "react-router";
import { type Display, safePath, setDisplay, signedIn } from "../../session.ts";
import type { Route } from "./+types/display";

export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  return redirect("/");
}

/** Sets the scheme of Livery's own pages and leads back to where one was. */
export async function action({ request }: Route.ActionArgs) {
  await signedIn(request);
  const form = await request.formData();
  const wanted = form.get("display");
  const display: Display = wanted === "light" || wanted === "dark" ? wanted : "system";
  return redirect(safePath(form.get("back")), {
    headers: { "set-cookie": await setDisplay(display) },
  });
}
