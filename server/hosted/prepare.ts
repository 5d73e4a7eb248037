import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";
import type { Transaction } from "sequelize";
import { STYLESHEET } from "#connectors/bollard/bollard.ts";
import { Stylesheet } from "../db/models/index.ts";
import type { ReleaseId } from "../ids.ts";
import type { StoredArtefact } from "../releases/artefact.ts";

/** Compresses a release's stylesheet once, so that no request ever has to. */
export async function prepareStylesheet(
  release: ReleaseId,
  artefacts: readonly StoredArtefact[],
  transaction: Transaction,
): Promise<void> {
  const css = artefacts.find((a) => a.platform === "bollard" && a.name === STYLESHEET);
  if (!css) throw new Error("a release holds no stylesheet");
  const body = Buffer.from(css.body);
  const [zipped, brotli] = await Promise.all([
    promisify(gzip)(body, { level: 9 }),
    promisify(brotliCompress)(body, {
      params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY },
    }),
  ]);
  await Stylesheet.create(
    { releaseId: release, sha256: css.sha256, body, gzip: zipped, brotli },
    { transaction },
  );
}
