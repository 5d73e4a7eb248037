import { createHash } from "node:crypto";
import type { Artefact, Platform, SealedArtefact, SlotMap } from "#connectors/connector.ts";
import { CONNECTORS } from "#connectors/registry.ts";
import { toHex } from "#core/colour/srgb.ts";
import { SCALE_NAMES } from "#core/scale/scales.ts";
import type { ThemeDocument } from "#core/theme/document.ts";
import { CONTRAST_LEVELS, ROLES, SCHEMES } from "#core/theme/roles.ts";
import type { Theme } from "#core/theme/theme.ts";

/** An artefact as a release keeps it: for one platform, or for none in particular. */
export interface StoredArtefact extends SealedArtefact {
  platform: Platform | null;
}

/** SHA-256 in hexadecimal, of text as UTF-8. */
export const sha256 = (bytes: string | Buffer): string =>
  createHash("sha256").update(bytes).digest("hex");

interface Source {
  /** The release's name. */
  name: string;
  theme: Theme;
  document: ThemeDocument;
  slots: Record<Platform, SlotMap>;
}

/** Every file that a release of this theme holds. */
export async function artefactsOf({ slots, ...source }: Source): Promise<StoredArtefact[]> {
  const own = {
    name: "theme.computed.json",
    mediaType: "application/json",
    body: computedJson(source.theme),
    platform: null,
  };
  const forPlatforms = Object.values(CONNECTORS).flatMap((connector) =>
    connector
      .artefacts({ ...source, slots: slots[connector.platform] })
      .map((a) => ({ ...a, platform: connector.platform })),
  );
  const stored: StoredArtefact[] = [];
  for (const { platform, ...artefact } of [own, ...forPlatforms]) {
    const { raster, ...kept } = artefact as Artefact;
    stored.push({ ...kept, platform, sha256: sha256(bytesOf(kept)) });
    if (!raster) continue;
    const png = await draw(kept.body, raster.size);
    stored.push({
      name: raster.name,
      mediaType: "image/png",
      body: png.toString("base64"),
      encoding: "base64",
      platform,
      sha256: sha256(png),
    });
  }
  return stored;
}

/** Draws an SVG as a square PNG. The package is loaded when it is needed: workers never draw. */
async function draw(svg: string, size: number): Promise<Buffer> {
  const { default: sharp } = await import("sharp");
  return sharp(Buffer.from(svg)).resize(size, size).png().toBuffer();
}

/** The bytes that an artefact stands for. */
export const bytesOf = ({ body, encoding }: Artefact): Buffer =>
  Buffer.from(body, encoding ?? "utf8");
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
