/** The pages that a theme is judged on, in the order in which people meet them. */
export const PREVIEW_PAGES = [
  "home",
  "sign-in",
  "request",
  "records",
  "dashboard",
  "reading",
] as const;
export type PreviewPage = (typeof PREVIEW_PAGES)[number];

export const PAGE_WORDS: Record<PreviewPage, string> = {
  home: "Intranet home",
  "sign-in": "Sign-in page",
  request: "Request form",
  records: "Admin table",
  dashboard: "Dashboard",
  reading: "Long reading",
};

/** States that controls can be shown in without touching them. */
export const SHOWN_STATES = ["as is", "hover", "focus", "pressed", "disabled"] as const;
export type ShownState = (typeof SHOWN_STATES)[number];

export interface PreviewProps {
  /** State that the buttons and links are shown in. */
  shown: ShownState;
}

/** The attribute that shows a control in a state. */
export const shownAs = (shown: ShownState) => (shown === "as is" ? {} : { "data-shown": shown });
