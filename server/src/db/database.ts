import fs from 'node:fs';
import path from 'node:path';
import { Sequelize } from 'sequelize';
import { type AssetModel, defineAssetModel } from './asset-model';
import { type DrawerModel, defineDrawerModel } from './drawer-model';
import { defineEasingModel, type EasingModel } from './easing-model';
import { type FolderLock, lockFolder } from './folder-lock';
import { migrate } from './migrate';
import { defineOutputModel, type OutputModel } from './output-model';
import { definePieceModel, type PieceModel } from './piece-model';

/** How long a statement waits while another program reads or copies the database, ms. */
const BUSY_MS = 5_000;

export interface Database {
  readonly sequelize: Sequelize;
  readonly pieces: PieceModel;
  readonly assets: AssetModel;
  readonly drawer: DrawerModel;
  readonly easings: EasingModel;
  readonly outputs: OutputModel;
  close(): Promise<void>;
}

/**
 * Opens (or makes) the database in `folder` for this process alone, and brings it up to date. ':memory:' for tests.
 *
 * There is one connection, and callers send single statements over it. Statements queue, so writers never collide. (A transaction of Sequelize would open
 * a second connection, which would find the database locked.) Acknowledged writes are on the disk: with the write-ahead log, `synchronous = FULL`
 * calls fsync at every commit ("PRAGMA synchronous", SQLite's documentation).
 * @throws StartError if the folder is in use; errors of SQLite and the file system are passed on
 */
export async function openDatabase(folder: string): Promise<Database> {
  const memory = folder === ':memory:';
  let lock: FolderLock | undefined;
  if (!memory) {
    fs.mkdirSync(folder, { recursive: true });
    lock = await lockFolder(folder);
  }
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: memory ? ':memory:' : path.join(folder, 'arc-shift.sqlite'),
    logging: false,
    pool: { max: 1, min: 1, idle: Number.MAX_SAFE_INTEGER },
  });
  const close = async (): Promise<void> => {
    await sequelize.close();
    await lock?.release();
  };
  try {
    await sequelize.query(`PRAGMA busy_timeout = ${BUSY_MS}`);
    if (!memory) await sequelize.query('PRAGMA journal_mode = WAL');
    await sequelize.query('PRAGMA foreign_keys = ON');
    await sequelize.query('PRAGMA synchronous = FULL');
    await migrate(sequelize);
  } catch (error) {
    await close().catch(() => {});
    throw error;
  }
  const pieces = definePieceModel(sequelize);
  const assets = defineAssetModel(sequelize);
  const drawer = defineDrawerModel(sequelize);
  const easings = defineEasingModel(sequelize);
  const outputs = defineOutputModel(sequelize);
  return { sequelize, pieces, assets, drawer, easings, outputs, close };
}
