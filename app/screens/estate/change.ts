import { data, redirect } from "react-router";
import { z } from "zod";
import {
  applyChange,
  type EstateChange,
  type Outcome,
  previewChange,
} from "#server/estate/assignments.ts";
import { movePlace } from "#server/estate/places.ts";
import { type Id, readId } from "#server/ids.ts";
import { mayChange, signedIn } from "../../session.ts";
import { PLACE_REFUSAL_WORDS, refusalWords } from "../../wording/estate.ts";
import type { Route } from "./+types/change";

const id = <T extends Id<string>>() =>
  z.string().transform((text, context) => {
    const read = readId<T>(text);
    if (read) return read;
    context.addIssue({ code: "custom", message: "no identifier" });
    return z.NEVER;
  });

const change = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("assign"),
    places: z.array(id<Id<"place">>()).min(1).max(5000),
    theme: id<Id<"theme">>().nullable(),
  }),
  z.object({ kind: z.literal("lock"), place: id<Id<"place">>(), locked: z.boolean() }),
  z.object({
    kind: z.literal("season"),
    place: id<Id<"place">>(),
    theme: id<Id<"theme">>(),
    from: z.iso.date(),
    until: z.iso.date(),
  }),
  z.object({ kind: z.literal("move"), place: id<Id<"place">>(), parent: id<Id<"place">>() }),
]);

const form = z.object({ intent: z.enum(["preview", "apply"]), change, delivers: z.boolean() });

export type ChangeAnswer =
  | { kind: "preview"; outcome: Outcome; refused: string[] }
  | { kind: "done"; altered: number }
  | { kind: "refused"; refused: string[] };

const answer = (value: ChangeAnswer, status = 200) => data<ChangeAnswer>(value, { status });

export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  return redirect("/estate");
}

/** Says what a change of the estate would do, or does it. */
export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const entered = form.safeParse(await request.json().catch(() => null));
  if (!entered.success)
    return answer({ kind: "refused", refused: ["Choose a day for both ends, then go on."] }, 400);
  const { intent, delivers } = entered.data;
  const wanted = entered.data.change as EstateChange;
  if (intent === "preview") {
    const outcome = await previewChange(wanted);
    return answer({ kind: "preview", outcome, refused: outcome.refusals.map(refusalWords) });
  }
  if (wanted.kind === "move") {
    const moved = await movePlace(wanted.place, wanted.parent, person.id);
    return moved.ok
      ? answer({ kind: "done", altered: 0 })
      : answer({ kind: "refused", refused: [PLACE_REFUSAL_WORDS[moved.code]] }, 409);
  }
  const result = await applyChange(wanted, person.id, { delivers });
  return result.ok
    ? answer({ kind: "done", altered: result.outcome.altered.filter((a) => a.deliverable).length })
    : answer({ kind: "refused", refused: result.refusals.map(refusalWords) }, 409);
}
