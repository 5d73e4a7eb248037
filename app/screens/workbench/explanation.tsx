import { shownRatio } from "#core/colour/contrast.ts";
import { toHex } from "#core/colour/srgb.ts";
import type { PairVerdict } from "#core/contrast/verdict.ts";
import type { RoleColour } from "#core/theme/reason.ts";
import { type ContrastLevel, type Role, SCHEMES, type Scheme } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { Verdict } from "../../components/verdict.tsx";
import { reasonWords } from "../../wording/reason.ts";
import { roleWords } from "../../wording/roles.ts";

/** Every pair of a theme, by scheme, level and the role that lies over. */
export type Measured = Record<Scheme, Record<ContrastLevel, Map<Role, PairVerdict[]>>>;

interface ExplanationProps {
  role: Role;
  theme: Theme;
  measured: Measured;
}

/** Why the role has its colours, and every pair it takes part in, at both contrast levels. */
export function Explanation({ role, theme, measured }: ExplanationProps) {
  return (
    <div className="text-sm">
      {SCHEMES.map((scheme) => {
        const own: RoleColour = theme.schemes[scheme].standard[role];
        const pairs = measured[scheme].standard.get(role) ?? [];
        const more = measured[scheme].more.get(role) ?? [];
        return (
          <div key={scheme} className="mb-2 last:mb-0">
            <p>
              <strong>{scheme === "light" ? "Light" : "Dark"}</strong>{" "}
              <span className="number text-xs">{toHex(own.colour)}</span>. {reasonWords(own.reason)}
            </p>
            {pairs.length > 0 ? (
              <ul className="mt-0.5 text-faint">
                {pairs.map((pair, i) => (
                  <li key={pair.ground} className="flex flex-wrap items-center gap-x-1.5">
                    <PairWords pair={pair} />
                    {more[i] && pair.kind !== "inactive" && pair.kind !== "neighbour" ? (
                      <span className="inline-flex items-center gap-1">
                        · at more contrast {shownRatio(more[i].measured)}:1
                        <Verdict passes={more[i].passes} />
                      </span>
                    ) : null}
                  </li>
                ))}
              </ul>
            ) : null}
          </div>
        );
      })}
    </div>
  );
}

function PairWords({ pair }: { pair: PairVerdict }) {
  const ground = roleWords(pair.ground).toLowerCase();
  if (pair.kind === "neighbour")
    return (
      <span className="inline-flex items-center gap-1">
        beside {ground}: differs by {pair.measured.toFixed(3)}, needs {pair.owed}
        <Verdict passes={pair.passes} />
      </span>
    );
  if (pair.kind === "inactive")
    return (
      <span className="inline-flex items-center gap-1">
        on {ground}: {shownRatio(pair.measured)}:1, exempt since it is switched off
        <Verdict passes exempt />
      </span>
    );
  return (
    <span className="inline-flex items-center gap-1">
      on {ground}: {shownRatio(pair.measured)}:1, needs {pair.owed}:1
      <Verdict passes={pair.passes} />
    </span>
  );
}
