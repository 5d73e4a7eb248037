import { useMemo, useState } from "react";
import { toHex } from "#core/colour/srgb.ts";
import { PAIRS } from "#core/contrast/pairs.ts";
import { covers } from "#core/contrast/policy.ts";
import type { Finding } from "#core/contrast/verdict.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { applyRepair, keyOf, repairsOf } from "#core/theme/repairs.ts";
import type { Role } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { Verdict } from "../../components/verdict.tsx";
import { findingWords, repairWords } from "../../wording/finding.ts";
import { usePolicy } from "./policy-context.ts";
import { RepairAll, Swatch } from "./repair-all.tsx";
import { Accepted, dayFromNow, type ShownWaiver, Waive } from "./waive.tsx";

interface FindingsProps {
  document: ThemeDocument;
  theme: Theme;
  mayChange: boolean;
  waivers: readonly ShownWaiver[];
  /** Where waivers are granted and taken back. */
  waiversAt: string;
  onRepair(document: ThemeDocument): void;
  onPoint(role: Role | null): void;
  onOpen(role: Role): void;
}

/** How many pairs were looked at, what falls short, and how each can be mended. */
export function Findings(props: FindingsProps) {
  const { theme, waivers, waiversAt, mayChange } = props;
  const today = dayFromNow(0);
  const policy = usePolicy();
  const open = openFindings(theme.findings, policy.waivers ? waivers : [], today);
  const short = open.filter((f) => f.kind !== "alike");
  const alike = open.filter((f) => f.kind === "alike");
  const accepted = theme.findings.length - open.length;
  const looked = PAIRS.filter((p) => p.kind !== "inactive").length * 4;
  return (
    <div className="border-b border-hair">
      <p role="status" className="flex items-center gap-2 px-3 py-2 text-sm">
        <Verdict passes={short.length === 0} />
        {short.length === 0
          ? accepted > 0
            ? "Nothing else falls short."
            : `All ${looked} pairs pass, in light and dark, at standard and more contrast.`
          : `${short.length} of ${looked} pairs fall short.`}
        {accepted > 0 ? ` ${accepted} accepted for a time.` : ""}
      </p>
      {mayChange && short.length > 0 ? (
        <RepairAll document={props.document} onRepair={props.onRepair} />
      ) : null}
      <ul className="px-3 text-sm">
        {[...short, ...alike].map((finding) => (
          <Line key={keyOf(finding)} finding={finding} {...props} />
        ))}
      </ul>
      <Accepted waivers={waivers} action={waiversAt} mayChange={mayChange} today={today} />
    </div>
  );
}

/** Findings that nobody accepted, or whose acceptance ran out before a day (ISO date). */
export const openFindings = (
  findings: readonly Finding[],
  waivers: readonly ShownWaiver[],
  today: string,
): Finding[] => findings.filter((f) => !waivers.some((w) => covers(w, f, today)));

interface LineProps extends FindingsProps {
  finding: Finding;
}

function Line({ finding, ...props }: LineProps) {
  const { document, theme, mayChange, waiversAt, onRepair, onPoint, onOpen } = props;
  const { conformance, waivers: mayWaive } = usePolicy();
  const [asked, setAsked] = useState(false);
  const repairs = useMemo(
    () => (asked ? repairsOf(document, theme, finding, conformance) : []),
    [asked, document, theme, finding, conformance],
  );
  return (
    <li
      className="border-t border-hair py-2 first:border-t-0"
      onPointerEnter={() => onPoint(finding.over)}
      onPointerLeave={() => onPoint(null)}
    >
      <p>
        {findingWords(finding)}{" "}
        <button type="button" className="go" onClick={() => onOpen(finding.over)}>
          Open the role
        </button>
      </p>
      {!mayChange ? null : asked ? (
        <ul className="mt-1 space-y-1">
          {repairs.length === 0 ? (
            <li className="text-faint">
              No change of one role mends this without breaking another pair.
            </li>
          ) : null}
          {repairs.map((repair) => (
            <li
              key={`${repair.role} ${JSON.stringify(repair.override)}`}
              className="flex items-center gap-2"
            >
              <Swatch colour={toHex(repair.before)} />
              <span aria-hidden="true">→</span>
              <Swatch colour={toHex(repair.after)} />
              <button
                type="button"
                className="go text-left"
                onClick={() => onRepair(applyRepair(document, repair))}
              >
                {repairWords(repair)}
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <button type="button" className="go mt-0.5" onClick={() => setAsked(true)}>
          Show repairs
        </button>
      )}
      {mayChange && mayWaive ? (
        <div className={asked ? "" : "ml-4 inline-block align-top"}>
          <Waive finding={finding} action={waiversAt} />
        </div>
      ) : null}
    </li>
  );
}
