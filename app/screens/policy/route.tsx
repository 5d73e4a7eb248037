import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { CONFORMANCES } from "#core/contrast/pairs.ts";
import { changePolicy, readPolicy } from "#server/policy/policy.ts";
import { Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = () => [{ title: "Policy · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const saved = new URL(request.url).searchParams.has("saved");
  return { policy: await readPolicy(), saved, mayChange: person.capability === "administrator" };
}

const form = z.object({
  conformance: z.enum(CONFORMANCES),
  shortfall: z.enum(["warn", "refuse"]),
  waivers: z.enum(["yes", "no"]).transform((v) => v === "yes"),
});

export async function action({ request }: Route.ActionArgs) {
  const person = await mayChange(request);
  const read = form.safeParse(Object.fromEntries(await request.formData()));
  if (!read.success)
    return data({ problem: "Choose one answer to each question, then save." }, { status: 400 });
  await changePolicy(read.data, person.id);
  return redirect("/policy?saved");
}

const QUESTIONS = [
  {
    name: "conformance",
    legend: "How much contrast does text need?",
    options: [
      {
        value: "AA",
        label: "4.5:1 (WCAG 2.2, level AA)",
        hint: "What laws on accessibility ask of most organisations.",
      },
      {
        value: "AAA",
        label: "7:1 (WCAG 2.2, level AAA)",
        hint: "Steps and roles move further apart; brand colours are used for large areas less often.",
      },
    ],
  },
  {
    name: "shortfall",
    legend: "What happens to a theme in which a pair falls short?",
    options: [
      { value: "refuse", label: "It can't be released until each is mended or accepted", hint: "" },
      {
        value: "warn",
        label: "It can be released; the release page says what falls short",
        hint: "",
      },
    ],
  },
  {
    name: "waivers",
    legend: "May an administrator accept a finding for a time?",
    options: [
      { value: "yes", label: "Yes, with a reason and a last day", hint: "The log keeps both." },
      { value: "no", label: "No", hint: "What was accepted before no longer counts." },
    ],
  },
] as const;

export default function PolicyScreen({ loaderData, actionData }: Route.ComponentProps) {
  const { policy, saved, mayChange } = loaderData;
  const busy = useNavigation().state !== "idle";
  const chosen = { ...policy, waivers: policy.waivers ? "yes" : "no" };
  return (
    <Page
      title="Policy"
      lead="What your organisation asks of every theme. It counts from the next change on; releases stay as they are."
    >
      {saved ? (
        <p role="status" className="mb-4 border border-edge bg-surface px-4 py-3">
          Saved. Every theme is measured by it from now on.
        </p>
      ) : null}
      <Form method="post" className="max-w-2xl space-y-6 border border-hair bg-surface p-5">
        <fieldset disabled={!mayChange} className="space-y-6">
          <legend className="sr-only">Policy</legend>
          {QUESTIONS.map(({ name, legend, options }) => (
            <fieldset key={name}>
              <legend className="mb-1.5 font-semibold">{legend}</legend>
              {options.map(({ value, label, hint }) => (
                <label key={value} className="flex items-start gap-2.5 py-1">
                  <input
                    type="radio"
                    name={name}
                    value={value}
                    defaultChecked={chosen[name] === value}
                    className="mt-1 accent-ink"
                  />
                  <span>
                    {label}
                    {hint ? <span className="block text-sm text-faint">{hint}</span> : null}
                  </span>
                </label>
              ))}
            </fieldset>
          ))}
        </fieldset>
        {actionData?.problem ? <Problem>{actionData.problem}</Problem> : null}
        {mayChange ? (
          <button type="submit" className="press press-main" disabled={busy}>
            Save policy
          </button>
        ) : (
          <p className="text-faint">You can look, but only an administrator can change it.</p>
        )}
      </Form>
    </Page>
  );
}
