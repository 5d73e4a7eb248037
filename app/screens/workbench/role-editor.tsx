import { type KeyboardEvent, useMemo, useState } from "react";
import { toHex } from "#core/colour/srgb.ts";
import { STEPS } from "#core/scale/ladder.ts";
import { SCALE_NAMES, type ScaleName } from "#core/scale/scales.ts";
import { resetOverride, setOverride, type ThemeDocument } from "#core/theme/document.ts";
import type { Override } from "#core/theme/override.ts";
import { ROLES, type Role, SCHEMES, type Scheme } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { nextShade, trialsOf } from "#core/theme/trial.ts";
import { roleWords } from "../../wording/roles.ts";
import { ColourField } from "./colour-field.tsx";

interface RoleEditorProps {
  role: Role;
  document: ThemeDocument;
  theme: Theme;
  onChange(document: ThemeDocument): void;
}

type Where = Scheme | "both";

/** Sets a role by hand: a step, another role, any colour, or a shade darker or lighter by key. */
export function RoleEditor({ role, document, theme, onChange }: RoleEditorProps) {
  const [where, setWhere] = useState<Where>("both");
  const schemes: readonly Scheme[] = where === "both" ? SCHEMES : [where];
  const shown: Scheme = where === "dark" ? "dark" : "light";
  const byHand = SCHEMES.filter((scheme) => document.overrides[scheme][role]);

  const setAll = (of: (scheme: Scheme) => Override | null) =>
    onChange(
      schemes.reduce((doc, scheme) => {
        const override = of(scheme);
        return override ? setOverride(doc, scheme, role, override) : doc;
      }, document),
    );
  const shade = (towards: "darker" | "lighter") =>
    setAll((scheme) => nextShade(theme, scheme, role, towards));
  const keys = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement && event.target.type === "text") return;
    if (event.key === "+" || event.key === "-") {
      event.preventDefault();
      shade(event.key === "+" ? "lighter" : "darker");
    }
  };

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: + and − are shortcuts for the two buttons inside
    <div className="space-y-2.5 text-sm" onKeyDown={keys}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <fieldset className="flex items-center gap-3">
          <legend className="sr-only">Where {roleWords(role)} is changed</legend>
          {(["both", "light", "dark"] as const).map((value) => (
            <label key={value} className="flex items-center gap-1">
              <input
                type="radio"
                name={`where-${role}`}
                checked={where === value}
                onChange={() => setWhere(value)}
                className="accent-ink"
              />
              {value === "both" ? "Light and dark" : value === "light" ? "Light" : "Dark"}
            </label>
          ))}
        </fieldset>
        <span className="flex gap-1.5">
          <button type="button" className="press px-2 py-0.5" onClick={() => shade("lighter")}>
            Lighter <kbd className="number text-xs">+</kbd>
          </button>
          <button type="button" className="press px-2 py-0.5" onClick={() => shade("darker")}>
            Darker <kbd className="number text-xs">−</kbd>
          </button>
        </span>
        {byHand.length > 0 ? (
          <button
            type="button"
            className="go"
            onClick={() =>
              onChange(byHand.reduce((doc, scheme) => resetOverride(doc, scheme, role), document))
            }
          >
            Back to the rule
          </button>
        ) : null}
      </div>
      <StepPicker
        role={role}
        document={document}
        theme={theme}
        scheme={shown}
        onTake={(override) => setAll(() => override)}
      />
      <div className="grid grid-cols-2 items-end gap-3">
        <ColourField
          key={`${role} ${shown} ${toHex(theme.schemes[shown].standard[role].colour)}`}
          name={`colour-${role}`}
          label="Any colour"
          value={toHex(theme.schemes[shown].standard[role].colour)}
          readOnly={false}
          onChange={(colour) => setAll(() => ({ kind: "colour", colour }))}
        />
        <label className="block">
          <span className="font-medium">The same as</span>
          <select
            className="entry mt-1 h-9 py-1"
            value=""
            onChange={(event) => setAll(() => ({ kind: "role", role: event.target.value as Role }))}
          >
            <option value="" disabled>
              choose a role
            </option>
            {ROLES.filter((other) => other !== role).map((other) => (
              <option key={other} value={other}>
                {roleWords(other)}
              </option>
            ))}
          </select>
        </label>
      </div>
      {where !== "both" && byHand.length === 1 && byHand[0] === where ? (
        <p className="text-faint">
          Only {where} is set by hand. {where === "light" ? "Dark" : "Light"} keeps following its
          rule.
        </p>
      ) : null}
    </div>
  );
}

interface StepPickerProps {
  role: Role;
  document: ThemeDocument;
  theme: Theme;
  scheme: Scheme;
  onTake(override: Override): void;
}

/** The scales to press; each step says beforehand whether every pair would still pass. */
function StepPicker({ role, document, theme, scheme, onTake }: StepPickerProps) {
  const trial = useMemo(() => trialsOf(document, theme, scheme), [document, theme, scheme]);
  const own = SCALE_NAMES.find((name) => role.startsWith(name));
  const scales = [...new Set<ScaleName>([...(own ? [own] : []), "brand", "accent", "neutral"])];
  const set = document.overrides[scheme][role];
  return (
    <div className="space-y-1">
      {scales.map((scale) => (
        <div key={scale} className="flex items-center gap-2">
          <span className="w-14 text-xs capitalize">{scale}</span>
          <span className="grid flex-1 grid-cols-11 gap-px">
            {STEPS.map((step) => {
              const override: Override = { kind: "step", scale, step };
              const passes = trial(role, override);
              const taken = set?.kind === "step" && set.scale === scale && set.step === step;
              return (
                <button
                  key={step}
                  type="button"
                  aria-pressed={taken}
                  aria-label={`${scale} ${step}, ${passes ? "passes" : "falls short"}`}
                  title={`${scale} ${step} ${toHex(theme.scales[scale].steps[step])}`}
                  onClick={() => onTake(override)}
                  className="flex flex-col items-center"
                >
                  <span
                    className={`h-5 w-full border [forced-color-adjust:none] ${taken ? "border-2 border-ink" : "border-hair"}`}
                    style={{ background: toHex(theme.scales[scale].steps[step]) }}
                  />
                  <span aria-hidden="true" className="text-[10px] leading-tight">
                    {passes ? "✓" : "▲"}
                  </span>
                </button>
              );
            })}
          </span>
        </div>
      ))}
    </div>
  );
}
