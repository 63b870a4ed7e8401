import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

/** An outline kept for reuse, as SVG text. */
export interface DrawerRow extends Model<InferAttributes<DrawerRow>, InferCreationAttributes<DrawerRow>> {
  id: string;
  name: string;
  svg: string;
  createdAt: CreationOptional<Date>;
}

export type DrawerModel = ModelStatic<DrawerRow>;

export const defineDrawerModel = (sequelize: Sequelize): DrawerModel =>
  sequelize.define<DrawerRow>(
    'DrawerShape',
    {
      id: { type: DataTypes.STRING(64), primaryKey: true },
      name: { type: DataTypes.STRING(200), allowNull: false },
      svg: { type: DataTypes.TEXT, allowNull: false },
      createdAt: DataTypes.DATE,
    },
    { tableName: 'drawer', updatedAt: false },
  );
