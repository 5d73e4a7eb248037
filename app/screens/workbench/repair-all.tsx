import { useEffect, useState } from "react";
import { toHex } from "#core/colour/srgb.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { type RepairRun, repairAll } from "#core/theme/repairs.ts";
import { repairWords } from "../../wording/finding.ts";
import { usePolicy } from "./policy-context.ts";

interface RepairAllProps {
  document: ThemeDocument;
  onRepair(document: ThemeDocument): void;
}

/** Works out the repairs of all pairs and shows what they would do, before anything is changed. */
export function RepairAll({ document, onRepair }: RepairAllProps) {
  const [asked, setAsked] = useState<ThemeDocument | null>(null);
  const [run, setRun] = useState<RepairRun | null>(null);
  const [done, setDone] = useState(false);
  const { conformance } = usePolicy();

  useEffect(() => {
    if (asked === null) return;
    let stopped = false;
    const steps = repairAll(asked, conformance);
    setRun(null);
    setDone(false);
    const step = () => {
      if (stopped) return;
      const { value, done } = steps.next();
      if (done) return setDone(true);
      setRun(value);
      setTimeout(step, 0);
    };
    setTimeout(step, 0);
    return () => {
      stopped = true;
    };
  }, [asked, conformance]);

  if (asked !== document)
    return (
      <button type="button" className="press mx-3 mb-2 py-1" onClick={() => setAsked(document)}>
        Repair all …
      </button>
    );
  const repairs = run?.repairs ?? [];
  return (
    <section
      aria-label="Repairs of everything"
      className="mx-3 mb-3 border border-edge p-3 text-sm"
    >
      <p role="status">
        {done
          ? `${repairs.length === 1 ? "One change" : `${repairs.length} changes`} would mend ${run?.left.length ? `all but ${run.left.length}` : "every pair"}. Nothing is changed yet.`
          : `Working them out: ${repairs.length} so far …`}
      </p>
      <ul className="mt-1 max-h-40 overflow-y-auto">
        {repairs.map((repair) => (
          <li
            key={`${repair.scheme} ${repair.role} ${JSON.stringify(repair.override)}`}
            className="flex items-center gap-2 py-0.5"
          >
            <Swatch colour={toHex(repair.before)} />
            <span aria-hidden="true">→</span>
            <Swatch colour={toHex(repair.after)} />
            {repairWords(repair)}, {repair.scheme}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="press press-main py-1"
          disabled={!done || repairs.length === 0}
          onClick={() => run && onRepair(run.document)}
        >
          Make these changes
        </button>
        <button type="button" className="press py-1" onClick={() => setAsked(null)}>
          Leave it
        </button>
      </div>
    </section>
  );
}

export function Swatch({ colour }: { colour: string }) {
  return (
    <span
      aria-hidden="true"
      className="size-4 shrink-0 border border-edge [forced-color-adjust:none]"
      style={{ background: colour }}
    />
  );
}
