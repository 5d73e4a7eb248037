import { useState } from "react";
import { Link } from "react-router";
import type { Platform } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { toHex } from "#core/colour/srgb.ts";
import { toJson } from "#core/exchange/data.ts";
import { STEPS } from "#core/scale/ladder.ts";
import { SCALE_NAMES } from "#core/scale/scales.ts";
import { ROLES, type Role } from "#core/theme/roles.ts";
import { computeTheme } from "#core/theme/theme.ts";
import { findPlace } from "#server/estate/places.ts";
import { viewEstate } from "#server/estate/tree.ts";
import type { PlaceId } from "#server/ids.ts";
import { readSlotMaps } from "#server/platforms/slot-maps.ts";
import { Copy } from "../../components/copy.tsx";
import { Page } from "../../components/page.tsx";
import { found, idFrom } from "../../params.ts";
import { signedIn } from "../../session.ts";
import { platformWords } from "../../wording/estate.ts";
import { roleWords } from "../../wording/roles.ts";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: `References for ${(loaderData as { place?: { name: string } })?.place?.name ?? "a place"} · Livery`,
  },
];

interface Reference {
  kind: "slot" | "role" | "step";
  name: string;
  words: string;
  light: string;
  dark: string;
  /** How the platform's builders write it; null where they can't. */
  written: string | null;
}

export async function loader({ request, params }: Route.LoaderArgs) {
  await signedIn(request);
  const place = found(await findPlace(idFrom<PlaceId>(params.place)));
  const [estate, maps] = await Promise.all([viewEstate(), readSlotMaps()]);
  const row = estate.rows.find((r) => r.id === place.id);
  const release = estate.releases.find((r) => r.id === (row?.live ?? row?.newest));
  const isLive = Boolean(row?.live);
  if (!release)
    return { place, release: null, isLive, references: [] as Reference[], document: "" };
  const theme = computeTheme(release.document);
  const platform = place.platform as Platform | null;
  const connector = platform && CONNECTORS[platform];
  const written = (kind: Reference["kind"], name: string) =>
    connector ? connector.reference(kind, name) : `var(--livery-${name})`;
  const colour = (scheme: "light" | "dark", role: Role) =>
    toHex(theme.schemes[scheme].standard[role].colour);
  const references: Reference[] = [
    ...Object.entries(platform ? maps[platform] : {}).map(([name, role]) => ({
      kind: "slot" as const,
      name,
      words: roleWords(role),
      light: colour("light", role),
      dark: colour("dark", role),
      written: written("slot", name),
    })),
    ...ROLES.map((role) => ({
      kind: "role" as const,
      name: role,
      words: roleWords(role),
      light: colour("light", role),
      dark: colour("dark", role),
      written: written("role", role),
    })),
    ...SCALE_NAMES.flatMap((scale) =>
      STEPS.map((step) => {
        const hex = toHex(theme.scales[scale].steps[step]);
        const name = `${scale}-${step}`;
        const words = `${scale} ${step}`;
        return {
          kind: "step" as const,
          name,
          words,
          light: hex,
          dark: hex,
          written: written("step", name),
        };
      }),
    ),
  ];
  return {
    place,
    isLive,
    release: { name: release.name },
    references,
    document: toJson(theme),
  };
}

const GROUPS = [
  { kind: "slot", words: "Slots of the platform" },
  { kind: "role", words: "Roles" },
  { kind: "step", words: "Steps" },
] as const;

export default function References({ loaderData }: Route.ComponentProps) {
  const { place, release, isLive, references, document } = loaderData;
  const [search, setSearch] = useState("");
  const wanted = search.trim().toLowerCase();
  const shown = references.filter((r) =>
    `${r.name} ${r.words} ${r.light} ${r.dark} ${r.written ?? ""}`.toLowerCase().includes(wanted),
  );
  return (
    <Page
      title={`References for ${place.name}`}
      lead={
        release
          ? `How people who build on ${place.platform ? `the ${platformWords(place.platform)}` : "it"} refer to its colours. Values are those of “${release.name}”${isLive ? ", live there now" : ", not delivered yet"}.`
          : "Nothing is released for this place yet."
      }
      actions={
        <Link to={`/estate/${place.id}`} className="press">
          Back to {place.name}
        </Link>
      }
    >
      {release ? (
        <>
          <div className="mb-3 flex items-center gap-4">
            <label htmlFor="search" className="sr-only">
              Find a reference
            </label>
            <input
              id="search"
              type="search"
              className="entry w-80 py-1"
              placeholder="Find by name, value or reference"
              value={search}
              onChange={(event) => setSearch(event.target.value)}
            />
            <span role="status" className="text-sm text-faint">
              {shown.length} of {references.length}
            </span>
            <span className="ml-auto flex items-center gap-2 text-sm">
              The whole theme as JSON <Copy text={document} what="the whole theme" />
            </span>
          </div>
          {GROUPS.map(({ kind, words }) => {
            const group = shown.filter((r) => r.kind === kind);
            if (group.length === 0) return null;
            return (
              <table
                key={kind}
                className="cells mb-5 w-full table-fixed border border-hair bg-surface text-sm"
              >
                <caption className="py-1 text-left font-semibold">{words}</caption>
                <thead>
                  <tr>
                    <th scope="col" className="w-[26%]">
                      Name
                    </th>
                    <th scope="col" className="w-[16%]">
                      Light
                    </th>
                    <th scope="col" className="w-[16%]">
                      Dark
                    </th>
                    <th scope="col">Written there as</th>
                  </tr>
                </thead>
                <tbody>
                  {group.map((r) => (
                    <tr key={r.name}>
                      <th scope="row" className="break-words">
                        {kind === "slot" ? <span className="number">{r.name}</span> : r.words}
                        {kind === "slot" ? (
                          <span className="block text-xs text-faint">{r.words}</span>
                        ) : null}
                      </th>
                      {[r.light, r.dark].map((hex, i) => (
                        <td key={i === 0 ? "light" : "dark"}>
                          <span className="number flex items-center gap-2 text-xs">
                            <span
                              aria-hidden="true"
                              className="h-5 w-9 border border-edge [forced-color-adjust:none]"
                              style={{ background: hex }}
                            />
                            {hex}
                          </span>
                        </td>
                      ))}
                      <td>
                        {r.written ? (
                          <span className="flex items-center justify-between gap-2">
                            <code className="number min-w-0 truncate text-xs">{r.written}</code>
                            <Copy text={r.written} what={r.written} />
                          </span>
                        ) : (
                          <span className="text-faint">not on this platform</span>
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            );
          })}
          {shown.length === 0 ? (
            <p className="text-faint">Nothing is found. Look for less.</p>
          ) : null}
        </>
      ) : (
        <p className="text-faint">Release its theme, and every role and step is listed here.</p>
      )}
    </Page>
  );
}
