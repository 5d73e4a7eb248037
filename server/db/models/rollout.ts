import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { PersonId, RolloutId } from "../../ids.ts";

/** `waiting`: a wave has ended, and the next begins when a person says so. */
export type RolloutState = "scheduled" | "running" | "waiting" | "paused" | "stopped" | "done";

/** What lets the next wave begin: a person, or a wave in which every read-back was clean. */
export type Gate = "person" | "clean";

export class Rollout extends Model<InferAttributes<Rollout>, InferCreationAttributes<Rollout>> {
  declare id: RolloutId;
  declare name: string;
  declare state: RolloutState;
  declare gate: Gate;
  declare wave: CreationOptional<number>;
  declare waves: number;
  declare startsAt: CreationOptional<Date | null>;
  declare requestedBy: PersonId;
  declare requestedAt: CreationOptional<Date>;
  declare finishedAt: CreationOptional<Date | null>;

  static define(sequelize: Sequelize) {
    Rollout.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        name: { type: DataTypes.TEXT, allowNull: false },
        state: { type: DataTypes.TEXT, allowNull: false },
        gate: { type: DataTypes.TEXT, allowNull: false },
        wave: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
        waves: { type: DataTypes.INTEGER, allowNull: false },
        startsAt: { type: DataTypes.DATE },
        requestedBy: { type: DataTypes.UUID, allowNull: false },
        requestedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
        finishedAt: { type: DataTypes.DATE },
      },
      { sequelize, tableName: "rollouts" },
    );
  }
}
