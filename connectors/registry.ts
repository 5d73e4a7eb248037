import { commons } from "./commons/commons.ts";
import type { Connector, Platform } from "./connector.ts";

/** The connector of each kind of platform. */
export const CONNECTORS: Record<Platform, Connector> = { commons };
