import { useMemo, useState } from "react";
import { data, Form, Link, redirect } from "react-router";
import { toHex } from "#core/colour/srgb.ts";
import type { Step } from "#core/scale/ladder.ts";
import type { Scales } from "#core/scale/scales.ts";
import { type Role, SCHEMES } from "#core/theme/roles.ts";
import { stripeOf } from "#core/theme/stripe.ts";
import { computeTheme, type Theme } from "#core/theme/theme.ts";
import type { ThemeId } from "#server/ids.ts";
import { openTheme } from "#server/themes/themes.ts";
import { Stripe } from "../../components/stripe.tsx";
import { found, idFrom } from "../../params.ts";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/route";
import type { FieldProblems } from "./draft-form.ts";
import { Findings } from "./findings.tsx";
import { Ladder, OtherScales } from "./ladder.tsx";
import { Newer } from "./newer.tsx";
import { Preview } from "./preview.tsx";
import { RoleTable } from "./role-table.tsx";
import { saveFromForm } from "./save.ts";
import { ColourField } from "./sources.tsx";
import { type DraftState, type SaveState, useDraft } from "./use-draft.ts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { theme?: { name: string } })?.theme?.name ?? "Theme"} · Livery` },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const theme = found(await openTheme(idFrom<ThemeId>(params.theme)));
  return { theme, mayChange: person.capability === "administrator" };
}

