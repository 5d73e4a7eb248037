import { z } from "zod";
import type { Hex } from "../colour/srgb.ts";
import { STEPS } from "../scale/ladder.ts";
import { SCALE_NAMES } from "../scale/scales.ts";
import { ROLES, type Role } from "./roles.ts";

export const hex = z.custom<Hex>(
  (value) => typeof value === "string" && /^#[0-9a-f]{6}$/.test(value),
  { message: "not a colour of the form #rrggbb" },
);

/** Roles that may be translucent: they lie over canvas, and are judged as they look there. */
export const TRANSLUCENT: ReadonlySet<Role> = new Set<Role>([
  "line",
  "inset",
  "selection",
  "action-soft",
  "action-soft-hover",
  "accent-soft",
]);

/** What a person set a role to by hand, in one scheme. */
export const override = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("colour"),
    colour: hex,
    /** Opacity, 0 to 1; below 1 only for roles that may be translucent. */
    alpha: z.number().min(0).max(1).optional(),
  }),
  z.strictObject({
    kind: z.literal("step"),
    scale: z.enum(SCALE_NAMES),
    step: z.literal([...STEPS]),
  }),
  z.strictObject({ kind: z.literal("role"), role: z.enum(ROLES as [Role, ...Role[]]) }),
]);
export type Override = z.infer<typeof override>;

export type Overrides = Partial<Record<Role, Override>>;

const overridesOfScheme = z
  .partialRecord(z.enum(ROLES as [Role, ...Role[]]), override)
  .superRefine((given, context) => {
    for (const [role, set] of Object.entries(given) as [Role, Override][])
      if (set.kind === "colour" && (set.alpha ?? 1) < 1 && !TRANSLUCENT.has(role))
        context.addIssue({ code: "custom", path: [role], message: "may not be translucent" });
  });

export const overrides = z.strictObject({ light: overridesOfScheme, dark: overridesOfScheme });
