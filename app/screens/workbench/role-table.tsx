import { Fragment, useMemo, useState } from "react";
import { shownRatio } from "#core/colour/contrast.ts";
import { toHex } from "#core/colour/srgb.ts";
import { barOf } from "#core/contrast/pairs.ts";
import { type PairVerdict, verdicts } from "#core/contrast/verdict.ts";
import type { RoleColour, SchemeColours } from "#core/theme/reason.ts";
import {
  type ContrastLevel,
  ROLE_GROUPS,
  type Role,
  type RoleGroup,
  SCHEMES,
  type Scheme,
} from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { Verdict } from "../../components/verdict.tsx";
import { reasonWords, sourceWords } from "../../wording/reason.ts";
import { GROUP_WORDS, roleWords } from "../../wording/roles.ts";

type Measured = Record<Scheme, Record<ContrastLevel, Map<Role, PairVerdict[]>>>;

interface RoleTableProps {
  theme: Theme;
  onPoint(role: Role | null): void;
}

/** Every role in one row: its light and its dark cell, each with its pair, ratio and source. */
export function RoleTable({ theme, onPoint }: RoleTableProps) {
  const [open, setOpen] = useState<Role | null>(null);
  const measured = useMemo(() => measure(theme), [theme]);
  return (
    <table className="w-full table-fixed border-collapse">
      <caption className="sr-only">Roles with their light and dark colours</caption>
      <colgroup>
        <col className="w-[34%]" />
        <col className="w-[33%]" />
        <col className="w-[33%]" />
      </colgroup>
      <thead className="sticky top-0 z-1 bg-surface">
        <tr className="text-left text-sm">
          <th scope="col" className="border-b border-edge px-3 py-2 font-semibold">
            Role
          </th>
          <th scope="col" className="border-b border-edge px-2 py-2 font-semibold">
            Light
          </th>
          <th scope="col" className="border-b border-edge px-2 py-2 font-semibold">
            Dark
          </th>
        </tr>
      </thead>
      {(Object.keys(ROLE_GROUPS) as RoleGroup[]).map((group) => (
        <tbody key={group}>
          <tr>
            <th
              scope="rowgroup"
              colSpan={3}
              className="border-b border-hair bg-ground px-3 pt-3 pb-1.5 text-left text-sm font-semibold"
            >
              {GROUP_WORDS[group]}
            </th>
          </tr>
          {ROLE_GROUPS[group].map((role) => (
            <Fragment key={role}>
              <tr
                className="hover:bg-ground"
                onPointerEnter={() => onPoint(role)}
                onPointerLeave={() => onPoint(null)}
              >
                <th scope="row" className="border-b border-hair p-0 text-left font-normal">
                  <button
                    type="button"
                    aria-expanded={open === role}
                    onFocus={() => onPoint(role)}
                    onBlur={() => onPoint(null)}
                    onClick={() => setOpen(open === role ? null : role)}
                    className="flex w-full items-center gap-1.5 px-3 py-2 text-left"
                  >
                    <span aria-hidden="true" className="w-2.5 text-xs text-faint">
                      {open === role ? "▾" : "▸"}
                    </span>
                    {roleWords(role)}
                  </button>
                </th>
                {SCHEMES.map((scheme) => (
                  <td key={scheme} className="border-b border-hair px-2 py-1.5">
                    <RoleCell
                      role={role}
                      colours={theme.schemes[scheme].standard}
                      pairs={measured[scheme].standard.get(role) ?? []}
                    />
                  </td>
                ))}
              </tr>
              {open === role ? <Explanation role={role} theme={theme} measured={measured} /> : null}
            </Fragment>
          ))}
        </tbody>
      ))}
    </table>
  );
}

function measure(theme: Theme): Measured {
  const of = (scheme: Scheme, level: ContrastLevel) => {
    const byRole = new Map<Role, PairVerdict[]>();
    for (const pair of verdicts(theme.schemes[scheme][level], barOf(level, "AA")))
      byRole.set(pair.over, [...(byRole.get(pair.over) ?? []), pair]);
    return byRole;
  };
  const both = (scheme: Scheme) => ({ standard: of(scheme, "standard"), more: of(scheme, "more") });
  return { light: both("light"), dark: both("dark") };
}

interface RoleCellProps {
  role: Role;
  colours: SchemeColours;
  pairs: PairVerdict[];
}

