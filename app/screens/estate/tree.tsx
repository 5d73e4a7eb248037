import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { ChangeDialog, type Wanted } from "../../components/change-dialog.tsx";
import type { Route } from "./+types/route";
import { Chip, Palette } from "./palette.tsx";
import { Row } from "./row.tsx";
import { type Filter, visibleRows } from "./visible.ts";

type Loaded = Route.ComponentProps["loaderData"];
export type TreeRow = Loaded["rows"][number];

const ROW_HEIGHT = 46;
/** Rows that Page Down goes on by. */
const PAGE = 10;

/** The estate as a tree grid: only the rows in sight are drawn; arrows, Space and Enter work it. */
export function Tree(props: Loaded & { filter: Filter }) {
  const { rows, themes, releases, release, filter, mayChange } = props;
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState(0);
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [dragged, setDragged] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const shown = useMemo(() => visibleRows(rows, closed, filter), [rows, closed, filter]);
  const names = useMemo(() => new Map(rows.map((row) => [row.id as string, row.name])), [rows]);
  const current = Math.min(at, Math.max(0, shown.length - 1));
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 8,
    initialRect: { width: 1200, height: 900 },
  });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));

  const toggle = (id: string) => setChosen((old) => toggled(old, id));
  const fold = (id: string) => setClosed((old) => toggled(old, id));
  const goTo = (index: number) => {
    const next = Math.max(0, Math.min(shown.length - 1, index));
    setAt(next);
    virtual.scrollToIndex(next);
    requestAnimationFrame(() =>
      box.current?.querySelector<HTMLElement>(`[data-index="${next}"]`)?.focus(),
    );
  };
  const keys = (event: KeyboardEvent) => {
    const here = shown[current];
    if (!here || !(event.target as HTMLElement).matches('[role="row"]')) return;
    const acts = new Map<string, () => void>([
      ["ArrowDown", () => goTo(current + 1)],
      ["ArrowUp", () => goTo(current - 1)],
      ["Home", () => goTo(0)],
      ["End", () => goTo(shown.length - 1)],
      ["PageDown", () => goTo(current + PAGE)],
      ["PageUp", () => goTo(current - PAGE)],
      ["ArrowRight", () => (here.hasBelow && !here.isOpen ? fold(here.row.id) : goTo(current + 1))],
      [
        "ArrowLeft",
        () =>
          here.isOpen
            ? fold(here.row.id)
            : goTo(shown.findIndex((v) => v.row.id === here.row.parent)),
      ],
      [" ", () => mayChange && toggle(here.row.id)],
      ["Enter", () => void navigate(`/estate/${here.row.id}`)],
    ]);
    const act = acts.get(event.key);
    if (!act) return;
    event.preventDefault();
    act();
  };
  const placesOf = (ids: Iterable<string>) =>
    [...ids].map((id) => ({ id, name: names.get(id) ?? "" }));
  const dropped = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    if (!over) return;
    const target = String(over.id);
    const ids = chosen.has(target) ? chosen : [target];
    setWanted({ kind: "assign", places: placesOf(ids), theme: String(active.id) });
  };

  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={dropped}
      accessibility={{ screenReaderInstructions: { draggable: "Use “Give a theme” in a row." } }}
    >
      {mayChange ? <Palette themes={themes} /> : null}
      <div className="relative mt-2 flex min-h-0 flex-1 flex-col overflow-x-auto">
        <div
          role="treegrid"
          aria-label="Places"
          aria-rowcount={shown.length + 1}
          aria-multiselectable={mayChange}
          tabIndex={-1}
          onKeyDown={keys}
          className="flex min-h-0 min-w-[58rem] flex-1 flex-col border border-hair bg-surface"
        >
          <div
            role="row"
            aria-rowindex={1}
            className="grid shrink-0 grid-cols-(--estate) gap-3 border-b border-edge px-3 py-2 text-sm font-semibold"
          >
            <span role="columnheader">Place</span>
            <span role="columnheader">Theme, and why</span>
            <span role="columnheader">Live now</span>
            <span role="columnheader">Standing</span>
            <span role="columnheader">
              <span className="sr-only">Actions</span>
            </span>
          </div>
          {shown.length === 0 ? (
            <p className="p-4 text-faint">
              {rows.length === 0
                ? "There is no place yet. Add the organisation first, then what stands below it."
                : "No place is found. Look for less, or for another standing or platform."}
            </p>
          ) : null}
          <div ref={box} role="rowgroup" className="relative min-h-0 flex-1 overflow-y-auto">
            <div
              role="presentation"
              className="relative"
              style={{ height: virtual.getTotalSize() }}
            >
              {virtual.getVirtualItems().map(({ index, start }) => {
                const visible = shown[index];
                return visible ? (
                  <Row
                    key={visible.row.id}
                    visible={visible}
                    index={index}
                    top={start}
                    isCurrent={index === current}
                    isChosen={chosen.has(visible.row.id)}
                    mayChange={mayChange}
                    names={names}
                    themes={themes}
                    releases={releases}
                    release={release?.id ?? null}
                    onFold={() => fold(visible.row.id)}
                    onChoose={() => toggle(visible.row.id)}
                    onFocus={() => setAt(index)}
                    onWant={setWanted}
                  />
                ) : null;
              })}
            </div>
          </div>
        </div>
      </div>
      {chosen.size > 0 ? (
        <div
          role="toolbar"
          aria-label="Chosen places"
          className="mt-2 flex items-center gap-3 border border-edge bg-surface px-3 py-1.5 text-sm"
        >
          <strong>{chosen.size === 1 ? "One place" : `${chosen.size} places`} chosen</strong>
          <button
            type="button"
            className="press py-0.5"
            onClick={() => setWanted({ kind: "assign", places: placesOf(chosen) })}
          >
            Give a theme …
          </button>
          <button
            type="button"
            className="press py-0.5"
            onClick={() =>
              void navigate(`/rollouts/new?${[...chosen].map((id) => `below=${id}`).join("&")}`)
            }
          >
            Plan a rollout …
          </button>
          <button type="button" className="go" onClick={() => setChosen(new Set())}>
            Choose none
          </button>
        </div>
      ) : null}
      <DragOverlay dropAnimation={null}>
        {dragged ? <Chip theme={themes.find((t) => t.id === dragged)} /> : null}
      </DragOverlay>
      <ChangeDialog
        wanted={wanted}
        themes={themes}
        parents={rows.filter((row) => row.kind !== "area").map(({ id, name }) => ({ id, name }))}
        onClose={() => setWanted(null)}
      />
    </DndContext>
  );
}

function toggled(set: ReadonlySet<string>, id: string): Set<string> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}
