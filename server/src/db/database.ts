import fs from 'node:fs';
import path from 'node:path';
import { Sequelize } from 'sequelize';
import { type AssetModel, defineAssetModel } from './asset-model';
import { type DrawerModel, defineDrawerModel } from './drawer-model';
import { migrate } from './migrate';
import { definePieceModel, type PieceModel } from './piece-model';

export interface Database {
  readonly sequelize: Sequelize;
  readonly pieces: PieceModel;
  readonly assets: AssetModel;
  readonly drawer: DrawerModel;
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
  const assets = defineAssetModel(sequelize);
  const drawer = defineDrawerModel(sequelize);
  return { sequelize, pieces, assets, drawer, close: () => sequelize.close() };
}
