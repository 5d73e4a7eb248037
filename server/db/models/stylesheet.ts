import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { ReleaseId } from "../../ids.ts";

/** A release's hosted stylesheet with its compressed forms, made once. */
export class Stylesheet extends Model<
  InferAttributes<Stylesheet>,
  InferCreationAttributes<Stylesheet>
> {
  declare releaseId: ReleaseId;
  /** Of the uncompressed bytes, in hexadecimal. */
  declare sha256: string;
  declare body: Buffer;
  declare gzip: Buffer;
  declare brotli: Buffer;

  static define(sequelize: Sequelize) {
    Stylesheet.init(
      {
        releaseId: { type: DataTypes.UUID, primaryKey: true },
        sha256: { type: DataTypes.TEXT, allowNull: false },
        body: { type: DataTypes.BLOB, allowNull: false },
        gzip: { type: DataTypes.BLOB, allowNull: false },
        brotli: { type: DataTypes.BLOB, allowNull: false },
      },
      { sequelize, tableName: "stylesheets" },
    );
  }
}
