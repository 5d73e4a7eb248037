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
    case "throttled":
      return "The platform turns calls away for now, since there were too many.";
    case "credential-unreadable":
      return "The stored credential can't be read: it was stored under another secret key.";
    case "token-refused":
      return "The platform refuses the tokens that it gives out itself.";
    case "refused":
      return `The platform refused the change: ${fault.reason}.`;
    case "follows-hub":
      return `The site is attached to the hub “${fault.hub}” and shows its palette.`;
    case "feature-off":
      return `Themes are switched off in the settings of “${fault.key}”.`;
    case "names-changed":
      return `Formulas in the app may refer to names that would be gone: ${listed(fault.names)}.`;
    case "too-large":
      return `${fault.name} has ${fault.bytes} bytes; the platform takes ${fault.most}.`;
    case "changed-meanwhile":
      return `Somebody else changed the file of “${fault.file}” at the same moment.`;
    case "not-shown-yet":
      return "The platform has the change, but its pages still show the look before it.";
    case "other-stylesheet":
      return fault.linked === ""
        ? "The application links no stylesheet of Livery's."
        : `The application links another stylesheet: ${fault.linked}.`;
    case "wrong-credential":
      return `The platform refused the password of ${fault.account}.`;
    case "no-right":
      return `${fault.account} is no administrator of ${fault.scope}, so it can't publish there.`;
    case "no-such-place":
      return `The platform has no place “${fault.key}”.`;
    case "name-too-long":
      return `“${fault.name}” has ${fault.name.length} characters; the platform takes ${fault.longest}.`;
    case "name-taken":
      return `The platform already holds other colours under the name “${fault.name}”.`;
    case "slots-missing":
      return `No colour for ${listed(fault.slots)}.`;
    case "read-back-differs":
      return `The platform holds something else than was sent, in ${fault.slots.length === 1 ? "one slot" : `${fault.slots.length} slots`}: ${listed(fault.slots)}.`;
  }
}

/** The kinds of fault in a few words, where there is no room for more. */
export const FAULT_NAMES: Record<Fault["code"], string> = {
  unreachable: "nothing answered",
  "platform-error": "the platform had an error",
  nonsense: "the answer could not be understood",
  throttled: "there were too many calls",
  "credential-unreadable": "the stored credential can't be read",
  "token-refused": "the platform refused its own tokens",
  refused: "the platform refused the change",
  "follows-hub": "the site follows its hub",
  "feature-off": "themes are switched off there",
  "names-changed": "names would be gone",
  "too-large": "a file is too large",
  "changed-meanwhile": "somebody else changed the file",
  "not-shown-yet": "the pages did not show it",
  "other-stylesheet": "another stylesheet is linked",
  "wrong-credential": "the password was refused",
  "no-right": "the account has no right to publish",
  "no-such-place": "there is no such place",
  "name-too-long": "the name is too long",
  "name-taken": "the name is taken",
  "slots-missing": "a slot has no colour",
  "read-back-differs": "something else was found than was sent",
};

const NAMED = 4;

/** Names in a row; of many the first few, and how many more. */
export const listed = (names: readonly string[]): string =>
  names.slice(0, NAMED).join(", ") +
  (names.length > NAMED ? ` and ${names.length - NAMED} more` : "");

/** What to do about it. */
export function remedyWords(fault: Fault): string {
  switch (fault.code) {
    case "unreachable":
      return "Check the address and that the platform is up, then try again.";
    case "platform-error":
    case "nonsense":
    case "token-refused":
      return "Try again later; if it stays so, ask whoever runs the platform.";
    case "wrong-credential":
      return "Enter the right password under “Connection”. Livery stops here so that the account isn't locked.";
    case "credential-unreadable":
      return "Enter it again under Platforms.";
    case "throttled":
      return "Livery waits as long as the platform asks, then goes on by itself.";
    case "refused":
      return "Ask whoever runs the platform what it means, then try again.";
    case "follows-hub":
      return "Deliver to the hub; its sites change with it.";
    case "feature-off":
      return "Switch themes on in the app's settings, then check again.";
    case "names-changed":
      return "Bring the names back, or have the formulas changed first.";
    case "too-large":
      return "Take slots out of the platform's slot map, then release again.";
    case "changed-meanwhile":
      return "Livery looks again and tries once more by itself.";
    case "not-shown-yet":
      return "Livery looks again by itself.";
    case "other-stylesheet":
      return `Paste the lines from “Hosted stylesheet” into the application's settings. It must link ${fault.hosted}.`;
    case "no-right":
      return "Give the account that right on the platform, or enter an administrator's account under “Connection”.";
    case "no-such-place":
      return "Check on the platform what the place is called now.";
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
  place: { clear: "The place is there.", asked: "Is the place there?" },
  name: { clear: "The name fits and is free.", asked: "Does the name fit, and is it free?" },
  feature: {
    clear: "Themes are switched on there.",
    asked: "Are themes switched on there?",
  },
  size: { clear: "Every file fits.", asked: "Does every file fit?" },
  reach: { clear: "It is known who changes with it.", asked: "Who changes with it?" },
  slots: { clear: "Every slot has its colour.", asked: "Has every slot its colour?" },
};
