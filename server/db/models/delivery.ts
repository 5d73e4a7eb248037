import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Fault } from "#connectors/connector.ts";
import type { DeliveryId, PersonId, PlaceId, ReleaseId } from "../../ids.ts";

/** A delivery is open until it is `delivered` or `failed`. */
export type DeliveryState = "queued" | "delivering" | "delivered" | "failed";

export class Delivery extends Model<InferAttributes<Delivery>, InferCreationAttributes<Delivery>> {
  declare id: DeliveryId;
  declare placeId: PlaceId;
  declare releaseId: ReleaseId;
  declare state: DeliveryState;
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
        releaseId: { type: DataTypes.UUID, allowNull: false },
        state: { type: DataTypes.TEXT, allowNull: false },
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
