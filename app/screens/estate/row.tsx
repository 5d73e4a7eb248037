import { useDroppable } from "@dnd-kit/core";
import { DropdownMenu } from "radix-ui";
import { Link, useNavigate } from "react-router";
import type { ThemeChoice, Wanted } from "../../components/change-dialog.tsx";
import { Standing } from "../../components/standing.tsx";
import { Stripe } from "../../components/stripe.tsx";
import { effectiveWords } from "../../wording/effective.ts";
import { KIND_WORDS, platformWords } from "../../wording/estate.ts";
import type { TreeRow } from "./tree.tsx";
import type { Visible } from "./visible.ts";

interface RowProps {
  visible: Visible<TreeRow>;
  index: number;
  /** Distance from the top of the list in px. */
  top: number;
  isCurrent: boolean;
  isChosen: boolean;
  mayChange: boolean;
  names: ReadonlyMap<string, string>;
  themes: ThemeChoice[];
  releases: ThemeChoice[];
  /** A release that was just made, to be delivered to one place at once. */
  release: string | null;
  onFold(): void;
  onChoose(): void;
  onFocus(): void;
  onWant(wanted: Wanted): void;
}

/** One place: what it is, which theme it has and why, what is live, and what to do. */
export function Row(props: RowProps) {
  const { visible, index, top, isCurrent, isChosen, mayChange, themes, releases, names } = props;
  const { row, level, hasBelow, isOpen } = visible;
  const { setNodeRef, isOver } = useDroppable({ id: row.id, disabled: !mayChange });
  /** Only the current row's controls are reached by Tab: WAI-ARIA Authoring Practices, treegrid. */
  const inside = isCurrent ? 0 : -1;
  const theme = themes.find((t) => t.id === row.effective.theme);
  const live = releases.find((r) => r.id === row.live);
  return (
    <div
      ref={setNodeRef}
      role="row"
      aria-level={level}
      aria-rowindex={index + 2}
      aria-expanded={hasBelow ? isOpen : undefined}
      aria-selected={mayChange ? isChosen : undefined}
      data-index={index}
      data-place={row.name}
      tabIndex={isCurrent ? 0 : -1}
      onFocus={props.onFocus}
      className={`absolute inset-x-0 grid h-[46px] grid-cols-(--estate) items-center gap-3 border-b border-hair px-3 text-sm ${isOver ? "bg-sunken outline-2 -outline-offset-2 outline-ink" : isChosen ? "bg-sunken" : "hover:bg-ground"}`}
      style={{ top }}
    >
      <span
        role="gridcell"
        className="flex min-w-0 items-center gap-1.5"
        style={{ paddingLeft: `${(level - 1) * 1.1}rem` }}
      >
        <button
          type="button"
          tabIndex={inside}
          onClick={props.onFold}
          className={`w-5 text-xs text-faint ${hasBelow ? "" : "invisible"}`}
          aria-label={`${isOpen ? "Close" : "Open"} ${row.name}`}
        >
          {isOpen ? "▾" : "▸"}
        </button>
        {mayChange ? (
          <input
            type="checkbox"
            tabIndex={inside}
            checked={isChosen}
            onChange={props.onChoose}
            aria-label={`Choose ${row.name}`}
            className="accent-ink"
          />
        ) : null}
        <span className="min-w-0">
          <Link
            to={`/estate/${row.id}`}
            tabIndex={inside}
            className="go block max-w-full truncate font-semibold"
          >
            {row.name}
          </Link>
          <span className="block truncate text-xs text-faint">
            {row.platform ? platformWords(row.platform) : KIND_WORDS[row.kind]}
            {row.isTest ? ", test place" : ""}
          </span>
        </span>
      </span>
      <span role="gridcell" className="flex min-w-0 items-center gap-2">
        {theme ? <Stripe colours={theme.stripe} className="h-6 w-14" /> : null}
        <span className="min-w-0">
          <span className="block truncate">
            {theme?.name ?? "none"}
            {row.locked ? ", locked for all below" : ""}
          </span>
          <span className="block truncate text-xs text-faint">
            {effectiveWords(row.effective.reason, names)}
          </span>
        </span>
      </span>
      <span role="gridcell" className="flex min-w-0 items-center gap-2">
        {live ? (
          <>
            <Stripe colours={live.stripe} className="h-6 w-14" />
            <span className="truncate">{live.name}</span>
          </>
        ) : (
          <span className="text-faint">
            {row.standing !== "passes-on" ? "its own look" : row.platform ? "follows its hub" : ""}
          </span>
        )}
      </span>
      <span role="gridcell">
        <Standing standing={row.standing} />
      </span>
      <span role="gridcell" className="flex items-center justify-end gap-2">
        {props.release && row.standing !== "passes-on" && mayChange ? (
          <Link
            to={`/estate/${row.id}/deliver?release=${props.release}`}
            tabIndex={inside}
            className="press px-2 py-0.5 whitespace-nowrap"
          >
            Deliver here …
          </Link>
        ) : row.page ? (
          <a
            href={row.page}
            target="_blank"
            rel="noreferrer"
            tabIndex={inside}
            className="go text-xs"
            aria-label={`Look at ${row.name}`}
          >
            Look
          </a>
        ) : null}
        {mayChange ? <Menu {...props} inside={inside} /> : null}
      </span>
    </div>
  );
}

/** Menus open within the page's main part, so that they belong to a landmark. */
const portal = () => (typeof document === "undefined" ? null : document.getElementById("content"));

function Menu({ visible, inside, onWant }: RowProps & { inside: number }) {
  const { row } = visible;
  const navigate = useNavigate();
  const place = { id: row.id as string, name: row.name };
  const items: { words: string; run(): void }[] = [
    { words: "Give a theme …", run: () => onWant({ kind: "assign", places: [place] }) },
    ...(row.own
      ? [
          {
            words: row.locked ? "Unlock …" : "Lock for all below …",
            run: () => onWant({ kind: "lock", place, locked: !row.locked }),
          },
        ]
      : []),
    { words: "Plan a season …", run: () => onWant({ kind: "season", place }) },
    ...(row.parent ? [{ words: "Move …", run: () => onWant({ kind: "move", place }) }] : []),
    { words: "Plan a rollout …", run: () => void navigate(`/rollouts/new?below=${row.id}`) },
    { words: "Open", run: () => void navigate(`/estate/${row.id}`) },
  ];
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        tabIndex={inside}
        className="press px-2 py-0.5"
        aria-label={`Actions for ${row.name}`}
      >
        ⋯
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={portal()}>
        <DropdownMenu.Content
          align="end"
          className="z-20 min-w-48 border border-edge bg-surface py-1 shadow-lg"
        >
          {items.map(({ words, run }) => (
            <DropdownMenu.Item
              key={words}
              onSelect={run}
              className="cursor-pointer px-3 py-1.5 text-sm data-highlighted:bg-sunken"
            >
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
