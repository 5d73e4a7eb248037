import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Fault } from "#connectors/connector.ts";
import type { DeliveryId, PersonId, PlaceId, ReleaseId, RolloutId } from "../../ids.ts";

/** A delivery is planned until its wave begins, and open until it is delivered, failed or stopped. */
export type DeliveryState =
  | "planned"
  | "queued"
  | "delivering"
  | "delivered"
  | "failed"
  | "stopped";

export class Delivery extends Model<InferAttributes<Delivery>, InferCreationAttributes<Delivery>> {
  declare id: DeliveryId;
  declare placeId: PlaceId;
  /** Null: back to the look that the platform has by itself. */
  declare releaseId: ReleaseId | null;
  declare rolloutId: CreationOptional<RolloutId | null>;
  declare wave: CreationOptional<number>;
  declare previousReleaseId: CreationOptional<ReleaseId | null>;
  declare state: DeliveryState;
  /** How often it ended in a fault that may pass; waits that a platform asked for are not counted. */
  declare failures: CreationOptional<number>;
  declare attempt: CreationOptional<number>;
  declare failure: CreationOptional<Fault | null>;
  declare retryAt: CreationOptional<Date | null>;
  declare requestedBy: PersonId;
  declare requestedAt: CreationOptional<Date>;
  declare finishedAt: CreationOptional<Date | null>;

  static define(sequelize: Sequelize) {
    Delivery.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        placeId: { type: DataTypes.UUID, allowNull: false },
        releaseId: { type: DataTypes.UUID },
        rolloutId: { type: DataTypes.UUID },
        wave: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
        previousReleaseId: { type: DataTypes.UUID },
        state: { type: DataTypes.TEXT, allowNull: false },
        failures: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
        attempt: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
        failure: { type: DataTypes.JSONB },
        retryAt: { type: DataTypes.DATE },
        requestedBy: { type: DataTypes.UUID, allowNull: false },
        requestedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
        finishedAt: { type: DataTypes.DATE },
      },
      { sequelize, tableName: "deliveries" },
    );
  }
}
