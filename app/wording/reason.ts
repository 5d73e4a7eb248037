import { shownRatio } from "#core/colour/contrast.ts";
import type { Override } from "#core/theme/override.ts";
import type { Reason } from "#core/theme/reason.ts";
import { roleWords } from "./roles.ts";

/** Where a colour comes from, in two or three words. */
export function sourceWords(reason: Reason): string {
  switch (reason.kind) {
    case "brand":
      return reason.scale === "brand" ? "your colour" : "your accent";
    case "step":
      return `${reason.scale} ${reason.step}`;
    case "tone":
      return `${reason.scale}, off the scale`;
    case "white":
      return "white";
    case "black":
      return "black";
    case "state":
      return `${roleWords(reason.of).toLowerCase()}, ${reason.towards}`;
    case "hue":
      return reason.degrees === 0
        ? `${roleWords(reason.of).toLowerCase()}, shifted`
        : `${roleWords(reason.of).toLowerCase()}, hue +${reason.degrees}°`;
    case "series":
      return "apart from the others";
    case "override":
      return reason.moved ? "by hand, adjusted" : "by hand";
  }
}

/** Why it is this colour, as a sentence. */
export function reasonWords(reason: Reason): string {
  switch (reason.kind) {
    case "brand":
      return reason.scale === "brand" ? "Your brand colour itself." : "Your accent itself.";
    case "step": {
      if (!reason.insteadOf) return `Step ${reason.step} of the ${reason.scale} scale.`;
      const { scale, step, ground, measured, owed } = reason.insteadOf;
      return `Step ${reason.step} of the ${reason.scale} scale, since ${scale} ${step} has only ${shownRatio(measured)}:1 with ${roleWords(ground).toLowerCase()} and needs ${owed}:1.`;
    }
    case "tone":
      return `A ${reason.scale} shade beyond the scale's steps, ${reason.contrastOnWhite}:1 on white.`;
    case "white":
      return "White.";
    case "black":
      return "Black: no step of the scale has contrast enough.";
    case "state":
      return `${roleWords(reason.of)}, made ${reason.towards} so that its text stays readable.`;
    case "hue":
      return `The hue of ${roleWords(reason.of).toLowerCase()}${reason.degrees === 0 ? ", a little stronger" : `, turned by ${reason.degrees}°`}.`;
    case "series":
      return "The colour farthest from the series before it, for every kind of colour vision.";
    case "override":
      return reason.moved
        ? `Set by hand to ${overrideWords(reason.override)}, and adjusted for readers who ask for more contrast.`
        : `Set by hand to ${overrideWords(reason.override)}.`;
  }
}

/** What a role was set to by hand. */
export function overrideWords(override: Override): string {
  switch (override.kind) {
    case "colour":
      return override.alpha === undefined
        ? override.colour
        : `${override.colour} at ${Math.round(override.alpha * 100)} %`;
    case "step":
      return `${override.scale} ${override.step}`;
    case "role":
      return roleWords(override.role).toLowerCase();
  }
}
