import type { ThemeDocument } from "#core/theme/document.ts";

/** What the workbench's form could not take, by field. */
export interface FieldProblems {
  primary?: string;
  accent?: string;
  neutralTint?: string;
  form?: string;
}

/** Somebody's newer save, as the browser gets it. */
export interface NewerDraft {
  revision: number;
  document: ThemeDocument;
  savedBy: string;
  savedAt: Date | string;
}

export type SaveAnswer =
  | { kind: "saved"; revision: number }
  | { kind: "newer"; theirs: NewerDraft; ours: ThemeDocument }
  | { kind: "refused"; problems: FieldProblems };

/** The workbench's form as it is sent for a document. */
export function formOf(document: ThemeDocument, basedOn: number): FormData {
  const form = new FormData();
  form.set("document", JSON.stringify(document));
  form.set("primary", document.primary);
  form.set("accent", document.accent ?? "");
  form.set("neutralTint", String(document.neutralTint));
  form.set("basedOn", String(basedOn));
  return form;
}
