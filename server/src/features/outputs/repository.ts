import { Op, UniqueConstraintError } from 'sequelize';
import type { Database } from '../../db/database';

/** What was asked for: `form` and `options` are the page's own, the server only keeps them. */
export interface OutputOrder {
  readonly id: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly label: string;
  readonly choices: readonly {
    readonly form: string;
    readonly name: string;
    readonly options: Record<string, unknown>;
  }[];
  /** ms since 1970. */
  readonly asked: number;
}

/** What came of it. */
export interface OutputResult {
  readonly state: 'made' | 'failed';
  readonly fileName: string;
  readonly note: string;
  readonly problem: string;
  /** Left out where the file was not proved. */
  readonly proof?: Record<string, unknown>;
}

export interface StoredOutput extends OutputOrder {
  readonly result: OutputResult | null;
  /** Bytes of the file; 0 where there is none. */
  readonly size: number;
  readonly hasPictures: boolean;
}

/** The parts of an output that are bytes. */
export const OUTPUT_PARTS = ['file', 'wanted', 'found'] as const;
export type OutputPart = (typeof OUTPUT_PARTS)[number];
const COLUMNS = { file: 'bytes', wanted: 'wanted', found: 'found' } as const;

/** Files that were asked for and made, kept with the piece that they are of. */
export class OutputRepository {
  constructor(private readonly database: Database) {}

  /** All outputs, the oldest first; without their bytes. */
  async list(): Promise<StoredOutput[]> {
    const { sequelize, outputs } = this.database;
    const rows = await outputs.findAll({
      attributes: [
        'order',
        'result',
        [sequelize.fn('length', sequelize.col('bytes')), 'size'],
        [sequelize.fn('length', sequelize.col('found')), 'picture'],
      ],
      order: [
        ['createdAt', 'ASC'],
        ['id', 'ASC'],
      ],
    });
    return rows.map((row) => ({
      ...(JSON.parse(row.order) as OutputOrder),
      result: row.result === null ? null : (JSON.parse(row.result) as OutputResult),
      size: Number(row.get('size') ?? 0),
      hasPictures: Boolean(row.get('picture')),
    }));
  }

  /** Keeps an order; what is kept under its id already stays. */
  async keep(order: OutputOrder, piece: string): Promise<void> {
    try {
      await this.database.outputs.create({
        id: order.id,
        order: JSON.stringify(order),
        piece,
        result: null,
        mediaType: null,
        bytes: null,
        wanted: null,
        found: null,
      });
    } catch (error) {
      if (!(error instanceof UniqueConstraintError)) throw error;
    }
  }

  /** Keeps bytes of an output; whether there is such an output. */
  async keepPart(id: string, part: OutputPart, bytes: Buffer, mediaType: string): Promise<boolean> {
    const change = { [COLUMNS[part]]: bytes, ...(part === 'file' && { mediaType }) };
    const [count] = await this.database.outputs.update(change, { where: { id } });
    return count > 0;
  }

  /** Keeps what came of an order; whether there is such an order. */
  async finish(id: string, result: OutputResult): Promise<boolean> {
    const [count] = await this.database.outputs.update({ result: JSON.stringify(result) }, { where: { id } });
    return count > 0;
  }

  async part(id: string, part: OutputPart): Promise<{ bytes: Buffer; mediaType: string } | undefined> {
    const row = await this.database.outputs.findByPk(id, { attributes: [COLUMNS[part], 'mediaType'] });
    const bytes = row?.[COLUMNS[part]];
    return bytes ? { bytes, mediaType: part === 'file' ? (row?.mediaType ?? '') : 'image/png' } : undefined;
  }

  /** JSON text of the piece as it was when the file was asked for. */
  async piece(id: string): Promise<string | undefined> {
    return (await this.database.outputs.findByPk(id, { attributes: ['piece'] }))?.piece;
  }

  /** Whether there was such an output. */
  async remove(id: string): Promise<boolean> {
    return (await this.database.outputs.destroy({ where: { id } })) > 0;
  }

  /** Removes what was asked for before `date`. */
  async clear(date: Date): Promise<number> {
    return this.database.outputs.destroy({ where: { createdAt: { [Op.lt]: date } } });
  }
}
