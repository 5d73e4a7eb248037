import type { Srgb } from "../colour/srgb.ts";
import type { Step } from "../scale/ladder.ts";
import type { ScaleName } from "../scale/scales.ts";
import type { Role } from "./roles.ts";

/** Where a role's colour comes from, as data; the words are the interface's. */
export type Reason =
  | { kind: "brand"; scale: ScaleName; step: Step }
  | { kind: "step"; scale: ScaleName; step: Step; insteadOf?: Refused }
  | { kind: "tone"; scale: ScaleName; contrastOnWhite: number }
  | { kind: "white" }
  | { kind: "black" }
  | { kind: "state"; of: Role; towards: "lighter" | "darker" }
  | { kind: "hue"; of: Role; degrees: number };

/** The step that was wanted, and the pair that forbade it. */
export interface Refused {
  scale: ScaleName;
  step: Step;
  ground: Role;
  measured: number;
  owed: number;
}

export interface RoleColour {
  colour: Srgb;
  reason: Reason;
}

/** Every role of one scheme at one contrast level. */
export type SchemeColours = Record<Role, RoleColour>;
