import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { Conformance } from "#core/contrast/pairs.ts";
import type { Policy } from "#core/contrast/policy.ts";
import type { Finding } from "#core/contrast/verdict.ts";
import type { ContrastLevel, Role, Scheme } from "#core/theme/roles.ts";
import type { PersonId, ThemeId, WaiverId } from "../../ids.ts";

/** The one row that says what the organisation asks of its themes. */
export class PolicyRow extends Model<
  InferAttributes<PolicyRow>,
  InferCreationAttributes<PolicyRow>
> {
  declare id: 1;
  declare conformance: Conformance;
  declare shortfall: Policy["shortfall"];
  declare waivers: boolean;
  declare changedBy: PersonId;
  declare changedAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    PolicyRow.init(
      {
        id: { type: DataTypes.INTEGER, primaryKey: true },
        conformance: { type: DataTypes.TEXT, allowNull: false },
        shortfall: { type: DataTypes.TEXT, allowNull: false },
        waivers: { type: DataTypes.BOOLEAN, allowNull: false },
        changedBy: { type: DataTypes.UUID, allowNull: false },
        changedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "policies" },
    );
  }
}

export class WaiverRow extends Model<
  InferAttributes<WaiverRow>,
  InferCreationAttributes<WaiverRow>
> {
  declare id: WaiverId;
  declare themeId: ThemeId;
  declare kind: Finding["kind"];
  declare over: Role;
  declare ground: Role;
  declare scheme: Scheme;
  declare level: ContrastLevel;
  declare reason: string;
  declare until: string;
  declare grantedBy: PersonId;
  declare grantedAt: CreationOptional<Date>;
  declare withdrawnAt: CreationOptional<Date | null>;

  static define(sequelize: Sequelize) {
    WaiverRow.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        themeId: { type: DataTypes.UUID, allowNull: false },
        kind: { type: DataTypes.TEXT, allowNull: false },
        over: { type: DataTypes.TEXT, allowNull: false },
        ground: { type: DataTypes.TEXT, allowNull: false },
        scheme: { type: DataTypes.TEXT, allowNull: false },
        level: { type: DataTypes.TEXT, allowNull: false },
        reason: { type: DataTypes.TEXT, allowNull: false },
        until: { type: DataTypes.DATEONLY, allowNull: false },
        grantedBy: { type: DataTypes.UUID, allowNull: false },
        grantedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
        withdrawnAt: { type: DataTypes.DATE },
      },
      { sequelize, tableName: "waivers" },
    );
  }
}
