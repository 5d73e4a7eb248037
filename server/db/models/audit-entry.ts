import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { AuditAction } from "../../audit/actions.ts";
import type { PersonId } from "../../ids.ts";

export class AuditEntry extends Model<
  InferAttributes<AuditEntry>,
  InferCreationAttributes<AuditEntry>
> {
  declare id: CreationOptional<string>;
  declare at: CreationOptional<Date>;
  declare personId: PersonId | null;
  declare action: AuditAction;
  declare subjectKind: string;
  declare subjectId: string | null;
  declare detail: Record<string, unknown>;

  static define(sequelize: Sequelize) {
    AuditEntry.init(
      {
        id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
        at: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
        personId: { type: DataTypes.UUID },
        action: { type: DataTypes.TEXT, allowNull: false },
        subjectKind: { type: DataTypes.TEXT, allowNull: false },
        subjectId: { type: DataTypes.UUID },
        detail: { type: DataTypes.JSONB, allowNull: false },
      },
      { sequelize, tableName: "audit_entries" },
    );
  }
}
