import type { PieceSummary, SavedPiece } from '@core';
import { Op, UniqueConstraintError } from 'sequelize';
import type { Database } from '../../db/database';
import type { PieceRow } from '../../db/piece-model';

export interface StoredPiece extends PieceSummary {
  /** JSON text of the piece. */
  readonly document: string;
}

/** A row that another program has spoiled must not take the list away. */
const isoOrNull = (date: Date | null): string | null =>
  date instanceof Date && Number.isFinite(date.getTime()) ? date.toISOString() : null;

const summary = (row: PieceRow): PieceSummary => ({
  id: row.id,
  name: row.name,
  revision: row.revision,
  createdAt: isoOrNull(row.createdAt),
  updatedAt: isoOrNull(row.updatedAt),
});

/** Stores pieces; knows nothing of what is in them. */
export class PieceRepository {
  constructor(private readonly database: Database) {}

  /** All pieces that are not in the bin, the latest changed first. */
  async list(): Promise<PieceSummary[]> {
    const rows = await this.database.pieces.findAll({
      attributes: ['id', 'name', 'revision', 'createdAt', 'updatedAt'],
      where: { deletedAt: null },
      order: [
        ['updatedAt', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    return rows.map(summary);
  }

  async find(id: string, binned = false): Promise<StoredPiece | undefined> {
    const row = await this.database.pieces.findOne({ where: { id, deletedAt: binned ? { [Op.ne]: null } : null } });
    return row ? { ...summary(row), document: row.document } : undefined;
  }

  /** Stores a new piece; undefined when the id is taken (also by one in the bin). One statement, so many can be made at once. */
  async create(id: string, name: string, document: string): Promise<PieceSummary | undefined> {
    try {
      return summary(await this.database.pieces.create({ id, name, revision: 1, document, deletedAt: null }));
    } catch (error) {
      if (error instanceof UniqueConstraintError) return undefined;
      throw error;
    }
  }

  /** Replaces a piece if it still has `revision`; undefined otherwise. One statement, so two writers cannot both win. */
  async replace(id: string, revision: number, name: string, document: string): Promise<SavedPiece | undefined> {
    const updatedAt = new Date();
    const [count] = await this.database.pieces.update(
      { name, document, revision: revision + 1, updatedAt },
      { where: { id, revision, deletedAt: null } },
    );
    // The revision that this write made, without looking: the row may have been replaced again since.
    return count === 0 ? undefined : { id, name, revision: revision + 1, updatedAt: updatedAt.toISOString() };
  }

  /** Puts a piece into the bin; false when there is none. */
  async bin(id: string): Promise<boolean> {
    const [count] = await this.database.pieces.update(
      { deletedAt: new Date() },
      { where: { id, deletedAt: null }, silent: true },
    );
    return count > 0;
  }

  /** Takes a piece out of the bin; false when it is not there. */
  async restore(id: string): Promise<boolean> {
    const [count] = await this.database.pieces.update(
      { deletedAt: null },
      { where: { id, deletedAt: { [Op.ne]: null } }, silent: true },
    );
    return count > 0;
  }

  /** Removes for good what was put into the bin before `date`. */
  async emptyBin(date: Date): Promise<number> {
    return this.database.pieces.destroy({ where: { deletedAt: { [Op.lt]: date } } });
  }
}
