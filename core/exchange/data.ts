import { stringify as stringifyToml } from "smol-toml";
import { stringify as stringifyYaml } from "yaml";
import type { Theme } from "../theme/theme.ts";
import { flatten } from "./flat.ts";

/** A theme as JSON: scales, the steps that hold source colours, and roles by scheme and level. */
export const toJson = (theme: Theme): string => `${JSON.stringify(flatten(theme), null, 2)}\n`;

/** The same as YAML 1.2. */
export const toYaml = (theme: Theme): string =>
  stringifyYaml(flatten(theme), { aliasDuplicateObjects: false });

/** The same as TOML 1.0. */
export const toToml = (theme: Theme): string => `${stringifyToml(flatten(theme))}\n`;
