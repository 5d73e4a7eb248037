import { memo, useMemo, useState } from "react";
import { contrast, shownRatio } from "#core/colour/contrast.ts";
import { BLACK, type Srgb, toHex, WHITE } from "#core/colour/srgb.ts";
import { STEPS, type Step } from "#core/scale/ladder.ts";
import { SCALE_NAMES, type ScaleName, type Scales } from "#core/scale/scales.ts";
import { Choice } from "../../components/choice.tsx";
import { NOTATIONS, type Notation, written } from "./notations.ts";
import { useTurn } from "./turns.ts";

const NAMES: Record<ScaleName, string> = {
  brand: "Your colour",
  accent: "Accent",
  neutral: "Neutral",
  success: "Success",
  warning: "Warning",
  danger: "Danger",
  info: "Info",
};

interface ScalesPanelProps {
  scales: Scales;
  /** The light canvas, which steps are measured on too. */
  canvas: Srgb;
  /** Steps that the pointed role takes: `scale step`, with the scheme. */
  lit: ReadonlyMap<string, string>;
}

/** All scales: one as a ladder with its values, the others as strips to press. */
export function ScalesPanel({ scales, canvas, lit }: ScalesPanelProps) {
  return <Panel lit={lit} {...useTurn(useMemo(() => ({ scales, canvas }), [scales, canvas]))} />;
}

const Panel = memo(function Panel({ scales, canvas, lit }: ScalesPanelProps) {
  const [shown, setShown] = useState<ScaleName>("brand");
  const [notation, setNotation] = useState<Notation>("hex");
  return (
    <>
      <div className="mt-3 mb-1 flex items-center justify-between">
        <h2 className="text-sm">{shown === "brand" ? "Shades" : `${NAMES[shown]} scale`}</h2>
        <Choice
          label="Copy as"
          value={notation}
          options={NOTATIONS.map((name) => ({ value: name, label: name }))}
          onChange={(name: Notation) => setNotation(name)}
        />
      </div>
      <table className="w-full table-fixed border-collapse text-sm whitespace-nowrap">
        <caption className="sr-only">
          {shown === "brand" ? "Shades of your colour" : `Shades of ${NAMES[shown].toLowerCase()}`},
          light to dark
        </caption>
        <thead>
          <tr className="text-xs text-faint">
            <th scope="col" className="w-19 pb-1 text-left font-normal">
              Step
            </th>
            <th scope="col" className="pb-1 text-left font-normal">
              Value
            </th>
            <th scope="col" className="w-11 pb-1 text-right font-normal">
              white
            </th>
            <th scope="col" className="w-11 pb-1 text-right font-normal">
              canvas
            </th>
          </tr>
        </thead>
        <tbody>
          {STEPS.map((step) => (
            <StepRow
              key={step}
              step={step}
              colour={scales[shown].steps[step]}
              isBrand={scales[shown].brandStep === step}
              canvas={canvas}
              notation={notation}
              lit={lit.get(`${shown} ${step}`)}
            />
          ))}
        </tbody>
      </table>
      <h2 className="mt-3 mb-1.5 text-sm">All scales</h2>
      <ul className="space-y-1">
        {SCALE_NAMES.map((name) => (
          <li key={name}>
            <button
              type="button"
              aria-pressed={name === shown}
              onClick={() => setShown(name)}
              className="flex w-full items-center gap-2 text-xs aria-pressed:font-bold"
            >
              <span className="w-17 text-left">{NAMES[name]}</span>
              <span className="flex h-4 flex-1 [forced-color-adjust:none]" aria-hidden="true">
                {STEPS.map((step) => (
                  <span
                    key={step}
                    className={`flex-1 ${lit.has(`${name} ${step}`) ? "outline-2 outline-ink" : ""}`}
                    style={{ background: toHex(scales[name].steps[step]) }}
                  />
                ))}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
});

interface StepRowProps {
  step: Step;
  colour: Srgb;
  isBrand: boolean;
  canvas: Srgb;
  notation: Notation;
  lit: string | undefined;
}

function StepRow({ step, colour, isBrand, canvas, notation, lit }: StepRowProps) {
  const [copied, setCopied] = useState(false);
  const text = written(colour, notation);
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    setCopied(true);
    setTimeout(() => setCopied(false), 1500);
  };
  return (
    <tr className={lit ? "bg-sunken" : ""}>
      <th scope="row" className="p-0 text-left font-normal">
        <span className="flex items-stretch gap-2">
          <span
            aria-hidden="true"
            className="grid h-6 w-9 place-items-center text-xs font-bold [forced-color-adjust:none]"
            style={{ background: toHex(colour), color: toHex(inkOn(colour)) }}
          >
            {lit ? MARKS[lit] : null}
          </span>
          <span className={`self-center number text-xs ${isBrand ? "font-bold" : ""}`}>{step}</span>
        </span>
      </th>
      <td className="overflow-hidden number text-xs">
        <button
          type="button"
          onClick={copy}
          aria-label={`Copy ${text}`}
          title={`Copy ${text}`}
          className={`hover:underline ${isBrand ? "font-bold" : ""}`}
        >
          {copied ? "copied" : toHex(colour)}
        </button>
        {isBrand ? (
          <span className="ml-1 font-sans font-bold">
            <span aria-hidden="true">◆</span>
            <span className="sr-only">yours</span>
          </span>
        ) : null}
        {lit ? (
          <span className="sr-only">taken in {lit === "both" ? "light and dark" : lit}</span>
        ) : null}
      </td>
      <td className="number text-right text-xs">{shownRatio(contrast(colour, WHITE))}</td>
      <td className="number text-right text-xs">{shownRatio(contrast(colour, canvas))}</td>
    </tr>
  );
}

/** In which scheme the pointed role takes a step. */
const MARKS: Record<string, string> = { light: "L", dark: "D", both: "L D" };

/** Black or white, whichever is easier to read on a colour. */
const inkOn = (colour: Srgb): Srgb =>
  contrast(colour, WHITE) > contrast(colour, BLACK) ? WHITE : BLACK;
