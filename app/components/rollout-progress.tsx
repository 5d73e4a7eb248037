import type { Counts } from "#server/rollouts/view.ts";

/** How many places of a rollout are done, failed and left, as a bar and in words. */
export function RolloutProgress({ counts }: { counts: Counts }) {
  const total = Object.values(counts).reduce((a, b) => a + b, 0);
  const left = counts.planned + counts.queued + counts.delivering;
  const share = (n: number) => `${total === 0 ? 0 : (n / total) * 100}%`;
  return (
    <span className="block min-w-44">
      <span
        aria-hidden="true"
        className="flex h-2 overflow-hidden rounded-sm border border-edge bg-ground [forced-color-adjust:none]"
      >
        <span className="bg-ink" style={{ width: share(counts.delivered) }} />
        <span
          className="bg-[repeating-linear-gradient(45deg,var(--ink)_0_2px,transparent_2px_5px)]"
          style={{ width: share(counts.failed) }}
        />
      </span>
      <span className="mt-1 block text-sm tabular-nums">
        {counts.delivered} of {total} confirmed
        {counts.failed > 0 ? `, ${counts.failed} failed` : ""}
        {counts.stopped > 0 ? `, ${counts.stopped} stopped` : ""}
        {left > 0 ? `, ${left} left` : ""}
      </span>
    </span>
  );
}
