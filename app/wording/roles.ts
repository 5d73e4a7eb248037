import type { Role, RoleGroup } from "#core/theme/roles.ts";

export const GROUP_WORDS: Record<RoleGroup, string> = {
  grounds: "Grounds and text",
  fields: "Fields",
  frame: "Header, navigation, footer",
  action: "Buttons and emphasis",
  reading: "Links and reading",
  off: "Switched off",
  status: "Messages and status",
  data: "Charts",
};

/** A role's name as people read it. */
export function roleWords(role: Role): string {
  const words = role.replaceAll("-", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
}
