import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Platform } from "#connectors/connector.ts";
import type { PlaceKind } from "#core/estate/tree.ts";
import type { ConnectionId, PlaceId, ReceiptId, ReleaseId, ThemeId } from "../../ids.ts";

/** A slot in which a platform no longer holds what its receipt says. */
export interface DriftedSlot {
  slot: string;
  expected: string;
  found: string;
}

export class Place extends Model<InferAttributes<Place>, InferCreationAttributes<Place>> {
  declare id: PlaceId;
  declare parentId: PlaceId | null;
  declare kind: PlaceKind;
  declare name: string;
  declare platform: Platform | null;
  declare connectionId: ConnectionId | null;
  declare externalKey: string | null;
  declare page: string | null;
  /** The place's name in addresses. */
  declare slug: string;
  declare themeId: CreationOptional<ThemeId | null>;
  declare locked: CreationOptional<boolean>;
  declare isTest: CreationOptional<boolean>;
  declare retiredAt: CreationOptional<Date | null>;
  declare hostedReleaseId: CreationOptional<ReleaseId | null>;
  declare liveReleaseId: CreationOptional<ReleaseId | null>;
  declare liveReceiptId: CreationOptional<ReceiptId | null>;
  declare checkedAt: CreationOptional<Date | null>;
  declare drift: CreationOptional<DriftedSlot[] | null>;
  declare createdAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    Place.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        parentId: { type: DataTypes.UUID },
        kind: { type: DataTypes.TEXT, allowNull: false },
        name: { type: DataTypes.TEXT, allowNull: false },
        platform: { type: DataTypes.TEXT },
        connectionId: { type: DataTypes.UUID },
        externalKey: { type: DataTypes.TEXT },
        page: { type: DataTypes.TEXT },
        slug: { type: DataTypes.TEXT, allowNull: false },
        themeId: { type: DataTypes.UUID },
        locked: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        isTest: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        retiredAt: { type: DataTypes.DATE },
        hostedReleaseId: { type: DataTypes.UUID },
        liveReleaseId: { type: DataTypes.UUID },
        liveReceiptId: { type: DataTypes.UUID },
        checkedAt: { type: DataTypes.DATE },
        drift: { type: DataTypes.JSONB },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "places" },
    );
  }
}
