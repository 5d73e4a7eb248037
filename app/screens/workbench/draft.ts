import type { ThemeId } from "#server/ids.ts";
import { openTheme } from "#server/themes/themes.ts";
import { found, idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/draft";
import { saveFromForm } from "./save.ts";

/** The draft as it stands, for scripts. */
export async function loader({ request, params }: Route.LoaderArgs) {
  await signedIn(request);
  return Response.json(found(await openTheme(idFrom<ThemeId>(params.theme))));
}

/** Saves the draft for a script, which shows the answer itself. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const answer = await saveFromForm(
    await request.formData(),
    idFrom<ThemeId>(params.theme),
    person.id,
  );
  return Response.json(answer, { status: answer.kind === "refused" ? 400 : 200 });
}
