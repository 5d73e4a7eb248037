import { DEFICIENCIES, matrixOf } from "#core/colour/vision.ts";

/** SVG filters that show a page as somebody with a colour-vision deficiency sees it, in linear light. */
export function VisionFilters() {
  return (
    <svg aria-hidden="true" className="absolute size-0">
      {DEFICIENCIES.map((deficiency) => {
        const m = matrixOf(deficiency);
        const rows = [0, 3, 6].map((i) => `${m[i]} ${m[i + 1]} ${m[i + 2]} 0 0`);
        return (
          <filter key={deficiency} id={`sees-${deficiency}`} colorInterpolationFilters="linearRGB">
            <feColorMatrix type="matrix" values={`${rows.join(" ")} 0 0 0 1 0`} />
          </filter>
        );
      })}
    </svg>
  );
}
