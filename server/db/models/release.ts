import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { PersonId, ReleaseId, ThemeId } from "../../ids.ts";
import type { StoredArtefact } from "../../releases/artefact.ts";

export class Release extends Model<InferAttributes<Release>, InferCreationAttributes<Release>> {
  declare id: ReleaseId;
  declare themeId: ThemeId;
  declare number: number;
  declare name: string;
  declare note: string;
  declare document: ThemeDocument;
  declare artefacts: StoredArtefact[];
  declare createdBy: PersonId;
  declare createdAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    Release.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        themeId: { type: DataTypes.UUID, allowNull: false },
        number: { type: DataTypes.INTEGER, allowNull: false },
        name: { type: DataTypes.TEXT, allowNull: false },
        note: { type: DataTypes.TEXT, allowNull: false },
        document: { type: DataTypes.JSONB, allowNull: false },
        artefacts: { type: DataTypes.JSONB, allowNull: false },
        createdBy: { type: DataTypes.UUID, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "releases" },
    );
  }
}
