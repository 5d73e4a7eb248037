import { useDraggable } from "@dnd-kit/core";
import type { ThemeChoice } from "../../components/change-dialog.tsx";
import { Stripe } from "../../components/stripe.tsx";

/** Themes to drag onto a place. What dragging does, each row's menu does by keyboard. */
export function Palette({ themes }: { themes: ThemeChoice[] }) {
  return (
    <section
      aria-label="Themes to drag"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
      tabIndex={0}
      className="mt-3 flex shrink-0 items-center gap-2 overflow-x-auto text-sm"
    >
      <span className="shrink-0 text-faint">Drag a theme onto a place:</span>
      {themes.map((theme) => (
        <Draggable key={theme.id} theme={theme} />
      ))}
    </section>
  );
}

function Draggable({ theme }: { theme: ThemeChoice }) {
  const { setNodeRef, listeners } = useDraggable({ id: theme.id });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      data-theme={theme.name}
      className="shrink-0 cursor-grab touch-none"
    >
      <Chip theme={theme} />
    </span>
  );
}

/** A theme as something to hold. */
export function Chip({ theme }: { theme: ThemeChoice | undefined }) {
  return theme ? (
    <span className="inline-flex items-center gap-2 border border-hair bg-surface px-2 py-1 text-sm">
      <Stripe colours={theme.stripe} className="h-5 w-12" />
      {theme.name}
    </span>
  ) : null;
}
