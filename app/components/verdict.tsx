interface VerdictProps {
  passes: boolean;
  exempt?: boolean;
}

/** A verdict by shape first: a tick, a filled triangle, or a ring for what is exempt; words for screen readers. */
export function Verdict({ passes, exempt = false }: VerdictProps) {
  const words = exempt ? "exempt" : passes ? "passes" : "falls short";
  return (
    <span className="inline-flex items-center">
      <svg viewBox="0 0 12 12" className="size-3" aria-hidden="true">
        {exempt ? (
          <circle cx="6" cy="6" r="4" fill="none" stroke="currentColor" strokeWidth="1.5" />
        ) : passes ? (
          <path d="M1.5 6.5l3 3 6-7" fill="none" stroke="currentColor" strokeWidth="1.8" />
        ) : (
          <path d="M6 1l5.5 10H.5z" fill="currentColor" />
        )}
      </svg>
      <span className="sr-only">{words}</span>
    </span>
  );
}
