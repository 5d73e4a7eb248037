import { data, Form, Link, redirect } from "react-router";
import type { RevisionId, ThemeId } from "#server/ids.ts";
import { listReleases } from "#server/releases/releases.ts";
import { stripeOfDocument } from "#server/themes/stripes.ts";
import { listVersions, openTheme, takeVersion } from "#server/themes/themes.ts";
import { Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { Pager, pageOf } from "../../components/pager.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { Time } from "../../components/time.tsx";
import { found, idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/route";

const PAGE_SIZE = 25;

export const meta: Route.MetaFunction = () => [{ title: "Versions · Livery" }];

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const theme = found(await openTheme(idFrom<ThemeId>(params.theme)));
  const page = pageOf(new URL(request.url).searchParams);
  const { lines, total } = await listVersions(theme.id, page, PAGE_SIZE);
  const releases = await listReleases(PAGE_SIZE, theme.id);
  return {
    theme,
    releases: releases.map((r) => ({ ...r, stripe: stripeOfDocument(r.document) })),
    page,
    total,
    mayChange: person.capability === "administrator",
    lines: lines.map((line) => ({ ...line, stripe: stripeOfDocument(line.document) })),
  };
}

/** Goes on from a kept version: the draft becomes what it was, as a new revision. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const theme = idFrom<ThemeId>(params.theme);
  const form = await request.formData();
  const version = idFrom<RevisionId>(String(form.get("version")));
  const result = await takeVersion(theme, version, Number(form.get("basedOn")), person.id);
  if (result.ok) return redirect(`/themes/${theme}`);
  const problem =
    result.code === "newer"
      ? `${result.theirs.savedBy} saved this theme meanwhile. Look at the newest version below, then choose again.`
      : "This version is no longer there.";
  return data({ problem }, { status: 409 });
}

export default function Versions({ loaderData, actionData }: Route.ComponentProps) {
  const { theme, lines, total, page, mayChange, releases } = loaderData;
  return (
    <Page
      title={`Versions of ${theme.name}`}
      lead="Everything that was ever saved, also what was kept aside because somebody else saved first."
      actions={
        <Link to={`/themes/${theme.id}`} className="press">
          Back to the theme
        </Link>
      }
    >
      {actionData ? <Problem>{actionData.problem}</Problem> : null}
      <ul className="rows border border-hair bg-surface">
        {lines.map((line) => (
          <li
            key={line.id}
            className="grid grid-cols-[9rem_9rem_1fr_13rem_11rem] items-center gap-5 px-4 py-2.5"
          >
            <Stripe colours={line.stripe} className="h-8 w-36" />
            <span className="font-semibold">
              {line.revision === null ? "Kept aside" : `Revision ${line.revision}`}
            </span>
            <span>
              {line.savedBy}{" "}
              <span className="number ml-2 text-sm text-faint">{line.document.primary}</span>
            </span>
            <span className="text-sm text-faint">
              <Time at={line.savedAt} />
            </span>
            <span className="text-right">
              {line.revision === theme.revision ? (
                <span className="text-sm text-faint">the draft now</span>
              ) : mayChange ? (
                <Form method="post">
                  <input type="hidden" name="version" value={line.id} />
                  <input type="hidden" name="basedOn" value={theme.revision} />
                  <button type="submit" className="press py-1">
                    Go on from this
                  </button>
                </Form>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
      <Pager page={page} size={PAGE_SIZE} total={total} />
      {releases.length > 0 ? (
        <section aria-labelledby="releases" className="mt-8">
          <h2 id="releases">Releases</h2>
          <ul className="rows mt-2 border border-hair bg-surface">
            {releases.map((release) => (
              <li
                key={release.id}
                className="grid grid-cols-[9rem_1fr_13rem_14rem] items-center gap-5 px-4 py-2.5"
              >
                <Stripe colours={release.stripe} className="h-8 w-36" />
                <span className="min-w-0 break-words">
                  <strong className="font-semibold">{release.name}</strong> {release.note}
                </span>
                <span className="text-sm text-faint">
                  <Time at={release.createdAt} />
                </span>
                <span className="text-right">
                  {mayChange ? (
                    <Link to={`/themes/new?release=${release.id}`} className="press py-1">
                      New theme from this
                    </Link>
                  ) : null}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </Page>
  );
}
