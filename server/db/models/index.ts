import type { Sequelize } from "sequelize";
import { AuditEntry } from "./audit-entry.ts";
import { Connection } from "./connection.ts";
import { Delivery } from "./delivery.ts";
import { Draft, DraftRevision } from "./draft.ts";
import { Person, Session } from "./person.ts";
import { Place } from "./place.ts";
import { PolicyRow, WaiverRow } from "./policy.ts";
import { Receipt } from "./receipt.ts";
import { Release } from "./release.ts";
import { Rollout } from "./rollout.ts";
import { SeasonRow } from "./season.ts";
import { SlotMapRow } from "./slot-map.ts";
import { Stylesheet } from "./stylesheet.ts";
import { Theme } from "./theme.ts";

export const MODELS = [
  Person,
  Session,
  Theme,
  Draft,
  DraftRevision,
  Release,
  Connection,
  Place,
  Delivery,
  Receipt,
  AuditEntry,
  PolicyRow,
  WaiverRow,
  SeasonRow,
  SlotMapRow,
  Rollout,
  Stylesheet,
] as const;

/** Defines every model on a connection, then the relations that lists are joined through. */
export function defineModels(sequelize: Sequelize): void {
  for (const model of MODELS) model.define(sequelize);
  Theme.hasOne(Draft, { foreignKey: "themeId", as: "draft" });
  Theme.hasMany(Release, { foreignKey: "themeId", as: "releases" });
  Release.belongsTo(Theme, { foreignKey: "themeId", as: "theme" });
  Delivery.belongsTo(Release, { foreignKey: "releaseId", as: "release" });
  Delivery.belongsTo(Place, { foreignKey: "placeId", as: "place" });
  Delivery.belongsTo(Rollout, { foreignKey: "rolloutId", as: "rollout" });
  Rollout.belongsTo(Person, { foreignKey: "requestedBy", as: "requester" });
  SeasonRow.belongsTo(Theme, { foreignKey: "themeId", as: "theme" });
  SeasonRow.belongsTo(Place, { foreignKey: "placeId", as: "place" });
  Place.belongsTo(Theme, { foreignKey: "themeId", as: "theme" });
  Place.belongsTo(Release, { foreignKey: "liveReleaseId", as: "liveRelease" });
  Place.belongsTo(Receipt, { foreignKey: "liveReceiptId", as: "liveReceipt" });
  Delivery.belongsTo(Person, { foreignKey: "requestedBy", as: "requester" });
  Delivery.hasOne(Receipt, { foreignKey: "deliveryId", as: "receipt" });
  AuditEntry.belongsTo(Person, { foreignKey: "personId", as: "person" });
  WaiverRow.belongsTo(Person, { foreignKey: "grantedBy", as: "granter" });
  DraftRevision.belongsTo(Person, { foreignKey: "savedBy", as: "author" });
}

export {
  AuditEntry,
  Connection,
  Delivery,
  Draft,
  DraftRevision,
  Person,
  Place,
  PolicyRow,
  Receipt,
  Release,
  Rollout,
  SeasonRow,
  Session,
  SlotMapRow,
  Stylesheet,
  Theme,
  WaiverRow,
};
