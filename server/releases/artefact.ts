import { createHash } from "node:crypto";
import type { Artefact, Platform } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { toHex } from "#core/colour/srgb.ts";
import { SCALE_NAMES } from "#core/scale/scales.ts";
import { CONTRAST_LEVELS, ROLES, SCHEMES } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";

/** An artefact as a release keeps it: for one platform, or for none in particular. */
export interface StoredArtefact extends Artefact {
  platform: Platform | null;
  sha256: string;
}

export const sha256 = (text: string): string =>
  createHash("sha256").update(text, "utf8").digest("hex");

/** Every file that a release of this theme holds. */
export function artefactsOf(theme: Theme): StoredArtefact[] {
  const own = {
    name: "theme.computed.json",
    mediaType: "application/json",
    body: computedJson(theme),
  };
  const forPlatforms = Object.values(CONNECTORS).flatMap((connector) =>
    connector.artefacts(theme).map((a) => ({ ...a, platform: connector.platform })),
  );
  return [{ ...own, platform: null }, ...forPlatforms].map((a) => ({
    ...a,
    sha256: sha256(a.body),
  }));
}

/** Everything computed from a theme, with where each colour came from. */
function computedJson(theme: Theme): string {
  const scales = Object.fromEntries(
    SCALE_NAMES.map((name) => {
      const { steps, brandStep } = theme.scales[name];
      const shades = Object.entries(steps).map(([step, colour]) => [step, toHex(colour)]);
      return [name, { brandStep, steps: Object.fromEntries(shades) }];
    }),
  );
  const schemes = Object.fromEntries(
    SCHEMES.flatMap((scheme) =>
      CONTRAST_LEVELS.map((level) => [
        level === "standard" ? scheme : `${scheme}-more`,
        Object.fromEntries(
          ROLES.map((role) => {
            const { colour, reason } = theme.schemes[scheme][level][role];
            return [role, { colour: toHex(colour), reason }];
          }),
        ),
      ]),
    ),
  );
  return JSON.stringify({ scales, schemes, findings: theme.findings }, null, 2);
}