function RoleCell({ role, colours, pairs }: RoleCellProps) {
  const tightest = tightestOf(pairs.filter((p) => p.kind !== "neighbour"));
  return (
    <span className="flex items-center gap-2">
      <Chip role={role} colours={colours} pair={tightest} />
      <span className="min-w-0 leading-tight">
        <span className="flex items-center gap-1 number text-sm">
          {tightest ? (
            <>
              {shownRatio(tightest.measured)}
              <Verdict passes={tightest.passes} exempt={tightest.kind === "inactive"} />
            </>
          ) : (
            <span className="text-xs">{toHex(colours[role].colour)}</span>
          )}
        </span>
        <span className="block truncate text-xs text-faint">
          {sourceWords(colours[role].reason)}
        </span>
      </span>
    </span>
  );
}

/** The pair that has least room over what it owes. */
function tightestOf(pairs: PairVerdict[]): PairVerdict | undefined {
  return pairs.reduce<PairVerdict | undefined>(
    (least, p) => (!least || p.measured / p.owed < least.measured / least.owed ? p : least),
    undefined,
  );
}

/** The pair as it will look: letters on their ground, a bar on its ground, or the plain fill. */
function Chip({
  role,
  colours,
  pair,
}: {
  role: Role;
  colours: SchemeColours;
  pair: PairVerdict | undefined;
}) {
  const colour = toHex(colours[role].colour);
  const box =
    "flex h-8 w-11 shrink-0 items-center justify-center rounded-sm border border-hair text-base font-semibold [forced-color-adjust:none]";
  if (!pair) return <span aria-hidden="true" className={box} style={{ background: colour }} />;
  const ground = toHex(colours[pair.ground].colour);
  const isText = pair.kind === "text" || pair.kind === "inactive";
  return (
    <span aria-hidden="true" className={box} style={{ background: ground, color: colour }}>
      {isText ? <Letters /> : <span className="h-4 w-7" style={{ background: colour }} />}
    </span>
  );
}

/** Drawn, not typed, so that the sample is a picture of text and no text of this page. */
function Letters() {
  return (
    <svg viewBox="0 0 22 14" className="h-3.5 w-5.5" aria-hidden="true">
      <path
        d="M1 13L5.5 1h1L11 13M2.8 9h6.4M20 5v8M20 9a3.6 4 0 1 1-7.2 0a3.6 4 0 1 1 7.2 0"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.8"
      />
    </svg>
  );
}

interface ExplanationProps {
  role: Role;
  theme: Theme;
  measured: Measured;
}

/** Why the role has its colours, and every pair it takes part in, at both contrast levels. */
function Explanation({ role, theme, measured }: ExplanationProps) {
  return (
    <tr>
      <td colSpan={3} className="border-b border-edge bg-ground px-6 py-3 text-sm">
        {SCHEMES.map((scheme) => {
          const own: RoleColour = theme.schemes[scheme].standard[role];
          const pairs = measured[scheme].standard.get(role) ?? [];
          const more = measured[scheme].more.get(role) ?? [];
          return (
            <div key={scheme} className="mb-2 last:mb-0">
              <p>
                <strong>{scheme === "light" ? "Light" : "Dark"}</strong>{" "}
                <span className="number text-xs">{toHex(own.colour)}</span>.{" "}
                {reasonWords(own.reason)}
              </p>
              {pairs.length > 0 ? (
                <ul className="mt-0.5 text-faint">
                  {pairs.map((pair, i) => (
                    <li key={pair.ground} className="flex flex-wrap items-center gap-x-1.5">
                      <PairWords pair={pair} />
                      {more[i] && pair.kind !== "inactive" && pair.kind !== "neighbour" ? (
                        <span className="inline-flex items-center gap-1">
                          · at more contrast {shownRatio(more[i].measured)}:1
                          <Verdict passes={more[i].passes} />
                        </span>
                      ) : null}
                    </li>
                  ))}
                </ul>
              ) : null}
            </div>
          );
        })}
      </td>
    </tr>
  );
}

function PairWords({ pair }: { pair: PairVerdict }) {
  const ground = roleWords(pair.ground).toLowerCase();
  if (pair.kind === "neighbour")
    return (
      <span className="inline-flex items-center gap-1">
        beside {ground}: differs by {pair.measured.toFixed(3)}, needs {pair.owed}
        <Verdict passes={pair.passes} />
      </span>
    );
  if (pair.kind === "inactive")
    return (
      <span className="inline-flex items-center gap-1">
        on {ground}: {shownRatio(pair.measured)}:1, exempt since it is switched off
        <Verdict passes exempt />
      </span>
    );
  return (
    <span className="inline-flex items-center gap-1">
      on {ground}: {shownRatio(pair.measured)}:1, needs {pair.owed}:1
      <Verdict passes={pair.passes} />
    </span>
  );
}
