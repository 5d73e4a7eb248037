import type { NotationError } from "#core/colour/notation.ts";

const FORMS: Record<string, string> = {
  rgb: "rgb(11 94 85)",
  rgba: "rgb(11 94 85 / 80%)",
  hsl: "hsl(173 79% 21%)",
  hsla: "hsl(173 79% 21% / 80%)",
  hwb: "hwb(173 4% 63%)",
  lab: "lab(35% -27 -1)",
  lch: "lch(35% 27 183)",
  oklab: "oklab(44% -0.08 -0.01)",
  oklch: "oklch(44% 0.08 183)",
  color: "color(srgb 0.04 0.37 0.33)",
};

/** What is wrong with a typed colour, and a form that works. */
export function notationWords(error: NotationError): string {
  switch (error.code) {
    case "empty":
      return "Type a colour, such as #0b5e55.";
    case "hex-length":
      return `“${error.part}” has ${error.digits} digits; a hex colour has 3, 4, 6 or 8, such as #0b5e55.`;
    case "hex-digit":
      return `“${error.part}” is no hex digit. Use 0–9 and a–f, such as #0b5e55.`;
    case "unknown-name":
      return `“${error.part}” is no colour that CSS knows. Try #0b5e55, rgb(11 94 85) or teal.`;
    case "unknown-function":
      return `“${error.part}(…)” is no colour function. Try rgb(11 94 85) or oklch(44% 0.08 183).`;
    case "unclosed":
      return `“${error.part}” lacks its closing bracket. Write it as rgb(11 94 85).`;
    case "arguments":
      return `“${error.arguments}” can't be read inside ${error.part}(…). Write it as ${FORMS[error.part] ?? FORMS.rgb}.`;
    case "triple-range":
      return `“${error.part}” is outside 0 to 255. Write it as 11, 94, 85.`;
  }
}
