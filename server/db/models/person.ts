import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import type { PersonId } from "../../ids.ts";

export class Person extends Model<InferAttributes<Person>, InferCreationAttributes<Person>> {
  declare id: PersonId;
  declare email: string;
  declare name: string;
  declare capability: "administrator" | "reader";
  declare passwordHash: string;
  declare createdAt: CreationOptional<Date>;

  static define(sequelize: Sequelize) {
    Person.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        email: { type: DataTypes.TEXT, allowNull: false },
        name: { type: DataTypes.TEXT, allowNull: false },
        capability: { type: DataTypes.TEXT, allowNull: false },
        passwordHash: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
      },
      { sequelize, tableName: "people" },
    );
  }
}

export class Session extends Model<InferAttributes<Session>, InferCreationAttributes<Session>> {
  declare tokenHash: string;
  declare personId: PersonId;
  declare createdAt: CreationOptional<Date>;
  declare expiresAt: Date;

  static define(sequelize: Sequelize) {
    Session.init(
      {
        tokenHash: { type: DataTypes.TEXT, primaryKey: true },
        personId: { type: DataTypes.UUID, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false, defaultValue: DataTypes.NOW },
        expiresAt: { type: DataTypes.DATE, allowNull: false },
      },
      { sequelize, tableName: "sessions" },
    );
  }
}
