import * as firstTables from "./0001-first-tables.ts";
import * as archivedThemes from "./0002-archived-themes.ts";
import * as policyAndWaivers from "./0003-policy-and-waivers.ts";
import * as estateAndRollouts from "./0004-estate-and-rollouts.ts";
import * as namesInNaturalOrder from "./0005-names-in-natural-order.ts";

/** Every migration, in the order in which they run. A landed one is never edited. */
export const MIGRATIONS: readonly { name: string; up: string }[] = [
  { name: "0001-first-tables", up: firstTables.up },
  { name: "0002-archived-themes", up: archivedThemes.up },
  { name: "0003-policy-and-waivers", up: policyAndWaivers.up },
  { name: "0004-estate-and-rollouts", up: estateAndRollouts.up },
  { name: "0005-names-in-natural-order", up: namesInNaturalOrder.up },
];
