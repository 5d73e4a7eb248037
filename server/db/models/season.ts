import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { PersonId, PlaceId, SeasonId, ThemeId } from "../../ids.ts";

export class SeasonRow extends Model<
  InferAttributes<SeasonRow>,
  InferCreationAttributes<SeasonRow>
> {
  declare id: SeasonId;
  declare placeId: PlaceId;
  declare themeId: ThemeId;
  declare fromDay: string;
  declare untilDay: string;
  /** Whether what it changes is delivered by itself when it begins and when it ends. */
  declare delivers: CreationOptional<boolean>;
  declare begunAt: CreationOptional<Date | null>;
  declare endedAt: CreationOptional<Date | null>;
  declare createdBy: PersonId;
  declare createdAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    SeasonRow.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        placeId: { type: DataTypes.UUID, allowNull: false },
        themeId: { type: DataTypes.UUID, allowNull: false },
        fromDay: { type: DataTypes.DATEONLY, allowNull: false },
        untilDay: { type: DataTypes.DATEONLY, allowNull: false },
        delivers: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true },
        begunAt: { type: DataTypes.DATE },
        endedAt: { type: DataTypes.DATE },
        createdBy: { type: DataTypes.UUID, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "seasons" },
    );
  }
}