/** Saves the form as the browser itself sends it, without scripts. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const id = idFrom<ThemeId>(params.theme);
  const form = await request.formData();
  if (form.get("decide") === "theirs") return redirect(`/themes/${id}`);
  const answer = await saveFromForm(form, id, person.id);
  return data(answer, {
    status: answer.kind === "refused" ? 400 : answer.kind === "newer" ? 409 : 200,
  });
}

export default function Workbench({ loaderData, actionData }: Route.ComponentProps) {
  const { theme, mayChange } = loaderData;
  const conflict = actionData?.kind === "newer" ? actionData : null;
  const draft = useDraft(`/themes/${theme.id}/draft`, {
    document: conflict?.ours ?? theme.document,
    revision: theme.revision,
    newer: conflict?.theirs ?? null,
  });
  const computed = useMemo(() => computeTheme(draft.document), [draft.document]);
  const [pointed, setPointed] = useState<Role | null>(null);
  return (
    <div className="flex h-[calc(100vh-3rem)] min-h-[36rem] flex-col">
      <Bar name={theme.name} id={theme.id} draft={draft} theme={computed} mayChange={mayChange} />
      {draft.newer ? (
        <Newer
          theirs={draft.newer}
          mine={draft.document}
          onKeepMine={draft.keepMine}
          onTakeTheirs={draft.takeTheirs}
        />
      ) : null}
      <div className="grid min-h-0 flex-1 grid-cols-[17rem_minmax(26rem,1fr)_minmax(24rem,1.05fr)]">
        <section
          aria-label="Sources and shades"
          className="overflow-y-auto border-r border-hair bg-surface px-4 py-3"
        >
          <Sources
            draft={draft}
            scales={computed.scales}
            mayChange={mayChange}
            problems={actionData?.kind === "refused" ? actionData.problems : {}}
          />
          <h2 className="mt-4 mb-1 text-sm">Shades of your colour</h2>
          <Ladder scale={computed.scales.brand} lit={litSteps(computed, pointed)} />
          <h2 className="mt-4 mb-2 text-sm">Other scales</h2>
          <OtherScales scales={computed.scales} />
        </section>
        <section
          aria-label="Roles"
          className="flex min-h-0 flex-col border-r border-hair bg-surface"
        >
          <Findings
            document={draft.document}
            theme={computed}
            mayChange={mayChange}
            onRepair={draft.change}
          />
          <div className="min-h-0 flex-1 overflow-y-auto">
            <RoleTable theme={computed} onPoint={setPointed} />
          </div>
        </section>
        <section aria-label="Preview" className="grid min-h-0 grid-rows-2 gap-px bg-hair">
          {SCHEMES.map((scheme) => (
            <div key={scheme} className="flex min-h-0 flex-col bg-surface">
              <h2 className="px-3 py-1 text-sm">{scheme === "light" ? "Light" : "Dark"}</h2>
              <div className="min-h-0 flex-1">
                <Preview colours={computed.schemes[scheme].standard} scheme={scheme} />
              </div>
            </div>
          ))}
        </section>
      </div>
    </div>
  );
}

interface BarProps {
  name: string;
  id: string;
  draft: DraftState;
  theme: Theme;
  mayChange: boolean;
}

function Bar({ name, id, draft, theme, mayChange }: BarProps) {
  const stripe = useMemo(() => stripeOf(theme), [theme]);
  return (
    <div className="flex shrink-0 items-center gap-4 border-b border-hair px-4 py-2">
      <Stripe colours={stripe} className="h-8 w-22" />
      <h1 className="min-w-0 truncate" title={name}>
        {name}
      </h1>
      <p role="status" className="text-sm whitespace-nowrap text-faint">
        {mayChange
          ? SAVE_WORDS[draft.state]
          : "You can look, but only an administrator can change it."}
      </p>
      <span className="ml-auto flex items-center gap-3">
        <Link to={`/themes/${id}/versions`} className="go text-sm">
          Versions
        </Link>
        {mayChange ? (
          <Link to={`/themes/${id}/release`} className="press press-main">
            Release …
          </Link>
        ) : null}
      </span>
    </div>
  );
}

const SAVE_WORDS: Record<SaveState, string> = {
  saved: "Saved",
  saving: "Saving …",
  unreachable:
    "Not saved: Livery can't be reached. Your changes are kept here and saved when it answers.",
  "signed-out":
    "Not saved: you were signed out. Sign in in another tab; your changes are kept here.",
  newer: "Not saved: a newer version is there",
  refused: "Not saved: Livery refused this. Your changes are kept here.",
};

interface SourcesProps {
  draft: DraftState;
  scales: Scales;
  mayChange: boolean;
  problems: FieldProblems;
}

function Sources({ draft, scales, mayChange, problems }: SourcesProps) {
  const { document, revision, change } = draft;
  const derivedAccent = toHex(scales.accent.steps[scales.accent.brandStep ?? 600]);
  return (
    <Form
      method="post"
      id="sources"
      className="space-y-3"
      onSubmit={(event) => event.preventDefault()}
    >
      <input type="hidden" name="document" value={JSON.stringify(document)} />
      <input type="hidden" name="basedOn" value={draft.newer?.revision ?? revision} />
      <ColourField
        name="primary"
        label="Your colour"
        value={document.primary}
        readOnly={!mayChange}
        problem={problems.primary}
        onChange={(primary) => change({ primary })}
      />
      <ColourField
        name="accent"
        label="Accent"
        value={document.accent}
        derived={derivedAccent}
        readOnly={!mayChange}
        problem={problems.accent}
        onChange={(accent) => change({ accent })}
      />
      <div>
        <label htmlFor="neutralTint" className="flex justify-between text-sm font-medium">
          Tint of the greys <span className="number font-normal">{document.neutralTint} %</span>
        </label>
        <input
          id="neutralTint"
          name="neutralTint"
          type="range"
          min={0}
          max={100}
          step={5}
          value={document.neutralTint}
          disabled={!mayChange}
          onChange={(event) => change({ neutralTint: Number(event.target.value) })}
          className="w-full accent-ink"
        />
      </div>
      {problems.form ? <p role="alert">{problems.form}</p> : null}
      {mayChange ? (
        <noscript>
          <button type="submit" className="press press-main">
            Save
          </button>
        </noscript>
      ) : null}
    </Form>
  );
}

/** The brand steps that a role takes, with the scheme in which it does. */
function litSteps(theme: Theme, role: Role | null): Map<Step, string> {
  const lit = new Map<Step, string>();
  if (role === null) return lit;
  for (const scheme of SCHEMES) {
    const { reason } = theme.schemes[scheme].standard[role];
    if ((reason.kind === "brand" || reason.kind === "step") && reason.scale === "brand")
      lit.set(reason.step, lit.has(reason.step) ? "both" : scheme);
  }
  return lit;
}
