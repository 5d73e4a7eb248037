import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { SlotValues } from "#connectors/connector.ts";
import type { DeliveryId, PlaceId, ReceiptId } from "../../ids.ts";

export class Receipt extends Model<InferAttributes<Receipt>, InferCreationAttributes<Receipt>> {
  declare id: ReceiptId;
  declare deliveryId: DeliveryId;
  declare placeId: PlaceId;
  declare sent: SlotValues;
  declare sentSha256: string;
  declare found: SlotValues;
  declare foundSha256: string;
  declare readAt: Date;

  static define(sequelize: Sequelize) {
    Receipt.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        deliveryId: { type: DataTypes.UUID, allowNull: false },
        placeId: { type: DataTypes.UUID, allowNull: false },
        sent: { type: DataTypes.JSONB, allowNull: false },
        sentSha256: { type: DataTypes.TEXT, allowNull: false },
        found: { type: DataTypes.JSONB, allowNull: false },
        foundSha256: { type: DataTypes.TEXT, allowNull: false },
        readAt: { type: DataTypes.DATE, allowNull: false },
      },
      { sequelize, tableName: "receipts" },
    );
  }
}
