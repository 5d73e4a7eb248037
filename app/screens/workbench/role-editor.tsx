import { type KeyboardEvent, useMemo, useState } from "react";
import { oklch } from "#core/colour/oklch.ts";
import { type Srgb, toHex } from "#core/colour/srgb.ts";
import { STEPS } from "#core/scale/ladder.ts";
import { SCALE_NAMES, type ScaleName } from "#core/scale/scales.ts";
import { resetOverride, setOverride, type ThemeDocument } from "#core/theme/document.ts";
import type { Override } from "#core/theme/override.ts";
import { ROLES, type Role, SCHEMES, type Scheme } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";
import { nextShade, type Trial, trialsOf } from "#core/theme/trial.ts";
import { overrideWords, sourceWords } from "../../wording/reason.ts";
import { roleWords } from "../../wording/roles.ts";
import { ColourField } from "./colour-field.tsx";
import { usePolicy } from "./policy-context.ts";

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
      {byHand[0] && byHand.length === 1 ? (
        <OtherScheme
          role={role}
          document={document}
          theme={theme}
          from={byHand[0]}
          onTake={(scheme, override) => onChange(setOverride(document, scheme, role, override))}
        />
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

/** Says beforehand what an override would do in a scheme, under the organisation's policy. */
function useTrial(document: ThemeDocument, theme: Theme, scheme: Scheme): Trial {
  const { conformance } = usePolicy();
  return useMemo(
    () => trialsOf(document, theme, scheme, conformance),
    [document, theme, scheme, conformance],
  );
}

interface OtherSchemeProps extends Omit<RoleEditorProps, "onChange"> {
  from: Scheme;
  onTake(scheme: Scheme, override: Override): void;
}

/** A role is set by hand in one scheme only: whether that matters in the other, and a way to follow. */
function OtherScheme({ role, document, theme, from, onTake }: OtherSchemeProps) {
  const other: Scheme = from === "light" ? "dark" : "light";
  const trial = useTrial(document, theme, other);
  const override = document.overrides[from][role];
  if (!override) return null;
  const own = theme.schemes[other].standard[role];
  const apart = areOtherHues(theme.schemes[from].standard[role].colour, own.colour);
  return (
    <p className="border-l-2 border-edge pl-2.5">
      Only {from} is set by hand. {other === "dark" ? "Dark" : "Light"} keeps following its rule:{" "}
      {sourceWords(own.reason)}.{" "}
      {apart
        ? "The two are now different colours, so readers see another role when they change schemes. "
        : "The two are still shades of one colour. "}
      <button type="button" className="go" onClick={() => onTake(other, override)}>
        Take {overrideWords(override)} in {other} too
      </button>{" "}
      {trial(role, override) ? "(every pair would pass)" : "(a pair would fall short)"}
    </p>
  );
}

/** Least difference in hue, in degrees, that makes two colours different ones. Our own bar. */
const OTHER_HUE = 20;
/** Chroma (OKLCH) under which a colour is a grey and has no hue to speak of. Our own bar. */
const GREY = 0.03;

/** Whether two colours are of different hues, a grey being of none. */
function areOtherHues(a: Srgb, b: Srgb): boolean {
  const [x, y] = [oklch(a), oklch(b)];
  if (x.c < GREY || y.c < GREY) return x.c < GREY !== y.c < GREY;
  const apart = Math.abs(x.h - y.h) % 360;
  return Math.min(apart, 360 - apart) > OTHER_HUE;
}

/** The scales to press; each step says beforehand whether every pair would still pass. */
function StepPicker({ role, document, theme, scheme, onTake }: StepPickerProps) {
  const trial = useTrial(document, theme, scheme);
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
