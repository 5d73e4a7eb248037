import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { PersonId, RevisionId, ThemeId } from "../../ids.ts";

export class Draft extends Model<InferAttributes<Draft>, InferCreationAttributes<Draft>> {
  declare themeId: ThemeId;
  declare revision: number;
  declare document: ThemeDocument;
  declare savedBy: PersonId;
  declare savedAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    Draft.init(
      {
        themeId: { type: DataTypes.UUID, primaryKey: true },
        revision: { type: DataTypes.INTEGER, allowNull: false },
        document: { type: DataTypes.JSONB, allowNull: false },
        savedBy: { type: DataTypes.UUID, allowNull: false },
        savedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "drafts" },
    );
  }
}

export class DraftRevision extends Model<
  InferAttributes<DraftRevision>,
  InferCreationAttributes<DraftRevision>
> {
  declare id: RevisionId;
  declare themeId: ThemeId;
  declare basedOn: number;
  declare revision: number | null;
  declare document: ThemeDocument;
  declare savedBy: PersonId;
  declare savedAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    DraftRevision.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        themeId: { type: DataTypes.UUID, allowNull: false },
        basedOn: { type: DataTypes.INTEGER, allowNull: false },
        revision: { type: DataTypes.INTEGER },
        document: { type: DataTypes.JSONB, allowNull: false },
        savedBy: { type: DataTypes.UUID, allowNull: false },
        savedAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "draft_revisions" },
    );
  }
}
