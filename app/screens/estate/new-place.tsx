import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { mayStandBelow, PLACE_KINDS } from "#core/estate/tree.ts";
import { addPlace } from "#server/estate/places.ts";
import { loadEstate } from "#server/estate/tree.ts";
import { type ConnectionId, type PlaceId, readId } from "#server/ids.ts";
import { listConnections } from "#server/platforms/connections.ts";
import { Field, Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { mayChange } from "../../session.ts";
import { KIND_WORDS, PLACE_REFUSAL_WORDS } from "../../wording/estate.ts";
import type { Route } from "./+types/new-place";

export const meta: Route.MetaFunction = () => [{ title: "Add a place · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  await mayChange(request);
  const [estate, connections] = await Promise.all([loadEstate(), listConnections()]);
  const names = new Map(estate.map((place) => [place.id, place]));
  const pathOf = (id: PlaceId | null): string => {
    const place = id && names.get(id);
    return place ? [pathOf(place.parent), place.name].filter(Boolean).join(" / ") : "";
  };
  return {
    parents: estate.map(({ id, kind }) => ({ id, kind, path: pathOf(id) })),
    connections: connections.map(({ id, name }) => ({ id, name })),
  };
}

const form = z.object({
  name: z.string().trim().min(1, "Give the place a name.").max(80, "Use 80 characters at most."),
  kind: z.enum(PLACE_KINDS),
  page: z.union([z.literal(""), z.url({ protocol: /^https?$/, error: "Enter a whole address." })]),
  key: z.string().trim().max(200),
});

export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const entered = Object.fromEntries(await request.formData());
  const kept = Object.fromEntries(Object.entries(entered).map(([k, v]) => [k, String(v)]));
  const read = form.safeParse(entered);
  const refuse = (problems: { name?: string[]; page?: string[]; key?: string[]; form?: string }) =>
    data({ kept, problems }, 400);
  if (!read.success) return refuse(z.flattenError(read.error).fieldErrors);
  const connection = readId<ConnectionId>(entered.connection);
  if (connection && read.data.key === "")
    return refuse({ key: ["Say what the platform calls the place."] });
  const made = await addPlace(
    {
      parent: readId<PlaceId>(entered.parent),
      kind: read.data.kind,
      name: read.data.name,
      connection,
      externalKey: read.data.key,
      page: read.data.page === "" ? null : read.data.page,
    },
    person.id,
  );
  if (made.ok) return redirect(`/estate/${made.id}`);
  const words = PLACE_REFUSAL_WORDS[made.code];
  return refuse(made.code === "name-taken" ? { name: [words] } : { form: words });
}

export default function NewPlace({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const { parents, connections } = loaderData;
  const kept: Record<string, string> = actionData?.kept ?? {};
  const problems: { name?: string[]; page?: string[]; key?: string[]; form?: string } =
    actionData?.problems ?? {};
  const kinds = PLACE_KINDS.filter(
    (kind) => mayStandBelow(kind, null) || parents.some((p) => mayStandBelow(kind, p.kind)),
  );
  return (
    <Page title="Add a place" lead="It inherits the theme of the place above until it has its own.">
      <Form
        method="post"
        noValidate
        className="max-w-2xl space-y-4 border border-hair bg-surface p-5"
      >
        <Field
          id="name"
          label="Name"
          defaultValue={kept.name}
          errors={problems.name}
          maxLength={80}
        />
        <div className="grid grid-cols-2 gap-4">
          <label className="block">
            <span className="font-medium">Kind</span>
            <select name="kind" className="entry mt-1" defaultValue={kept.kind ?? "application"}>
              {kinds.map((kind) => (
                <option key={kind} value={kind}>
                  {KIND_WORDS[kind]}
                </option>
              ))}
            </select>
          </label>
          <label className="block">
            <span className="font-medium">Below</span>
            <select name="parent" className="entry mt-1" defaultValue={kept.parent}>
              {parents.length === 0 ? <option value="">the top of the estate</option> : null}
              {parents.map((parent) => (
                <option key={parent.id} value={parent.id}>
                  {parent.path}
                </option>
              ))}
            </select>
          </label>
        </div>
        <label className="block">
          <span className="font-medium">Connection</span>
          <select name="connection" className="entry mt-1" defaultValue={kept.connection ?? ""}>
            <option value="">none: it only passes its theme on</option>
            {connections.map((connection) => (
              <option key={connection.id} value={connection.id}>
                {connection.name}
              </option>
            ))}
          </select>
        </label>
        <Field
          id="key"
          label="What the platform calls it"
          hint="The site, app, portal or board as it stands in the platform's own addresses."
          defaultValue={kept.key}
          errors={problems.key}
        />
        <Field
          id="page"
          label="Address of its page"
          hint="Where people see it; Livery links to it and never reads it."
          defaultValue={kept.page}
          errors={problems.page}
          inputMode="url"
        />
        {problems.form ? <Problem>{problems.form}</Problem> : null}
        <button type="submit" className="press press-main" disabled={busy}>
          Add the place
        </button>
      </Form>
    </Page>
  );
}
