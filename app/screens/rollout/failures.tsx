import { Verdict } from "../../components/verdict.tsx";
import { PLATFORM_WORDS } from "../../wording/estate.ts";
import { faultWords, remedyWords } from "../../wording/fault.ts";
import type { Route } from "./+types/route";

interface FailuresProps {
  failures: Route.ComponentProps["loaderData"]["failures"];
}

/** Why places were not reached: each reason once, with how many it kept and what to do. */
export function Failures({ failures }: FailuresProps) {
  return (
    <section aria-labelledby="failures" className="mt-4 border border-hair bg-surface px-5 py-3">
      <h2 id="failures">What stood in the way</h2>
      <ul className="rows mt-2 border-t border-hair">
        {failures.map(({ platform, places, fault, isOne }) => (
          <li key={`${platform} ${fault.code}`} className="flex gap-3 py-2">
            <span className="mt-1">
              <Verdict passes={false} />
            </span>
            <p>
              <strong>
                {places === 1 ? "One place" : `${places} places`}, {PLATFORM_WORDS[platform]}:
              </strong>{" "}
              {isOne ? "" : "for instance, "}
              {faultWords(fault)} {remedyWords(fault)}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
