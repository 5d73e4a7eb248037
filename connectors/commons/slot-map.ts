import type { Role } from "#core/theme/roles.ts";

/** Longest palette name that Commons takes, in characters. */
export const LONGEST_NAME = 40;

/** Which role fills which slot of a Commons palette. */
export const SLOT_MAP = {
  ground: "canvas",
  ink: "canvas-text",
  faintInk: "canvas-text-muted",
  sheet: "panel",
  sheetInk: "panel-text",
  sheetFaintInk: "panel-text-muted",
  well: "inset",
  wellInk: "inset-text",
  hairline: "line",
  edge: "line-strong",
  entry: "field",
  entryInk: "field-text",
  entryPrompt: "field-hint",
  entryEdge: "field-line",
  masthead: "header",
  mastheadInk: "header-text",
  rail: "nav",
  railInk: "nav-text",
  railHere: "nav-current",
  railHereInk: "nav-current-text",
  foot: "footer",
  footInk: "footer-text",
  button: "action",
  buttonOver: "action-hover",
  buttonDown: "action-pressed",
  buttonInk: "action-text",
  quietButton: "action-soft",
  quietButtonOver: "action-soft-hover",
  quietButtonInk: "action-soft-text",
  tag: "accent-soft",
  tagInk: "accent-soft-text",
  anchor: "link",
  anchorOver: "link-hover",
  anchorSeen: "link-visited",
  ring: "focus",
  picked: "selection",
  pickedInk: "selection-text",
  goodNote: "success-soft",
  goodNoteInk: "success-soft-text",
  goodEdge: "success-line",
  alertNote: "danger-soft",
  alertNoteInk: "danger-soft-text",
  alertEdge: "danger-line",
  tellNote: "info-soft",
  tellNoteInk: "info-soft-text",
  tellEdge: "info-line",
} as const satisfies Record<string, Role>;

/** Commons has no second scheme: the dark palette goes under a name of its own. */
export const paletteName = (release: string, scheme: "light" | "dark"): string =>
  scheme === "light" ? release : `${release} (dark)`;
