import { atLeastCiede2000, ciede2000 } from "../colour/difference.ts";
import type { Lab } from "../colour/lab.ts";
import type { Srgb } from "../colour/srgb.ts";
import { labSeen, VISIONS, type Vision } from "../colour/vision.ts";
import { STATUSES } from "../scale/scales.ts";
import type { SchemeColours } from "../theme/reason.ts";
import type { ContrastLevel, Role, Scheme } from "../theme/roles.ts";

/** CIEDE2000 that two statuses, or two chart colours, keep apart under every simulated vision. Our own bar. */
export const STATUS_FLOOR = 6;
export const CHART_FLOOR = 6;
/** CIEDE2000 that a status keeps from the brand's buttons, as typically seen. Our own bar. */
export const BRAND_FLOOR = 10;

/** Two colours that somebody could take for one another. `measured` and `owed` are CIEDE2000. */
export interface AlikeFinding {
  kind: "alike";
  over: Role;
  ground: Role;
  vision: Vision;
  measured: number;
  owed: number;
  scheme: Scheme;
  level: ContrastLevel;
}

const CHARTS = [1, 2, 3, 4, 5, 6, 7, 8].map((n) => `chart-${n}` as Role);

/** A colour as each kind of vision sees it. */
export type Seen = readonly Lab[];

/** The same few hundred status and chart colours are asked for in every theme. */
const memory = new Map<Srgb, Seen>();
const MOST_REMEMBERED = 2000;

export function seenByAll(colour: Srgb): Seen {
  const known = memory.get(colour);
  if (known) return known;
  const seen = VISIONS.map((vision) => labSeen(colour, vision));
  if (memory.size >= MOST_REMEMBERED) memory.clear();
  memory.set(colour, seen);
  return seen;
}

/**
 * The smallest CIEDE2000 of two colours over all kinds of vision, and with which it is; `below`
 * where none is smaller than that.
 */
export function closest(
  a: Seen,
  b: Seen,
  below = Number.POSITIVE_INFINITY,
): { measured: number; vision: Vision } {
  let measured = below;
  let vision: Vision = "typical";
  for (let i = 0; i < VISIONS.length; i++) {
    if (atLeastCiede2000(a[i] as Lab, b[i] as Lab) >= measured) continue;
    const difference = ciede2000(a[i] as Lab, b[i] as Lab);
    if (difference >= measured) continue;
    measured = difference;
    vision = VISIONS[i] as Vision;
  }
  return { measured, vision };
}

/**
 * Statuses and chart colours that can be mixed up and, at the standard level, statuses that look
 * like the brand.
 */
export function alikeFindings(
  colours: SchemeColours,
  scheme: Scheme,
  level: ContrastLevel,
): AlikeFinding[] {
  const found: AlikeFinding[] = [];
  const apart = (roles: readonly Role[], owed: number) => {
    const seen = roles.map((role) => seenByAll(colours[role].colour));
    roles.forEach((over, i) => {
      for (let j = 0; j < i; j++) {
        const { measured, vision } = closest(seen[i] as Seen, seen[j] as Seen, owed);
        if (measured < owed)
          found.push({
            kind: "alike",
            over,
            ground: roles[j] as Role,
            vision,
            measured,
            owed,
            scheme,
            level,
          });
      }
    });
  };
  apart(STATUSES, STATUS_FLOOR);
  apart(CHARTS, CHART_FLOOR);
  if (level === "more") return found;
  const brand = labSeen(colours.action.colour, "typical");
  for (const over of STATUSES) {
    const measured = ciede2000(seenByAll(colours[over].colour)[0] as Lab, brand);
    if (measured < BRAND_FLOOR)
      found.push({
        kind: "alike",
        over,
        ground: "action",
        vision: "typical",
        measured,
        owed: BRAND_FLOOR,
        scheme,
        level,
      });
  }
  return found;
}
