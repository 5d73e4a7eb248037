import { useEffect, useState } from "react";
import { data, Form, Link, redirect, useNavigation } from "react-router";
import { PLATFORMS } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { type Hex, toHex } from "#core/colour/srgb.ts";
import { ROLES, type Role } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { changeSlotMap, readSlotMaps } from "#server/platforms/slot-maps.ts";
import { listThemes } from "#server/themes/themes.ts";
import { Choice } from "../../components/choice.tsx";
import { Problem } from "../../components/field.tsx";
import { Page } from "../../components/page.tsx";
import { mayChange, signedIn } from "../../session.ts";
import { platformWords } from "../../wording/estate.ts";
import { roleWords } from "../../wording/roles.ts";
import type { Route } from "./+types/slots";

const THEMES_SHOWN = 20;

export const meta: Route.MetaFunction = () => [{ title: "Slot map · Livery" }];

const platformIn = (text: string | undefined) => {
  const platform = PLATFORMS.find((p) => p === text);
  if (!platform) throw data(null, { status: 404 });
  return platform;
};

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const platform = platformIn(params.platform);
  const [maps, themes] = await Promise.all([readSlotMaps(), listThemes(1, THEMES_SHOWN)]);
  return {
    platform,
    mayChange: person.capability === "administrator",
    usual: CONNECTORS[platform].usualSlots,
    slots: maps[platform],
    saved: new URL(request.url).searchParams.has("saved"),
    themes: themes.lines.map(({ id, name, document }) => {
      const { schemes } = computeTheme(document);
      const of = (scheme: "light" | "dark") =>
        Object.fromEntries(
          ROLES.map((role) => [role, toHex(schemes[scheme].standard[role].colour)]),
        ) as Record<Role, Hex>;
      return { id, name, light: of("light"), dark: of("dark") };
    }),
  };
}

/** Fills the slots anew, or as usual again. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const platform = platformIn(params.platform);
  const { act, ...slots } = Object.fromEntries(await request.formData());
  const changed = await changeSlotMap(platform, act === "reset" ? {} : slots, person.id);
  return changed
    ? redirect(`/platforms/${platform}?saved`)
    : data({ problem: "A slot or a role is unknown. Load the page again, then choose." }, 400);
}

export default function Slots({ loaderData, actionData }: Route.ComponentProps) {
  const { platform, usual, slots, themes, mayChange, saved } = loaderData;
  const busy = useNavigation().state !== "idle";
  const [chosen, setChosen] = useState<Record<string, Role>>(slots);
  useEffect(() => setChosen(slots), [slots]);
  const [theme, setTheme] = useState(themes[0]?.id ?? "");
  const shown = themes.find((t) => t.id === theme);
  const changed = Object.keys(usual).filter((slot) => chosen[slot] !== usual[slot]);
  return (
    <Page
      title={`Slots: ${platformWords(platform)}`}
      lead="Which role fills which slot. It counts for releases made from now on; those that are made stay as they are."
      actions={
        <Link to="/platforms" className="press">
          All platforms
        </Link>
      }
    >
      {saved ? (
        <p role="status" className="mb-3 border border-edge bg-surface px-4 py-2">
          Saved.
        </p>
      ) : null}
      <Form method="post" key={JSON.stringify(slots)}>
        <div className="mb-2 flex flex-wrap items-center gap-4">
          <Choice
            label="Shown with"
            value={theme}
            options={themes.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setTheme}
          />
          <span className="text-sm text-faint">
            {changed.length === 0 ? "All as usual" : `${changed.length} changed`}
          </span>
          {mayChange ? (
            <span className="ml-auto flex gap-2">
              <button type="submit" name="act" value="reset" className="press py-1" disabled={busy}>
                Set all back
              </button>
              <button
                type="submit"
                name="act"
                value="save"
                className="press press-main py-1"
                disabled={busy}
              >
                Save the slots
              </button>
            </span>
          ) : null}
        </div>
        {actionData?.problem ? <Problem>{actionData.problem}</Problem> : null}
        <table className="cells w-full border border-hair bg-surface text-sm">
          <caption className="sr-only">Slots with their roles</caption>
          <thead>
            <tr>
              <th scope="col">Slot</th>
              <th scope="col">Role</th>
              <th scope="col">Light</th>
              <th scope="col">Dark</th>
            </tr>
          </thead>
          <tbody>
            {Object.keys(usual).map((slot) => {
              const role = chosen[slot] as Role;
              return (
                <tr key={slot}>
                  <th scope="row" className="number">
                    {slot}
                  </th>
                  <td>
                    <select
                      name={slot}
                      aria-label={`Role of ${slot}`}
                      className="entry w-64 py-0.5"
                      value={role}
                      disabled={!mayChange}
                      onChange={(e) => setChosen({ ...chosen, [slot]: e.target.value as Role })}
                    >
                      {ROLES.map((r) => (
                        <option key={r} value={r}>
                          {roleWords(r)}
                        </option>
                      ))}
                    </select>
                    {role !== usual[slot] ? (
                      <span className="ml-2 text-faint">
                        usually {roleWords(usual[slot] as Role).toLowerCase()}
                      </span>
                    ) : null}
                  </td>
                  {(["light", "dark"] as const).map((scheme) => (
                    <td key={scheme}>
                      {shown ? (
                        <span className="number flex items-center gap-2 text-xs">
                          <span
                            aria-hidden="true"
                            className="h-5 w-10 border border-edge [forced-color-adjust:none]"
                            style={{ background: shown[scheme][role] }}
                          />
                          {shown[scheme][role]}
                        </span>
                      ) : null}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Form>
    </Page>
  );
}
