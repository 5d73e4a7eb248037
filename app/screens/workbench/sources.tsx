import { useState } from "react";
import { Form } from "react-router";
import { shownRatio } from "#core/colour/contrast.ts";
import { fromHex, toHex } from "#core/colour/srgb.ts";
import type { Scales } from "#core/scale/scales.ts";
import { type Harmony, suggestAccents } from "#core/scale/suggestions.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { ColourField } from "./colour-field.tsx";
import type { FieldProblems } from "./draft-form.ts";
import { Slider } from "./type-shape.tsx";
import type { DraftState } from "./use-draft.ts";

interface SourcesProps {
  draft: DraftState;
  scales: Scales;
  mayChange: boolean;
  problems: FieldProblems;
}

/** What the theme is made from. The form works without scripts; with them it saves itself. */
export function Sources({ draft, scales, mayChange, problems }: SourcesProps) {
  const { document, revision, change } = draft;
  const derivedAccent = toHex(scales.accent.steps[scales.accent.brandStep ?? 600]);
  return (
    <Form
      method="post"
      id="sources"
      className="space-y-3"
      onSubmit={(event) => event.preventDefault()}
    >
      <input type="hidden" name="document" value={JSON.stringify(document)} />
      <input type="hidden" name="basedOn" value={draft.newer?.revision ?? revision} />
      <ColourField
        name="primary"
        label="Your colour"
        value={document.primary}
        readOnly={!mayChange}
        problem={problems.primary}
        onChange={(primary) => change({ primary })}
      />
      <ColourField
        name="accent"
        label="Accent"
        value={document.accent}
        derived={derivedAccent}
        readOnly={!mayChange}
        problem={problems.accent}
        onChange={(accent) => change({ accent })}
      />
      {mayChange ? (
        <Suggestions document={document} onTake={(accent) => change({ accent })} />
      ) : null}
      <input type="hidden" name="neutralTint" value={document.neutralTint} />
      <details className="text-sm">
        <summary className="go">More settings</summary>
        <fieldset disabled={!mayChange} className="mt-2 space-y-2">
          <legend className="sr-only">More settings</legend>
          <Slider
            id="tint"
            label="Tint of the greys"
            unit="%"
            value={document.neutralTint}
            min={0}
            max={100}
            step={5}
            onChange={(neutralTint) => change({ neutralTint })}
          />
          <Slider
            id="drift-light"
            label="Hue toward light"
            unit="°"
            value={document.hueDrift.light}
            min={-60}
            max={60}
            step={5}
            onChange={(light) => change({ hueDrift: { ...document.hueDrift, light } })}
          />
          <Slider
            id="drift-dark"
            label="Hue toward dark"
            unit="°"
            value={document.hueDrift.dark}
            min={-60}
            max={60}
            step={5}
            onChange={(dark) => change({ hueDrift: { ...document.hueDrift, dark } })}
          />
          <Slider
            id="lean"
            label="Statuses lean to your hue"
            unit="°"
            value={document.statusLean}
            min={0}
            max={8}
            step={1}
            onChange={(statusLean) => change({ statusLean })}
          />
        </fieldset>
      </details>
      {problems.form ? <p role="alert">{problems.form}</p> : null}
      {mayChange ? (
        <noscript>
          <button type="submit" className="press press-main">
            Save
          </button>
        </noscript>
      ) : null}
    </Form>
  );
}

const HARMONY_WORDS: Record<Harmony, string> = {
  quieter: "quieter",
  complement: "complement",
  neighbours: "neighbour",
  "split-complement": "split complement",
  triad: "triad",
  "same-hue": "same hue",
};

interface SuggestionsProps {
  document: ThemeDocument;
  onTake(accent: ReturnType<typeof toHex>): void;
}

/** Accents that go with the colour, each with the contrast of its best text. */
function Suggestions({ document, onTake }: SuggestionsProps) {
  const [open, setOpen] = useState(false);
  const [seed, setSeed] = useState(0);
  const found = open ? suggestAccents(fromHex(document.primary), seed) : [];
  return (
    <details className="text-sm" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="go">Suggested accents</summary>
      <ul className="mt-2 max-h-56 space-y-1 overflow-y-auto">
        {found.map(({ harmony, rendering, colour, text, contrast }) => (
          <li key={`${harmony} ${colour}`}>
            <button
              type="button"
              className="flex w-full items-center gap-2 text-left hover:underline"
              onClick={() => onTake(toHex(colour))}
            >
              <span
                aria-hidden="true"
                className="grid h-6 w-9 shrink-0 place-items-center border border-hair text-xs [forced-color-adjust:none]"
                style={{ background: toHex(colour), color: toHex(text) }}
              >
                <svg viewBox="0 0 12 12" className="size-3" aria-hidden="true">
                  <path
                    d="M1 11L6 1l5 10M3 8h6"
                    fill="none"
                    stroke="currentColor"
                    strokeWidth="1.6"
                  />
                </svg>
              </span>
              <span className="min-w-0 flex-1 truncate">
                {HARMONY_WORDS[harmony]}, {rendering}
              </span>
              <span className="number text-xs">{shownRatio(contrast)}</span>
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="go mt-1" onClick={() => setSeed(seed + 1)}>
        Others
      </button>
    </details>
  );
}
