import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

/** A file that was asked for: the order with its piece, and, when it has been made, what came of it. */
export interface OutputRow extends Model<InferAttributes<OutputRow>, InferCreationAttributes<OutputRow>> {
  id: string;
  /** What was asked for, as JSON. */
  order: string;
  /** The piece as it was when the file was asked for, as JSON. */
  piece: string;
  /** What came of it, as JSON; null as long as nothing has. */
  result: string | null;
  mediaType: string | null;
  bytes: Buffer | null;
  /** Pictures of the moment at which the file is furthest off: the piece's and the file's. */
  wanted: Buffer | null;
  found: Buffer | null;
  createdAt: CreationOptional<Date>;
}

export type OutputModel = ModelStatic<OutputRow>;

export const defineOutputModel = (sequelize: Sequelize): OutputModel =>
  sequelize.define<OutputRow>(
    'Output',
    {
      id: { type: DataTypes.STRING(64), primaryKey: true },
      order: { type: DataTypes.TEXT, allowNull: false },
      piece: { type: DataTypes.TEXT, allowNull: false },
      result: { type: DataTypes.TEXT, allowNull: true },
      mediaType: { type: DataTypes.STRING(80), allowNull: true },
      bytes: { type: DataTypes.BLOB, allowNull: true },
      wanted: { type: DataTypes.BLOB, allowNull: true },
      found: { type: DataTypes.BLOB, allowNull: true },
      createdAt: DataTypes.DATE,
    },
    { tableName: 'outputs', updatedAt: false },
  );
