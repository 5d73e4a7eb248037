import { bollard } from "./bollard/bollard.ts";
import { commons } from "./commons/commons.ts";
import type { Connector, Platform } from "./connector.ts";
import { gangway } from "./gangway/gangway.ts";
import { sluice } from "./sluice/sluice.ts";
import { tidemark } from "./tidemark/tidemark.ts";

export const CONNECTORS: Record<Platform, Connector> = {
  commons,
  sluice,
  gangway,
  bollard,
  tidemark,
};
