import { data, redirect } from "react-router";
import { z } from "zod";
import { CONTRAST_LEVELS, ROLES, SCHEMES } from "#core/theme/roles.ts";
import { readId, type ThemeId, type WaiverId } from "#server/ids.ts";
import { grantWaiver, withdrawWaiver } from "#server/policy/waivers.ts";
import { idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/waivers";

const form = z.object({
  kind: z.enum(["text", "boundary", "neighbour", "inactive", "alike"]),
  over: z.enum(ROLES),
  ground: z.enum(ROLES),
  scheme: z.enum(SCHEMES),
  level: z.enum(CONTRAST_LEVELS),
  reason: z
    .string()
    .trim()
    .min(1, "Say why this is accepted; the log keeps it.")
    .max(500, "Use 500 characters at most."),
  until: z.iso.date("Choose the last day on which this is accepted."),
});

export interface WaiverAnswer {
  done: boolean;
  problem: string | null;
}

const answer = (problem: string | null, status = 200) =>
  data<WaiverAnswer>({ done: problem === null, problem }, { status });

export async function loader({ request, params }: Route.LoaderArgs) {
  await signedIn(request);
  return redirect(`/themes/${idFrom<ThemeId>(params.theme)}?tab=findings`);
}

/** Accepts one finding for a time, or takes that back. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const theme = idFrom<ThemeId>(params.theme);
  const entered = await request.formData();
  const withdrawn = entered.get("withdraw");
  if (withdrawn !== null) {
    const id = readId<WaiverId>(withdrawn);
    if (id) await withdrawWaiver(theme, id, person.id);
    return answer(null);
  }
  const read = form.safeParse(Object.fromEntries(entered));
  if (!read.success) return answer(read.error.issues.map((i) => i.message).join(" "), 400);
  const result = await grantWaiver(theme, read.data, person.id);
  if (result.ok) return answer(null);
  switch (result.code) {
    case "in-the-past":
      return answer("That day is over. Choose today or a later one.", 400);
    case "not-allowed":
      return answer("Your organisation's policy does not let findings be accepted.", 403);
    case "no-such-theme":
      throw data(null, { status: 404 });
  }
}
