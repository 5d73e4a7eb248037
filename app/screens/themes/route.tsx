import { data, Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { readColour } from "#core/colour/notation.ts";
import { toHex } from "#core/colour/srgb.ts";
import { fromPrimary } from "#core/theme/document.ts";
import type { ThemeId } from "#server/ids.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { archiveTheme, createTheme, listThemes } from "#server/themes/themes.ts";
import { Field } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Pager, pageOf } from "../../components/pager.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import { idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import { notationWords } from "../../wording/notation.ts";
import type { Route } from "./+types/route";

const PAGE_SIZE = 25;

export const meta: Route.MetaFunction = () => [{ title: "Themes · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const params = new URL(request.url).searchParams;
  const page = pageOf(params);
  const search = (params.get("search") ?? "").trim().slice(0, 80);
  const archived = params.get("put-away") === "yes";
  const { lines, total } = await listThemes(page, PAGE_SIZE, { search, archived });
  return {
    mayChange: person.capability === "administrator",
    page,
    total,
    search,
    archived,
    lines: lines.map((line) => ({ ...line, stripe: stripeOfDocument(line.document) })),
  };
}

const form = z.object({
  name: z.string().trim().min(1, "Give the theme a name.").max(80, "Use 80 characters at most."),
  primary: z.string(),
});

/** Makes a theme from a name and one colour; puts one away, or takes it out again. */
export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const entered = Object.fromEntries(await request.formData());
  if (entered.intent === "put-away" || entered.intent === "take-out") {
    await archiveTheme(
      idFrom<ThemeId>(String(entered.theme)),
      entered.intent === "put-away",
      person.id,
    );
    return redirect("/themes");
  }
  const kept = { name: String(entered.name ?? ""), primary: String(entered.primary ?? "") };
  const read = form.safeParse(entered);
  const colour = readColour(kept.primary);
  const problems = {
    name: read.success
      ? []
      : read.error.issues.filter((i) => i.path[0] === "name").map((i) => i.message),
    primary: primaryProblems(colour),
  };
  if (!read.success || !colour.ok || problems.primary.length > 0)
    return data({ kept, problems }, { status: 400 });
  const result = await createTheme(
    read.data.name,
    fromPrimary(toHex(colour.value.colour)),
    person.id,
  );
  if (!result.ok) {
    problems.name = ["Another theme has this name. Choose one that people can tell apart."];
    return data({ kept, problems }, { status: 409 });
  }
  return redirect(`/themes/${result.id}`);
}

function primaryProblems(colour: ReturnType<typeof readColour>): string[] {
  if (!colour.ok) return [notationWords(colour.error)];
  if (colour.value.alpha < 1)
    return ["A brand colour can't be see-through. Give it without opacity, such as #0b5e55."];
  return [];
}

export default function Themes({ loaderData, actionData }: Route.ComponentProps) {
  const { lines, total, page, search, mayChange, archived } = loaderData;
  return (
    <Page title="Themes" lead="One colour in; shades, light and dark follow.">
      {mayChange ? <NewTheme actionData={actionData} /> : null}
      <div className="mt-6 border border-hair bg-surface">
        <div className="flex items-center justify-between gap-4 border-b border-hair px-4 py-3">
          <h2>
            {total} {total === 1 ? "theme" : "themes"}
            {archived ? " put away" : ""}
            {search ? ` with “${search}”` : ""}
          </h2>
          <Form className="flex items-center gap-2" role="search">
            <label htmlFor="search" className="sr-only">
              Search by name
            </label>
            <input
              id="search"
              name="search"
              type="search"
              defaultValue={search}
              placeholder="Search by name"
              className="entry w-56 py-1"
            />
            <button type="submit" className="press py-1">
              Search
            </button>
          </Form>
        </div>
        {lines.length === 0 ? (
          <p className="px-4 py-8 text-faint">
            {search
              ? "No theme has this in its name. Try fewer letters."
              : "There is no theme yet. Type your organisation's colour above to make the first."}
          </p>
        ) : (
          <ul className="rows">
            {lines.map((line) => (
              <li key={line.id} className="flex items-stretch hover:bg-sunken">
                <Link
                  to={`/themes/${line.id}`}
                  className="grid min-w-0 flex-1 grid-cols-[9rem_1fr_6rem_12rem_11rem] items-center gap-5 px-4 py-3"
                >
                  <Stripe colours={line.stripe} className="h-11 w-36" />
                  <span className="line-clamp-2 min-w-0 text-lg leading-tight font-semibold break-words">
                    {line.name}
                  </span>
                  <span className="number text-sm">{line.document.primary}</span>
                  <span className="min-w-0 truncate text-sm">
                    {line.release ? (
                      <>
                        Release {line.release.number}, “{line.release.name}”
                      </>
                    ) : (
                      <span className="text-faint">not released yet</span>
                    )}
                  </span>
                  <span className="text-right text-sm text-faint">
                    <Time at={line.savedAt} />
                  </span>
                </Link>
                {mayChange ? (
                  <span className="flex w-40 items-center justify-end gap-3 pr-4 text-sm">
                    <Link
                      to={`/themes/new?theme=${line.id}`}
                      className="go"
                      aria-label={`Duplicate ${line.name}`}
                    >
                      Duplicate
                    </Link>
                    <Form method="post">
                      <input type="hidden" name="theme" value={line.id} />
                      <button
                        type="submit"
                        name="intent"
                        value={archived ? "take-out" : "put-away"}
                        className="go"
                        aria-label={`${archived ? "Take out" : "Put away"} ${line.name}`}
                      >
                        {archived ? "Take out" : "Put away"}
                      </button>
                    </Form>
                  </span>
                ) : null}
              </li>
            ))}
          </ul>
        )}
      </div>
      <Pager page={page} size={PAGE_SIZE} total={total} />
      <p className="mt-4 flex gap-6 text-sm">
        {mayChange ? (
          <Link to="/themes/new" className="go">
            Start from something else
          </Link>
        ) : null}
        <Link to={archived ? "/themes" : "?put-away=yes"} className="go">
          {archived ? "Show the themes in use" : "Show what was put away"}
        </Link>
      </p>
    </Page>
  );
}

function NewTheme({ actionData }: { actionData: Route.ComponentProps["actionData"] }) {
  const busy = useNavigation().formMethod === "POST";
  return (
    <Form
      method="post"
      noValidate
      className="grid grid-cols-[1fr_1fr_auto] items-start gap-4 border border-hair bg-surface p-4"
    >
      <Field
        id="primary"
        label="Your organisation's colour"
        hint="As you have it: #0b5e55, rgb(11, 94, 85), teal …"
        errors={actionData?.problems.primary}
        defaultValue={actionData?.kept.primary}
        autoComplete="off"
        spellCheck={false}
      />
      <Field
        id="name"
        label="Name of the theme"
        hint="One that people will recognise in other systems."
        errors={actionData?.problems.name}
        defaultValue={actionData?.kept.name}
        maxLength={80}
        autoComplete="off"
      />
      <button type="submit" className="press press-main mt-6.5" disabled={busy}>
        New theme
      </button>
    </Form>
  );
}
