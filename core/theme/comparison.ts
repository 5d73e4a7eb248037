import { deltaE2000 } from "../colour/difference.ts";
import type { Srgb } from "../colour/srgb.ts";
import type { Finding } from "../contrast/verdict.ts";
import { keyOf } from "./repairs.ts";
import {
  CONTRAST_LEVELS,
  type ContrastLevel,
  ROLES,
  type Role,
  SCHEMES,
  type Scheme,
} from "./roles.ts";
import type { Theme } from "./theme.ts";

/** A role that looks different in two themes. */
export interface RoleChange {
  scheme: Scheme;
  level: ContrastLevel;
  role: Role;
  before: Srgb;
  after: Srgb;
  /** CIEDE2000. */
  difference: number;
}

export interface Comparison {
  changes: RoleChange[];
  /** Findings that only the later theme has. */
  gained: Finding[];
  /** Findings that only the earlier theme has. */
  lost: Finding[];
}

/** What changes from one theme to another: roles, and what falls short. */
export function compareThemes(before: Theme, after: Theme): Comparison {
  const changes = SCHEMES.flatMap((scheme) =>
    CONTRAST_LEVELS.flatMap((level) =>
      ROLES.flatMap((role) => {
        const a = before.schemes[scheme][level][role].colour;
        const b = after.schemes[scheme][level][role].colour;
        if (a === b) return [];
        return [{ scheme, level, role, before: a, after: b, difference: deltaE2000(a, b) }];
      }),
    ),
  );
  const [had, has] = [new Set(before.findings.map(keyOf)), new Set(after.findings.map(keyOf))];
  return {
    changes,
    gained: after.findings.filter((f) => !had.has(keyOf(f))),
    lost: before.findings.filter((f) => !has.has(keyOf(f))),
  };
}
