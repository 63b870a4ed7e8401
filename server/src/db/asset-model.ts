import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

/** A picture or font, under the SHA-256 of its bytes in hex. */
export interface AssetRow extends Model<InferAttributes<AssetRow>, InferCreationAttributes<AssetRow>> {
  id: string;
  name: string;
  mediaType: string;
  bytes: Buffer;
  createdAt: CreationOptional<Date>;
}

export type AssetModel = ModelStatic<AssetRow>;

export const defineAssetModel = (sequelize: Sequelize): AssetModel =>
  sequelize.define<AssetRow>(
    'Asset',
    {
      id: { type: DataTypes.STRING(64), primaryKey: true },
      name: { type: DataTypes.STRING(200), allowNull: false },
      mediaType: { type: DataTypes.STRING(40), allowNull: false },
      bytes: { type: DataTypes.BLOB, allowNull: false },
      createdAt: DataTypes.DATE,
    },
    { tableName: 'assets', updatedAt: false },
  );
