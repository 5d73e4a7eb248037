import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { PersonId, ThemeId } from "../../ids.ts";

export class Theme extends Model<InferAttributes<Theme>, InferCreationAttributes<Theme>> {
  declare id: ThemeId;
  declare name: string;
  declare createdBy: PersonId;
  declare createdAt: CreationOptional<Date>;
  declare archivedAt: CreationOptional<Date | null>;

  static define(sequelize: Sequelize) {
    Theme.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        name: { type: DataTypes.TEXT, allowNull: false },
        createdBy: { type: DataTypes.UUID, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
        archivedAt: { type: DataTypes.DATE },
      },
      { sequelize, tableName: "themes" },
    );
  }
}
