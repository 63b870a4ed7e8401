import path from 'node:path';
import sqlite3 from 'sqlite3';
import { StartError } from '../errors';

/** How long a second server waits for one that is just closing, ms. */
const PATIENCE_MS = 2_000;

/** A data folder that belongs to this process until it is released, or the process ends in whatever way. */
export interface FolderLock {
  release(): Promise<void>;
}

/**
 * Takes a data folder for this process alone. The lock is SQLite's exclusive lock on a small file beside the database. The operating system
 * lets go of it when the process is killed, so nothing stale is ever left behind, and the database itself stays open to backup programs.
 * @throws StartError 'folder-in-use' when another process has it
 */
export async function lockFolder(folder: string): Promise<FolderLock> {
  const file = path.join(folder, 'in-use.lock');
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(file, (error) => (error ? reject(error) : resolve(opened)));
  });
  const close = (): Promise<void> => new Promise((resolve) => database.close(() => resolve()));
  database.configure('busyTimeout', PATIENCE_MS);
  try {
    await new Promise<void>((resolve, reject) =>
      database.exec('BEGIN EXCLUSIVE', (error) => (error ? reject(error) : resolve())),
    );
  } catch (error) {
    await close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new StartError(
      'folder-in-use',
      `Another Arc Shift is at work on the folder ${folder}. Close it, or name another folder in ARC_SHIFT_DATA.`,
    );
  }
  return { release: close };
}
