import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Platform } from "#connectors/connector.ts";
import type { ConnectionId } from "../../ids.ts";

export class Connection extends Model<
  InferAttributes<Connection>,
  InferCreationAttributes<Connection>
> {
  declare id: ConnectionId;
  declare platform: Platform;
  declare address: string;
  declare scope: string;
  declare account: string;
  declare secret: string;
  declare name: CreationOptional<string>;
  declare refusedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    Connection.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        platform: { type: DataTypes.TEXT, allowNull: false },
        address: { type: DataTypes.TEXT, allowNull: false },
        scope: { type: DataTypes.TEXT, allowNull: false },
        account: { type: DataTypes.TEXT, allowNull: false },
        secret: { type: DataTypes.TEXT, allowNull: false },
        name: { type: DataTypes.TEXT, allowNull: false, defaultValue: "" },
        refusedAt: { type: DataTypes.DATE },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "connections" },
    );
  }
}
