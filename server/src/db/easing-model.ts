import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

/** An easing kept for reuse, as JSON. */
export interface EasingRow extends Model<InferAttributes<EasingRow>, InferCreationAttributes<EasingRow>> {
  id: string;
  name: string;
  easing: string;
  createdAt: CreationOptional<Date>;
}

export type EasingModel = ModelStatic<EasingRow>;

export const defineEasingModel = (sequelize: Sequelize): EasingModel =>
  sequelize.define<EasingRow>(
    'KeptEasing',
    {
      id: { type: DataTypes.STRING(64), primaryKey: true },
      name: { type: DataTypes.STRING(200), allowNull: false },
      easing: { type: DataTypes.TEXT, allowNull: false },
      createdAt: DataTypes.DATE,
    },
    { tableName: 'easings', updatedAt: false },
  );
