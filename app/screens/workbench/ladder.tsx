import { contrast, shownRatio } from "#core/colour/contrast.ts";
import { toHex, WHITE } from "#core/colour/srgb.ts";
import { STEPS, type Step } from "#core/scale/ladder.ts";
import type { Scale } from "#core/scale/scale.ts";
import { SCALE_NAMES, type ScaleName, type Scales } from "#core/scale/scales.ts";

interface LadderProps {
  scale: Scale;
  /** Steps that the pointed role takes, by scheme. */
  lit: ReadonlyMap<Step, string>;
}

/** A brand's scale as a ladder: each step with its value and its contrast against white. */
export function Ladder({ scale, lit }: LadderProps) {
  return (
    <table className="w-full table-fixed border-collapse text-sm whitespace-nowrap">
      <caption className="sr-only">Shades of your colour, light to dark</caption>
      <thead>
        <tr className="text-xs text-faint">
          <th scope="col" className="w-20 pb-1 text-left font-normal">
            Step
          </th>
          <th scope="col" className="pb-1 text-left font-normal">
            Value
          </th>
          <th scope="col" className="w-14 pb-1 text-right font-normal">
            On white
          </th>
        </tr>
      </thead>
      <tbody>
        {STEPS.map((step) => (
          <StepRow key={step} scale={scale} step={step} lit={lit.get(step)} />
        ))}
      </tbody>
    </table>
  );
}

function StepRow({ scale, step, lit }: { scale: Scale; step: Step; lit: string | undefined }) {
  const colour = scale.steps[step];
  const isBrand = scale.brandStep === step;
  return (
    <tr className={lit ? "bg-sunken" : ""}>
      <th scope="row" className="w-20 p-0 text-left font-normal">
        <span className="flex items-stretch gap-2">
          <span
            aria-hidden="true"
            className="h-6.5 w-9 [forced-color-adjust:none]"
            style={{ background: toHex(colour) }}
          />
          <span className={`self-center number text-xs ${isBrand ? "font-bold" : ""}`}>{step}</span>
        </span>
      </th>
      <td className="number text-xs">
        <span className={isBrand ? "font-bold" : ""}>{toHex(colour)}</span>
        {isBrand ? (
          <span className="ml-1.5 font-sans font-bold">◆{lit ? "" : " yours"}</span>
        ) : null}
        {lit ? <span className="ml-1.5 font-sans text-faint">{lit}</span> : null}
      </td>
      <td className="number text-right text-xs">{shownRatio(contrast(colour, WHITE))}</td>
    </tr>
  );
}

const NAMES: Record<Exclude<ScaleName, "brand">, string> = {
  accent: "Accent",
  neutral: "Neutral",
  success: "Success",
  warning: "Warning",
  danger: "Danger",
  info: "Info",
};

/** The other scales of a theme, each as a strip of its eleven steps. */
export function OtherScales({ scales }: { scales: Scales }) {
  return (
    <ul className="space-y-1.5">
      {SCALE_NAMES.filter((name) => name !== "brand").map((name) => (
        <li key={name} className="flex items-center gap-2 text-xs">
          <span className="w-14">{NAMES[name]}</span>
          <span className="flex h-4 flex-1 [forced-color-adjust:none]" aria-hidden="true">
            {STEPS.map((step) => (
              <span
                key={step}
                className="flex-1"
                title={`${step}: ${toHex(scales[name].steps[step])}`}
                style={{ background: toHex(scales[name].steps[step]) }}
              />
            ))}
          </span>
          <span className="sr-only">
            {STEPS.map((step) => `${step} ${toHex(scales[name].steps[step])}`).join(", ")}
          </span>
        </li>
      ))}
    </ul>
  );
}
