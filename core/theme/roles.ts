import { STATUSES, type Status } from "../scale/scales.ts";

/** What a colour is for on a screen, grouped by where it is met. A fill's text partner is `<fill>-text`. */
export const ROLE_GROUPS = {
  grounds: [
    "canvas",
    "canvas-text",
    "canvas-text-muted",
    "panel",
    "panel-text",
    "panel-text-muted",
    "inset",
    "inset-text",
    "line",
    "line-strong",
  ],
  fields: ["field", "field-text", "field-hint", "field-line"],
  frame: [
    "header",
    "header-text",
    "nav",
    "nav-text",
    "nav-current",
    "nav-current-text",
    "footer",
    "footer-text",
  ],
  action: [
    "action",
    "action-hover",
    "action-pressed",
    "action-text",
    "action-soft",
    "action-soft-hover",
    "action-soft-text",
    "accent",
    "accent-hover",
    "accent-text",
    "accent-soft",
    "accent-soft-text",
  ],
  reading: [
    "link",
    "link-hover",
    "link-visited",
    "selection",
    "selection-text",
    "mark",
    "mark-text",
    "focus",
  ],
  off: ["disabled", "disabled-text"],
  status: STATUSES.flatMap(
    (s) => [s, `${s}-text`, `${s}-soft`, `${s}-soft-text`, `${s}-line`] as const,
  ),
  data: ["chart-1", "chart-2", "chart-3", "chart-4", "chart-5", "chart-6", "chart-7", "chart-8"],
} as const;

export type RoleGroup = keyof typeof ROLE_GROUPS;
export type Role = (typeof ROLE_GROUPS)[RoleGroup][number];
export type StatusRole = Status | `${Status}-${"text" | "soft" | "soft-text" | "line"}`;

export const ROLES: readonly Role[] = Object.values(ROLE_GROUPS).flat();

export const SCHEMES = ["light", "dark"] as const;
export type Scheme = (typeof SCHEMES)[number];

export const CONTRAST_LEVELS = ["standard", "more"] as const;
export type ContrastLevel = (typeof CONTRAST_LEVELS)[number];
