import { data, Form, Link, useNavigation } from "react-router";
import { importEstate, type LineProblem } from "#server/estate/listing.ts";
import { Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { mayChange } from "../../session.ts";
import { PLACE_REFUSAL_WORDS } from "../../wording/estate.ts";
import type { Route } from "./+types/import";

export const meta: Route.MetaFunction = () => [{ title: "Import places · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  await mayChange(request);
  return null;
}

/** Adds the places of a list: all of them, or none. */
export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const form = await request.formData();
  const file = form.get("file");
  const typed = String(form.get("list") ?? "");
  const text = file instanceof File && file.size > 0 ? await file.text() : typed;
  if (text.trim() === "")
    return data({ list: "", problems: ["Choose a file or paste a list."], done: null }, 400);
  const result = await importEstate(text, person.id);
  return result.ok
    ? data({ list: "", problems: [], done: result })
    : data({ list: text, problems: result.problems.map(problemWords), done: null }, 400);
}

function problemWords(problem: LineProblem): string {
  return `Line ${problem.line}: ${detailWords(problem)}`;
}

function detailWords(problem: LineProblem): string {
  switch (problem.code) {
    case "unreadable":
      return `it can't be read (${problem.detail}).`;
    case "no-path":
      return "it has no path. Give the names from the top down, with “ / ” between them.";
    case "no-such-kind":
      return `“${problem.kind}” is no kind. Use organisation, tenant, application or area.`;
    case "nothing-above":
      return `there is no “${problem.above}” to stand below. List it first.`;
    case "no-such-theme":
      return `there is no theme “${problem.theme}”.`;
    case "unknown-connection":
      return `there is no connection “${problem.connection}”.`;
    default:
      return PLACE_REFUSAL_WORDS[problem.code];
  }
}

export default function Import({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <Page
      title="Import places"
      lead="A CSV or JSON list, as the export writes it. Places that are there already are left alone."
      actions={
        <span className="flex gap-2">
          <a href="/estate/export?as=csv" className="press">
            Export as CSV
          </a>
          <a href="/estate/export?as=json" className="press">
            Export as JSON
          </a>
        </span>
      }
    >
      {actionData?.done ? (
        <p role="status" className="mb-4 border border-edge bg-surface px-4 py-3">
          {actionData.done.added} places were added; {actionData.done.there} were there already.{" "}
          <Link to="/estate" className="go">
            Back to the estate
          </Link>
        </p>
      ) : null}
      <Form
        method="post"
        encType="multipart/form-data"
        className="max-w-3xl space-y-4 border border-hair bg-surface p-5"
      >
        <div>
          <label htmlFor="file" className="block font-medium">
            File
          </label>
          <input id="file" name="file" type="file" accept=".csv,.json" className="mt-1" />
        </div>
        <div>
          <label htmlFor="list" className="block font-medium">
            or the list itself
          </label>
          <textarea
            id="list"
            name="list"
            rows={8}
            defaultValue={actionData?.list}
            placeholder={
              "path,kind,connection,key,page,theme,locked\nOrrin Sound Group / Ferries,tenant,,,,Sound,"
            }
            className="entry number mt-1 text-sm"
          />
        </div>
        {actionData && actionData.problems.length > 0 ? (
          <div>
            <p className="font-medium">Nothing was added.</p>
            {actionData.problems.slice(0, 50).map((words) => (
              <Problem key={words}>{words}</Problem>
            ))}
          </div>
        ) : null}
        <button type="submit" className="press press-main" disabled={busy}>
          Add the places
        </button>
      </Form>
    </Page>
  );
}
