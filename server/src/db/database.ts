import fs from 'node:fs';
import path from 'node:path';
import { Sequelize } from 'sequelize';
import { migrate } from './migrate';
import { definePieceModel, type PieceModel } from './piece-model';

export interface Database {
  readonly sequelize: Sequelize;
  readonly pieces: PieceModel;
  close(): Promise<void>;
}

/** Opens (or makes) the database in `folder`, with write-ahead log and foreign keys, and brings it up to date. ':memory:' for tests. */
export async function openDatabase(folder: string): Promise<Database> {
  const memory = folder === ':memory:';
  if (!memory) fs.mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: memory ? ':memory:' : path.join(folder, 'arc-shift.sqlite'),
    logging: false,
    // One connection: SQLite writes one at a time, and pragmas belong to a connection.
    pool: { max: 1, min: 1, idle: Number.MAX_SAFE_INTEGER },
  });
  if (!memory) await sequelize.query('PRAGMA journal_mode = WAL');
  await sequelize.query('PRAGMA foreign_keys = ON');
  await sequelize.query('PRAGMA synchronous = NORMAL');
  await migrate(sequelize);
  const pieces = definePieceModel(sequelize);
  return { sequelize, pieces, close: () => sequelize.close() };
}
