import { data, Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { refusals } from "#core/contrast/policy.ts";
import { computeTheme } from "#core/theme/theme.ts";
import type { ThemeId } from "#server/ids.ts";
import { readPolicy } from "#server/policy/policy.ts";
import { listWaivers } from "#server/policy/waivers.ts";
import { listReleases, makeRelease } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { openTheme } from "#server/themes/themes.ts";
import { Field, Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import { Verdict } from "../../components/verdict.tsx";
import { found, idFrom } from "../../params.ts";
import { mayChange } from "../../session.ts";
import type { Route } from "./+types/route";
import { Changes } from "./changes.tsx";
import { changesSince } from "./since.ts";

const SHOWN = 20;

const today = () => new Date().toISOString().slice(0, 10);

export const meta: Route.MetaFunction = () => [{ title: "Release · Livery" }];

export async function loader({ request, params }: Route.LoaderArgs) {
  await mayChange(request);
  const theme = found(await openTheme(idFrom<ThemeId>(params.theme)));
  const [releases, policy, waivers] = await Promise.all([
    listReleases(SHOWN, theme.id),
    readPolicy(),
    listWaivers(theme.id),
  ]);
  const all = computeTheme(theme.document, policy.conformance).findings;
  const short = all.filter((f) => f.kind !== "alike").length;
  const refused = refusals(all, policy, waivers, today()).length;
  const before = releases[0]?.document ?? null;
  return {
    theme,
    stripe: stripeOfDocument(theme.document),
    warned: policy.shortfall === "warn" ? short : 0,
    accepted: policy.shortfall === "warn" ? 0 : short - refused,
    findings: refused,
    since: before && changesSince(before, theme.document, policy.conformance),
    suggested: `${theme.name} ${(releases[0]?.number ?? 0) + 1}`,
    releases: releases.map((r) => ({ ...r, stripe: stripeOfDocument(r.document) })),
  };
}

const form = z.object({
  name: z.string().trim().min(1, "Give the release a name.").max(80, "Use 80 characters at most."),
  note: z.string().trim().min(1, "Say in a few words what changed.").max(2000),
  revision: z.coerce.number().int(),
});

/** Publishes the draft, at the revision that was shown, as a release. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const theme = idFrom<ThemeId>(params.theme);
  const entered = Object.fromEntries(await request.formData());
  const kept = { name: String(entered.name ?? ""), note: String(entered.note ?? "") };
  const read = form.safeParse(entered);
  const refuse = (problems: { name?: string[]; note?: string[]; form?: string }, status: number) =>
    data({ kept, problems }, { status });
  if (!read.success) return refuse(z.flattenError(read.error).fieldErrors, 400);
  const { name, note, revision } = read.data;
  const result = await makeRelease(theme, revision, { name, note }, person.id);
  if (result.ok) return redirect(`/estate?release=${result.id}`);
  switch (result.code) {
    case "name-taken":
      return refuse(
        {
          name: [
            "A release has this name already. In another system's list the two could not be told apart.",
          ],
        },
        409,
      );
    case "draft-moved-on":
      return refuse(
        {
          form: "The draft was changed since this page was loaded. Look at it again below, then release.",
        },
        409,
      );
    case "findings":
      return refuse(
        {
          form: `${result.findings.length} pairs fall short. Mend them in the workbench, then release.`,
        },
        409,
      );
    case "no-such-theme":
      throw data(null, { status: 404 });
  }
}

export default function Release({ loaderData, actionData }: Route.ComponentProps) {
  const { theme, stripe, findings, suggested, releases, since } = loaderData;
  const { warned, accepted } = loaderData;
  const busy = useNavigation().state !== "idle";
  const problems: { name?: string[]; note?: string[]; form?: string } = actionData?.problems ?? {};
  return (
    <Page
      title={`Release ${theme.name}`}
      lead="A release never changes. It is what gets delivered, and what you can go back to."
      actions={
        <Link to={`/themes/${theme.id}`} className="press">
          Back to the theme
        </Link>
      }
    >
      <div className="grid grid-cols-[1.1fr_1fr] gap-8">
        <Form method="post" className="space-y-4 border border-hair bg-surface p-5" noValidate>
          <div className="flex items-center gap-4">
            <Stripe colours={stripe} className="h-12 w-36" />
            <p className="flex items-center gap-2">
              <Verdict passes={findings + warned === 0} />
              <span>
                {findings > 0
                  ? `${findings} pairs fall short; mend or accept them first.`
                  : warned > 0
                    ? `${warned} pairs fall short; your policy lets them pass.`
                    : accepted > 0
                      ? `Every pair passes but ${accepted} that were accepted for a time.`
                      : "Every pair passes, in light and dark."}{" "}
                {findings + warned + accepted > 0 ? (
                  <Link to={`/themes/${theme.id}?tab=findings`} className="go">
                    See the findings
                  </Link>
                ) : null}
              </span>
            </p>
          </div>
          <input type="hidden" name="revision" value={theme.revision} />
          <Field
            id="name"
            label="Name"
            hint="People will look for it in other systems' lists. Up to 33 characters fit everywhere."
            defaultValue={actionData?.kept.name ?? suggested}
            errors={problems.name}
            maxLength={80}
            autoComplete="off"
          />
          <div>
            <label htmlFor="note" className="block font-medium">
              What changed
            </label>
            <textarea
              id="note"
              name="note"
              rows={3}
              maxLength={2000}
              className="entry mt-1"
              defaultValue={actionData?.kept.note}
              aria-invalid={problems.note ? true : undefined}
              aria-describedby={problems.note ? "note-error" : undefined}
            />
            {problems.note ? <Problem id="note-error">{problems.note.join(" ")}</Problem> : null}
          </div>
          {problems.form ? <Problem>{problems.form}</Problem> : null}
          <button type="submit" className="press press-main" disabled={busy || findings > 0}>
            Release
          </button>
        </Form>
        <section className="space-y-6">
          {since ? <Changes since={since} name={releases[0]?.name ?? ""} /> : null}
          <h2>Releases so far</h2>
          {releases.length === 0 ? (
            <p className="mt-2 text-faint">None yet. This will be the first.</p>
          ) : (
            <ul className="rows mt-2 border border-hair bg-surface">
              {releases.map((release) => (
                <li key={release.id} className="flex items-start gap-4 px-4 py-3">
                  <Stripe colours={release.stripe} className="mt-0.5 h-8 w-24" />
                  <div className="min-w-0">
                    <p className="font-semibold break-words">
                      {release.number}. {release.name}
                    </p>
                    <p className="break-words">{release.note}</p>
                    <p className="text-sm text-faint">
                      <Time at={release.createdAt} />
                    </p>
                  </div>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </Page>
  );
}
