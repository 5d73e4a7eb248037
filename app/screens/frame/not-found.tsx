import { data } from "react-router";
import { signedIn } from "../../session.ts";
import type { Route } from "./+types/not-found";

export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  throw data(null, { status: 404 });
}

export default function NotFound() {
  return null;
}
