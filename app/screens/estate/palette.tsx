import { useDraggable } from "@dnd-kit/core";
import type { ThemeChoice } from "../../components/change-dialog.tsx";
import { Stripe } from "../../components/stripe.tsx";

/** Themes to drag onto a place. What dragging does, each row's menu does by keyboard. */
export function Palette({ themes }: { themes: ThemeChoice[] }) {
  return (
    <div className="mt-3 flex items-center gap-2 overflow-x-auto text-sm">
      <span className="shrink-0 text-faint">Drag a theme onto a place:</span>
      {themes.map((theme) => (
        <Draggable key={theme.id} theme={theme} />
      ))}
    </div>
  );
}

function Draggable({ theme }: { theme: ThemeChoice }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: theme.id });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      data-theme={theme.name}
      className={`flex shrink-0 cursor-grab touch-none items-center gap-2 border border-hair bg-surface px-2 py-1 ${isDragging ? "relative z-10 border-ink" : ""}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <Stripe colours={theme.stripe} className="h-5 w-12" />
      {theme.name}
    </span>
  );
}
