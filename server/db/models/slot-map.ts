import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Platform, SlotMap } from "#connectors/connector.ts";
import type { PersonId } from "../../ids.ts";

/** A platform's slot map where somebody changed it; slots that are left out keep the usual role. */
export class SlotMapRow extends Model<
  InferAttributes<SlotMapRow>,
  InferCreationAttributes<SlotMapRow>
> {
  declare platform: Platform;
  declare slots: SlotMap;
  declare changedBy: PersonId;
  declare changedAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    SlotMapRow.init(
      {
        platform: { type: DataTypes.TEXT, primaryKey: true },
        slots: { type: DataTypes.JSONB, allowNull: false },
        changedBy: { type: DataTypes.UUID, allowNull: false },
        changedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "slot_maps" },
    );
  }
}
