import { Fragment, memo, useEffect, useMemo, useRef, useState } from "react";
import { shownRatio } from "#core/colour/contrast.ts";
import { toHex } from "#core/colour/srgb.ts";
import { barOf, type Conformance } from "#core/contrast/pairs.ts";
import { type PairVerdict, verdicts } from "#core/contrast/verdict.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { SchemeColours } from "#core/theme/reason.ts";
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
import { sourceWords } from "../../wording/reason.ts";
import { GROUP_WORDS, roleWords } from "../../wording/roles.ts";
import { Explanation, type Measured } from "./explanation.tsx";
import { usePolicy } from "./policy-context.ts";
import { RoleEditor } from "./role-editor.tsx";
import { useTurn } from "./turns.ts";

interface RoleTableProps {
  document: ThemeDocument;
  theme: Theme;
  mayChange: boolean;
  /** Only roles with this in their name. */
  filter: string;
  open: Role | null;
  /** The role of the spot that is pointed at in a preview. */
  pointed: Role | null;
  onOpen(role: Role | null): void;
  onPoint(role: Role | null): void;
  onChange(document: ThemeDocument): void;
}

/**
 * Every role in one row: its light and its dark cell, each with its pair, ratio and source. Laid out
 * in blocks: of these a browser can leave out what is out of sight, of a table's own rows it can't.
 */
export const RoleTable = memo(function RoleTable(props: RoleTableProps) {
  const { theme, filter } = props;
  const { conformance } = usePolicy();
  const measured = useMemo(() => measure(theme, conformance), [theme, conformance]);
  const wanted = filter.trim().toLowerCase();
  const groups = (Object.keys(ROLE_GROUPS) as RoleGroup[]).map((group) => ({
    group,
    roles: ROLE_GROUPS[group].filter((role) => roleWords(role).toLowerCase().includes(wanted)),
  }));
  if (groups.every(({ roles }) => roles.length === 0))
    return <p className="px-3 py-4 text-sm text-faint">No role has this in its name.</p>;
  return (
    <table className="block">
      <caption className="sr-only">Roles with their light and dark colours</caption>
      <thead className="sticky top-0 z-1 block bg-surface">
        <tr className={`${COLUMNS} border-b border-edge text-left text-sm`}>
          <th scope="col" className="px-3 py-1.5 font-semibold">
            Role
          </th>
          <th scope="col" className="px-2 py-1.5 font-semibold">
            Light
          </th>
          <th scope="col" className="px-2 py-1.5 font-semibold">
            Dark
          </th>
        </tr>
      </thead>
      {groups.map(({ group, roles }, i) =>
        roles.length === 0 ? null : (
          <Group key={group} group={group} roles={roles} place={i} measured={measured} {...props} />
        ),
      )}
    </table>
  );
});

const COLUMNS = "grid grid-cols-[30%_35%_35%]";
/** Height of a row before it has been drawn once, in px. */
const ROW_PX = 49;

interface GroupProps extends RoleTableProps {
  group: RoleGroup;
  roles: readonly Role[];
  /** Where the group stands: those out of sight follow a change one after the other. */
  place: number;
  measured: Measured;
}

/** A group out of sight waits this long, and this long more for each group before it, in ms. */
const FOLLOWS_AFTER_MS = 250;
const FOLLOWS_APART_MS = 60;

/**
 * One group of roles. In sight it follows in its turn; out of sight it follows when changes have
 * come to rest, so that a drag never has the whole table to draw.
 */
function Group({ document, theme, measured, place, ...props }: GroupProps) {
  const body = useRef<HTMLTableSectionElement>(null);
  const inSight = useInSight(body);
  const newest = useMemo(() => ({ document, theme, measured }), [document, theme, measured]);
  const inTurn = useTurn(newest);
  const [rested, setRested] = useState(newest);
  useEffect(() => {
    if (inSight) return;
    const wait = FOLLOWS_AFTER_MS + place * FOLLOWS_APART_MS;
    const timer = setTimeout(() => setRested(newest), wait);
    return () => clearTimeout(timer);
  }, [inSight, place, newest]);
  // What is changed by hand must be made from the newest, or a second change would lose the first.
  const isOpen = props.open !== null && props.roles.includes(props.open);
  const shown = isOpen ? newest : inSight ? inTurn : rested;
  return <Rows body={body} {...props} {...shown} />;
}

interface RowsProps extends Omit<GroupProps, "place"> {
  body: React.RefObject<HTMLTableSectionElement | null>;
}

const Rows = memo(function Rows({ body, group, roles, ...props }: RowsProps) {
  return (
    <tbody
      ref={body}
      className="block [content-visibility:auto]"
      style={{ containIntrinsicBlockSize: `auto ${(roles.length + 1) * ROW_PX}px` }}
    >
      <tr className="block">
        <th
          scope="rowgroup"
          className="block border-b border-hair bg-ground px-3 pt-2.5 pb-1 text-left text-sm font-semibold"
        >
          {GROUP_WORDS[group]}
        </th>
      </tr>
      {roles.map((role) => (
        <Row key={role} role={role} {...props} />
      ))}
    </tbody>
  );
});

