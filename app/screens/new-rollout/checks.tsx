import type { PreflightCheck } from "#connectors/connector.ts";
import { Verdict } from "../../components/verdict.tsx";
import { faultWords, PREFLIGHT_WORDS, remedyWords } from "../../wording/fault.ts";

/** What stands in the way at a place, each with its remedy; and who changes with it. */
export function Checks({ checks }: { checks: PreflightCheck[] | null }) {
  if (checks === null) return null;
  const inTheWay = checks.filter((check) => check.outcome !== "clear");
  const inherited = checks.flatMap((check) => check.inheritedBy ?? []);
  return (
    <div className="mt-1 pl-6 text-sm">
      {inTheWay.length === 0 ? (
        <p className="flex items-center gap-2">
          <Verdict passes /> Nothing stands in the way.
        </p>
      ) : (
        <ul>
          {inTheWay.map((check) => (
            <li key={check.subject} className="flex gap-2" data-check={check.subject}>
              <span className="mt-1">
                {check.fault ? <Verdict passes={false} /> : <span aria-hidden="true">?</span>}
              </span>
              {check.fault ? (
                <span>
                  <strong>{faultWords(check.fault)}</strong> {remedyWords(check.fault)}
                </span>
              ) : (
                <span className="text-faint">
                  {PREFLIGHT_WORDS[check.subject].asked} Not known until the obstacle above is gone.
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
      {inherited.length > 0 ? (
        <p className="text-faint">Changes with it: {inherited.join(", ")}.</p>
      ) : null}
    </div>
  );
}
