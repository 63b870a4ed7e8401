import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

/** A stored piece: the whole document as JSON text, and what lists need. */
export interface PieceRow extends Model<InferAttributes<PieceRow>, InferCreationAttributes<PieceRow>> {
  id: string;
  name: string;
  /** Counts saves; a write must name the one it is based on. */
  revision: number;
  document: string;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
  /** Set while the piece lies in the bin. */
  deletedAt: Date | null;
}

export type PieceModel = ModelStatic<PieceRow>;

export function definePieceModel(sequelize: Sequelize): PieceModel {
  return sequelize.define<PieceRow>(
    'Piece',
    {
      id: { type: DataTypes.STRING(64), primaryKey: true },
      name: { type: DataTypes.STRING(200), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      document: { type: DataTypes.TEXT, allowNull: false },
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
      deletedAt: DataTypes.DATE,
    },
    { tableName: 'pieces' },
  );
}
