import { toHex } from "#core/colour/srgb.ts";
import { resetOverride, type ThemeDocument } from "#core/theme/document.ts";
import type { Override } from "#core/theme/override.ts";
import { ROLES, type Role, SCHEMES } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { overrideWords } from "../../wording/reason.ts";
import { roleWords } from "../../wording/roles.ts";

interface ByHandProps {
  document: ThemeDocument;
  theme: Theme;
  mayChange: boolean;
  onChange(document: ThemeDocument): void;
  onOpen(role: Role): void;
}

export const countByHand = (document: ThemeDocument): number =>
  SCHEMES.reduce((n, scheme) => n + Object.keys(document.overrides[scheme]).length, 0);

/** Everything that was set by hand, to be looked at and set back, alone or together. */
export function ByHand({ document, theme, mayChange, onChange, onOpen }: ByHandProps) {
  if (countByHand(document) === 0)
    return (
      <p className="px-3 py-4 text-sm text-faint">
        Nothing is set by hand: every role follows its rule. Open a role to set it.
      </p>
    );
  return (
    <div className="px-3 py-3 text-sm">
      {mayChange ? (
        <button
          type="button"
          className="press py-1"
          onClick={() => onChange({ ...document, overrides: { light: {}, dark: {} } })}
        >
          Set all back
        </button>
      ) : null}
      {SCHEMES.map((scheme) => {
        const set = ROLES.flatMap((role): [Role, Override][] => {
          const override = document.overrides[scheme][role];
          return override ? [[role, override]] : [];
        });
        if (set.length === 0) return null;
        return (
          <section key={scheme} className="mt-3" aria-label={`Set by hand in ${scheme}`}>
            <h3>{scheme === "light" ? "Light" : "Dark"}</h3>
            <ul className="rows mt-1 border-y border-hair">
              {set.map(([role, override]) => (
                <li key={role} className="flex items-center gap-2 py-1.5">
                  <span
                    aria-hidden="true"
                    className="size-5 shrink-0 border border-edge [forced-color-adjust:none]"
                    style={{ background: toHex(theme.schemes[scheme].standard[role].colour) }}
                  />
                  <button type="button" className="go" onClick={() => onOpen(role)}>
                    {roleWords(role)}
                  </button>
                  <span className="text-faint">{overrideWords(override)}</span>
                  {mayChange ? (
                    <button
                      type="button"
                      className="go ml-auto"
                      aria-label={`Set back ${roleWords(role)} in ${scheme}`}
                      onClick={() => onChange(resetOverride(document, scheme, role))}
                    >
                      Set back
                    </button>
                  ) : null}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}
