import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import type { ThemeDocument } from "#core/theme/document.ts";
import { STARTING_THEMES } from "#core/theme/starting.ts";
import { type ReleaseId, readId, type ThemeId } from "#server/ids.ts";
import { findRelease } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { createTheme, openTheme } from "#server/themes/themes.ts";
import { Field, Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { mayChange } from "../../session.ts";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = () => [{ title: "New theme · Livery" }];

interface Source {
  key: string;
  name: string;
  document: ThemeDocument;
}

/** What a new theme can start from: what the address names, then the starting themes. */
async function sourcesOf(request: Request): Promise<Source[]> {
  const params = new URL(request.url).searchParams;
  const themeId = readId<ThemeId>(params.get("theme"));
  const releaseId = readId<ReleaseId>(params.get("release"));
  const [theme, release] = await Promise.all([
    themeId && openTheme(themeId),
    releaseId && findRelease(releaseId),
  ]);
  return [
    ...(theme
      ? [{ key: "theme", name: `${theme.name}, as it is now`, document: theme.document }]
      : []),
    ...(release
      ? [{ key: "release", name: `Release “${release.name}”`, document: release.document }]
      : []),
    ...Object.entries(STARTING_THEMES).map(([name, document]) => ({ key: name, name, document })),
  ];
}

export async function loader({ request }: Route.LoaderArgs) {
  await mayChange(request);
  const sources = await sourcesOf(request);
  return sources.map(({ key, name, document }) => ({
    key,
    name,
    primary: document.primary,
    stripe: stripeOfDocument(document),
  }));
}

const form = z.object({
  name: z.string().trim().min(1, "Give the theme a name.").max(80, "Use 80 characters at most."),
  from: z.string(),
});

/** Makes a theme from what was chosen. */
export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const entered = Object.fromEntries(await request.formData());
  const kept = { name: String(entered.name ?? ""), from: String(entered.from ?? "") };
  const read = form.safeParse(entered);
  if (!read.success)
    return data(
      { kept, name: z.flattenError(read.error).fieldErrors.name, from: null },
      { status: 400 },
    );
  const source = (await sourcesOf(request)).find((s) => s.key === read.data.from);
  if (!source)
    return data({ kept, name: undefined, from: "Choose what to start from." }, { status: 400 });
  const result = await createTheme(read.data.name, source.document, person.id);
  if (result.ok) return redirect(`/themes/${result.id}`);
  const taken = ["Another theme has this name. Choose one that people can tell apart."];
  return data({ kept, name: taken, from: null }, { status: 409 });
}

export default function NewTheme({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().formMethod === "POST";
  return (
    <Page title="New theme" lead="It starts as a copy; what it was made from stays as it is.">
      <Form
        method="post"
        className="max-w-2xl space-y-4 border border-hair bg-surface p-5"
        noValidate
      >
        <fieldset>
          <legend className="font-medium">Start from</legend>
          <div className="rows mt-1 border-y border-hair">
            {loaderData.map((source, i) => (
              <label key={source.key} className="flex items-center gap-4 py-2">
                <input
                  type="radio"
                  name="from"
                  value={source.key}
                  defaultChecked={actionData ? actionData.kept.from === source.key : i === 0}
                  className="accent-ink"
                />
                <Stripe colours={source.stripe} className="h-9 w-28" />
                <span className="min-w-0 flex-1 break-words">{source.name}</span>
                <span className="number text-sm">{source.primary}</span>
              </label>
            ))}
          </div>
          {actionData?.from ? <Problem>{actionData.from}</Problem> : null}
        </fieldset>
        <Field
          id="name"
          label="Name of the theme"
          errors={actionData?.name}
          defaultValue={actionData?.kept.name}
          maxLength={80}
          autoComplete="off"
        />
        <button type="submit" className="press press-main" disabled={busy}>
          Make the theme
        </button>
      </Form>
    </Page>
  );
}
