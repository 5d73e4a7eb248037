import type { ThemeDocument } from "#core/theme/document.ts";
import { DENSITIES, FONTS, type Font, isSmallType, type Shape } from "#core/theme/typography.ts";
import { Problem } from "../../components/field.tsx";

interface TypeShapeProps {
  document: ThemeDocument;
  mayChange: boolean;
  onChange(document: ThemeDocument): void;
}

const FONT_WORDS: Record<Font, string> = {
  "atkinson-hyperlegible": "Atkinson Hyperlegible Next",
  "public-sans": "Public Sans",
  "source-serif": "Source Serif 4",
  "system-sans": "the reader's sans-serif",
  "system-serif": "the reader's serif",
};

/** Fonts, sizes and shape; each shows in the previews at once. */
export function TypeShape({ document, mayChange, onChange }: TypeShapeProps) {
  const { typography, shape } = document;
  const type = (change: Partial<ThemeDocument["typography"]>) =>
    onChange({ ...document, typography: { ...typography, ...change } });
  const form = (change: Partial<Shape>) =>
    onChange({ ...document, shape: { ...shape, ...change } });
  return (
    <fieldset disabled={!mayChange} className="space-y-3 px-3 py-3 text-sm">
      <legend className="sr-only">Type and shape</legend>
      <FontField
        id="headingFont"
        label="Headings"
        value={typography.headingFont}
        onChange={(headingFont) => type({ headingFont })}
      />
      <FontField
        id="bodyFont"
        label="Text"
        value={typography.bodyFont}
        onChange={(bodyFont) => type({ bodyFont })}
      />
      <Slider
        id="base"
        label="Size of text"
        unit={`rem, ${typography.base * 16} px for most readers`}
        value={typography.base}
        min={0.75}
        max={1.5}
        step={0.0625}
        onChange={(base) => type({ base })}
      />
      {isSmallType(typography) ? (
        <Problem>Below 16 px many people can't read in comfort. Take 1 rem or more.</Problem>
      ) : null}
      <Slider
        id="ratio"
        label="Step from one size to the next"
        unit="×"
        value={typography.ratio}
        min={1.05}
        max={1.5}
        step={0.05}
        onChange={(ratio) => type({ ratio })}
      />
      <Slider
        id="radius"
        label="Corners"
        unit="rem"
        value={shape.radius}
        min={0}
        max={1.5}
        step={0.125}
        onChange={(radius) => form({ radius })}
      />
      <Slider
        id="border"
        label="Lines"
        unit="px"
        value={shape.border}
        min={1}
        max={3}
        step={1}
        onChange={(border) => form({ border })}
      />
      <Slider
        id="elevation"
        label="Elevation"
        unit={shape.elevation === 0 ? "flat" : ""}
        value={shape.elevation}
        min={0}
        max={3}
        step={1}
        onChange={(elevation) => form({ elevation })}
      />
      <label className="block">
        <span className="font-medium">Density</span>
        <select
          className="entry mt-1"
          value={shape.density}
          onChange={(event) => form({ density: event.target.value as Shape["density"] })}
        >
          {DENSITIES.map((density) => (
            <option key={density}>{density}</option>
          ))}
        </select>
      </label>
      <p className="text-faint">
        Sizes are relative, so that a reader who enlarges text gets larger text.
      </p>
    </fieldset>
  );
}

interface FontFieldProps {
  id: string;
  label: string;
  value: Font;
  onChange(font: Font): void;
}

function FontField({ id, label, value, onChange }: FontFieldProps) {
  return (
    <label className="block" htmlFor={id}>
      <span className="font-medium">{label}</span>
      <select
        id={id}
        className="entry mt-1"
        value={value}
        onChange={(event) => onChange(event.target.value as Font)}
      >
        {(Object.keys(FONTS) as Font[]).map((font) => (
          <option key={font} value={font}>
            {FONT_WORDS[font]}
          </option>
        ))}
      </select>
    </label>
  );
}

interface SliderProps {
  id: string;
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange(value: number): void;
}

export function Slider({ id, label, unit, value, onChange, ...range }: SliderProps) {
  return (
    <div>
      <label htmlFor={id} className="flex justify-between">
        <span className="font-medium">{label}</span>
        <span className="number text-xs">
          {value} {unit}
        </span>
      </label>
      <input
        id={id}
        type="range"
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
        className="w-full accent-ink"
        {...range}
      />
    </div>
  );
}
