import { readColour } from "#core/colour/notation.ts";
import { type Hex, toHex } from "#core/colour/srgb.ts";
import { themeDocument } from "#core/theme/document.ts";
import type { PersonId, ThemeId } from "#server/ids.ts";
import { saveDraft } from "#server/themes/themes.ts";
import { notationWords } from "../../wording/notation.ts";
import type { FieldProblems, SaveAnswer } from "./draft-form.ts";

/** Saves what the workbench's form holds, whether a script or the browser itself sent it. */
export async function saveFromForm(
  form: FormData,
  theme: ThemeId,
  person: PersonId,
): Promise<SaveAnswer> {
  const text = (name: string) => String(form.get(name) ?? "");
  const problems: FieldProblems = {};
  const colourOf = (name: "primary" | "accent"): Hex | null => {
    const read = readColour(text(name));
    if (read.ok && read.value.alpha === 1) return toHex(read.value.colour);
    problems[name] = read.ok
      ? "A brand colour can't be see-through. Give it without opacity."
      : notationWords(read.error);
    return null;
  };
  const candidate = {
    ...parsed(text("document")),
    version: 1,
    primary: colourOf("primary"),
    accent: text("accent").trim() === "" ? null : colourOf("accent"),
    neutralTint: Number(text("neutralTint")),
  };
  const document = themeDocument.safeParse(candidate);
  const basedOn = Number(text("basedOn"));
  if (!document.success && Object.keys(problems).length === 0)
    problems.form = "A setting is outside its range. Load the page again, then change it.";
  if (!Number.isInteger(basedOn) || basedOn < 1) problems.form = "Load the page again, then save.";
  if (!document.success || Object.keys(problems).length > 0) return { kind: "refused", problems };
  const result = await saveDraft(theme, basedOn, document.data, person);
  if (result.ok) return { kind: "saved", revision: result.revision };
  if (result.code === "newer") return { kind: "newer", theirs: result.theirs, ours: document.data };
  return { kind: "refused", problems: { form: "This theme is no longer there." } };
}

/** The document that the form was made from; what the form's fields say goes before it. */
function parsed(text: string): object {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === "object" && value !== null ? value : {};
  } catch {
    return {};
  }
}
