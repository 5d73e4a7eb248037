import type { Fault, PreflightSubject } from "#connectors/connector.ts";

/** What went wrong with a platform. */
export function faultWords(fault: Fault): string {
  switch (fault.code) {
    case "unreachable":
      return `Nothing answers at ${fault.address}.`;
    case "platform-error":
      return `The platform answered with an error of its own (status ${fault.status}).`;
    case "nonsense":
      return `The platform's answer (${fault.where}) could not be understood.`;
    case "wrong-credential":
      return `The platform refused the password of ${fault.account}.`;
    case "no-right":
      return `${fault.account} is no administrator of ${fault.scope}, so it can't publish there.`;
    case "no-such-place":
      return `The platform has no site “${fault.key}”.`;
    case "name-too-long":
      return `“${fault.name}” has ${fault.name.length} characters; the platform takes ${fault.longest}.`;
    case "name-taken":
      return `The platform already holds other colours under the name “${fault.name}”.`;
    case "slots-missing":
      return `No colour for ${fault.slots.slice(0, 4).join(", ")}${fault.slots.length > 4 ? ` and ${fault.slots.length - 4} more` : ""}.`;
    case "read-back-differs":
      return `The platform holds something else than was sent, in ${fault.slots.length === 1 ? "one slot" : `${fault.slots.length} slots`}: ${fault.slots.slice(0, 4).join(", ")}.`;
  }
}

/** What to do about it. */
export function remedyWords(fault: Fault): string {
  switch (fault.code) {
    case "unreachable":
      return "Check the address and that the platform is up, then try again.";
    case "platform-error":
    case "nonsense":
      return "Try again later; if it stays so, ask whoever runs the platform.";
    case "wrong-credential":
      return "Enter the right password under “Connection”. Livery stops here so that the account isn't locked.";
    case "no-right":
      return "Give the account that right on the platform, or enter an administrator's account under “Connection”.";
    case "no-such-place":
      return "Check on the platform what the site is called now.";
    case "name-too-long":
      return "Make a release with a shorter name.";
    case "name-taken":
      return "Make a release with another name, or remove the old palette on the platform.";
    case "slots-missing":
      return "Release the theme again: its colours for this platform are incomplete.";
    case "read-back-differs":
      return "Deliver again. If it stays so, somebody else changes the palette.";
  }
}

export const PREFLIGHT_WORDS: Record<PreflightSubject, { clear: string; asked: string }> = {
  reachable: { clear: "The platform answers.", asked: "Does the platform answer?" },
  right: { clear: "The account may publish there.", asked: "May the account publish there?" },
  place: { clear: "The site is there.", asked: "Is the site there?" },
  name: { clear: "The name fits and is free.", asked: "Does the name fit, and is it free?" },
  slots: { clear: "Every slot has its colour.", asked: "Has every slot its colour?" },
};