/** Whether any of an element is in sight; true until that is known. */
function useInSight(at: React.RefObject<Element | null>): boolean {
  const [inSight, setInSight] = useState(true);
  useEffect(() => {
    if (!at.current) return;
    const observer = new IntersectionObserver(([entry]) =>
      setInSight(entry?.isIntersecting ?? true),
    );
    observer.observe(at.current);
    return () => observer.disconnect();
  }, [at]);
  return inSight;
}

function measure(theme: Theme, conformance: Conformance): Measured {
  const of = (scheme: Scheme, level: ContrastLevel) => {
    const byRole = new Map<Role, PairVerdict[]>();
    for (const pair of verdicts(theme.schemes[scheme][level], barOf(level, conformance)))
      byRole.set(pair.over, [...(byRole.get(pair.over) ?? []), pair]);
    return byRole;
  };
  const both = (scheme: Scheme) => ({ standard: of(scheme, "standard"), more: of(scheme, "more") });
  return { light: both("light"), dark: both("dark") };
}

interface RowProps extends RoleTableProps {
  role: Role;
  measured: Measured;
}

const Row = memo(function Row({ role, measured, ...props }: RowProps) {
  const { document, theme, mayChange, open, pointed, onOpen, onPoint, onChange } = props;
  const isOpen = open === role;
  const row = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (isOpen) row.current?.scrollIntoView({ block: "nearest" });
  }, [isOpen]);
  return (
    <Fragment>
      <tr
        ref={row}
        data-role={role}
        data-pointed={pointed === role || undefined}
        className={`${COLUMNS} items-center border-b border-hair hover:bg-ground data-pointed:bg-sunken`}
        onPointerEnter={() => onPoint(role)}
        onPointerLeave={() => onPoint(null)}
      >
        <th scope="row" className="text-left font-normal">
          <button
            type="button"
            aria-expanded={isOpen}
            onFocus={() => onPoint(role)}
            onBlur={() => onPoint(null)}
            onClick={() => onOpen(isOpen ? null : role)}
            className="flex w-full items-center gap-1.5 px-3 py-2 text-left -outline-offset-2"
          >
            <span aria-hidden="true" className="w-2.5 text-xs text-faint">
              {isOpen ? "▾" : "▸"}
            </span>
            {roleWords(role)}
          </button>
        </th>
        {SCHEMES.map((scheme) => (
          <td key={scheme} className="min-w-0 px-1.5 py-1">
            <RoleCell
              role={role}
              colours={theme.schemes[scheme].standard}
              pairs={measured[scheme].standard.get(role) ?? []}
            />
          </td>
        ))}
      </tr>
      {isOpen ? (
        <tr className="block">
          <td colSpan={3} className="block space-y-3 border-b border-edge bg-ground px-4 py-3">
            {mayChange ? (
              <RoleEditor role={role} document={document} theme={theme} onChange={onChange} />
            ) : null}
            <Explanation role={role} theme={theme} measured={measured} />
          </td>
        </tr>
      ) : null}
    </Fragment>
  );
});

interface RoleCellProps {
  role: Role;
  colours: SchemeColours;
  pairs: PairVerdict[];
}

function RoleCell({ role, colours, pairs }: RoleCellProps) {
  const tightest = tightestOf(pairs.filter((p) => p.kind !== "neighbour"));
  const { reason, colour } = colours[role];
  return (
    <span className="flex items-center gap-1.5">
      <Chip role={role} colours={colours} pair={tightest} />
      <span className="min-w-0 leading-tight">
        <span className="flex items-center gap-1 number text-sm">
          {tightest ? (
            <>
              {shownRatio(tightest.measured)}
              <Verdict passes={tightest.passes} exempt={tightest.kind === "inactive"} />
            </>
          ) : (
            <span className="text-xs">{toHex(colour)}</span>
          )}
        </span>
        <span
          className={`block truncate text-xs ${reason.kind === "override" ? "font-semibold" : "text-faint"}`}
        >
          {reason.kind === "override" ? "✎ " : ""}
          {sourceWords(reason)}
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

interface ChipProps {
  role: Role;
  colours: SchemeColours;
  pair: PairVerdict | undefined;
}

/** The pair as it will look: letters on their ground, a bar on its ground, or the plain fill. */
function Chip({ role, colours, pair }: ChipProps) {
  const colour = toHex(colours[role].colour);
  const box =
    "flex h-8 w-11 max-[72rem]:w-8 shrink-0 items-center justify-center rounded-sm border border-hair text-base font-semibold [forced-color-adjust:none]";
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
