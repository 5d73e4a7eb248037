import { fromPrimary, type ThemeDocument } from "./document.ts";
import { DEFAULT_SHAPE, DEFAULT_TYPOGRAPHY } from "./typography.ts";

/** Themes to start from, by name: each a colour with settings that show what they do. Our own invention. */
export const STARTING_THEMES: Record<string, ThemeDocument> = {
  "Quiet slate": { ...fromPrimary("#3d4f5c"), neutralTint: 60 },
  "Warm brick": {
    ...fromPrimary("#9c3f24"),
    accent: "#2f6f73",
    neutralTint: 80,
    typography: { ...DEFAULT_TYPOGRAPHY, headingFont: "source-serif" },
  },
  "Clear blue": {
    ...fromPrimary("#1a5fb4"),
    shape: { ...DEFAULT_SHAPE, radius: 0.5, elevation: 1 },
    typography: { ...DEFAULT_TYPOGRAPHY, headingFont: "public-sans", bodyFont: "public-sans" },
  },
  "Bright signal": { ...fromPrimary("#ffd400"), accent: "#1f2a44", neutralTint: 0 },
};
