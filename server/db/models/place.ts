import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Platform } from "#connectors/connector.ts";
import type { ConnectionId, PlaceId } from "../../ids.ts";

export type PlaceKind = "organisation" | "tenant" | "application" | "area";

export class Place extends Model<InferAttributes<Place>, InferCreationAttributes<Place>> {
  declare id: PlaceId;
  declare parentId: PlaceId | null;
  declare kind: PlaceKind;
  declare name: string;
  declare platform: Platform | null;
  declare connectionId: ConnectionId | null;
  declare externalKey: string | null;
  declare page: string | null;
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
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "places" },
    );
  }
}
