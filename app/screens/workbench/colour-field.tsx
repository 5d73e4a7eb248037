import { useEffect, useId, useRef, useState } from "react";
import { readColour } from "#core/colour/notation.ts";
import { type Hex, toHex } from "#core/colour/srgb.ts";
import { Problem } from "../../components/field.tsx";
import { notationWords } from "../../wording/notation.ts";

interface ColourFieldProps<Value extends Hex | null> {
  name: string;
  label: string;
  value: Value;
  /** What is taken while the field is empty; without it the field may not be empty. */
  derived?: Hex;
  readOnly: boolean;
  problem?: string | undefined;
  onChange(colour: Hex | (null extends Value ? null : never)): void;
}

/** Identifier of the list of colours that were used in this theme; pickers and fields offer them. */
export const USED_COLOURS = "used-colours";

/** A colour by any notation or by the browser's picker. What can't be read stays in the field, with why. */
export function ColourField<Value extends Hex | null>(props: ColourFieldProps<Value>) {
  const { name, label, value, derived, readOnly, problem } = props;
  const onChange = props.onChange as (colour: Hex | null) => void;
  const id = useId();
  const [text, setText] = useState<string>(value ?? "");
  const [wrong, setWrong] = useState(problem ?? null);
  const [told, setTold] = useState<string | null>(null);
  const typed = useRef(text);

  useEffect(() => {
    if (standsFor(typed.current) === value) return;
    typed.current = value ?? "";
    setText(typed.current);
    setWrong(null);
  }, [value]);

  const type = (entered: string) => {
    typed.current = entered;
    setText(entered);
    setTold(null);
    if (derived !== undefined && entered.trim() === "") {
      setWrong(null);
      return onChange(null);
    }
    const read = readColour(entered);
    if (!read.ok) return setWrong(notationWords(read.error));
    if (read.value.alpha < 1)
      return setWrong("A brand colour can't be see-through. Give it without opacity.");
    setWrong(null);
    if (read.value.mapped)
      setTold("Outside sRGB: the nearest colour that screens share was taken.");
    onChange(toHex(read.value.colour));
  };

  return (
    <div>
      <div className="flex items-baseline justify-between">
        <label htmlFor={id} className="text-sm font-medium">
          {label}
        </label>
        {derived !== undefined ? (
          <span className="text-xs text-faint">
            {value === null ? "derived" : "set by hand"}
            {value !== null && !readOnly ? (
              <button type="button" className="go ml-2 text-ink" onClick={() => type("")}>
                Derive it
              </button>
            ) : null}
          </span>
        ) : null}
      </div>
      <div className="mt-1 flex">
        <input
          type="color"
          list={USED_COLOURS}
          aria-label={`${label}, picker`}
          value={value ?? derived}
          disabled={readOnly}
          onChange={(event) => type(event.target.value)}
          className="h-9 w-11 shrink-0 cursor-pointer rounded-l-sm border border-r-0 border-edge bg-surface p-1 [forced-color-adjust:none]"
        />
        <input
          id={id}
          name={name}
          list={USED_COLOURS}
          value={text}
          placeholder={derived}
          readOnly={readOnly}
          spellCheck={false}
          autoComplete="off"
          aria-invalid={wrong !== null || undefined}
          aria-describedby={wrong || told ? `${id}-told` : undefined}
          onChange={(event) => type(event.target.value)}
          className="entry number h-9 rounded-l-none text-sm"
        />
        {readOnly ? null : <Eyedropper label={label} onTake={type} />}
      </div>
      {wrong ? <Problem id={`${id}-told`}>{wrong}</Problem> : null}
      {!wrong && told ? (
        <p id={`${id}-told`} className="mt-1 text-sm text-faint">
          {told}
        </p>
      ) : null}
    </div>
  );
}

/** The colour that a typed text stands for; null for an empty one, undefined for one that is none. */
function standsFor(text: string): Hex | null | undefined {
  if (text.trim() === "") return null;
  const read = readColour(text);
  return read.ok ? toHex(read.value.colour) : undefined;
}

interface EyeDropperWindow {
  EyeDropper?: new () => { open(): Promise<{ sRGBHex: string }> };
}

/** Takes a colour from anywhere on the screen, where the browser can. */
function Eyedropper({ label, onTake }: { label: string; onTake(hex: string): void }) {
  const [can, setCan] = useState(false);
  useEffect(() => setCan("EyeDropper" in window), []);
  if (!can) return null;
  const take = async () => {
    const Dropper = (window as EyeDropperWindow).EyeDropper;
    // Escape ends it without a colour, which the browser reports as an error.
    const taken = await new (Dropper as NonNullable<typeof Dropper>)().open().catch(() => null);
    if (taken) onTake(taken.sRGBHex);
  };
  return (
    <button
      type="button"
      onClick={take}
      aria-label={`${label}, take from the screen`}
      title="Take a colour from the screen"
      className="press h-9 rounded-l-none border-l-0 px-2"
    >
      <svg viewBox="0 0 16 16" className="size-4" aria-hidden="true">
        <path
          d="M9 4l3 3M10.5 2.5a1.8 1.8 0 0 1 3 3L11 8 8 5zM8.5 5.5L3 11l-.8 2.8L5 13l5.5-5.5"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.4"
        />
      </svg>
    </button>
  );
}
