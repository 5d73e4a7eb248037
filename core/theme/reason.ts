import type { Srgb } from "../colour/srgb.ts";
import type { Step } from "../scale/ladder.ts";
import type { ScaleName } from "../scale/scales.ts";
import type { Override } from "./override.ts";
import type { Role } from "./roles.ts";

/** Where a role's colour comes from, as data; the words are the interface's. */
export type Reason =
  | { kind: "brand"; scale: ScaleName; step: Step }
  | { kind: "step"; scale: ScaleName; step: Step; insteadOf?: Refused }
  | { kind: "tone"; scale: ScaleName; contrastOnWhite: number }
  | { kind: "white" }
  | { kind: "black" }
  | { kind: "state"; of: Role; towards: "lighter" | "darker" }
  | { kind: "hue"; of: Role; degrees: number }
  /** Drawn from the pool of chart colours, farthest from those before it. */
  | { kind: "series"; hue: number; contrastOnWhite: number }
  /** Set by hand. `moved`: at contrast level `more` it was made lighter or darker until it holds. */
  | { kind: "override"; override: Override; moved: boolean };

/** The step that was wanted, and the pair that forbade it. */
export interface Refused {
  scale: ScaleName;
  step: Step;
  ground: Role;
  measured: number;
  owed: number;
}

export interface RoleColour {
  /** As it looks: opaque, a translucent one laid over canvas. */
  colour: Srgb;
  reason: Reason;
  /** What a translucent role was before it was laid over canvas. */
  translucent?: { colour: Srgb; alpha: number };
}

/** Every role of one scheme at one contrast level. */
export type SchemeColours = Record<Role, RoleColour>;
