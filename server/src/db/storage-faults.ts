import path from 'node:path';
import { StartError } from '../errors';

/** The code of SQLite or the file system in an error, also where a library has wrapped it: 'SQLITE_FULL', 'EACCES'. */
export function storageCode(error: unknown): string | undefined {
  for (let at = error, depth = 0; typeof at === 'object' && at !== null && depth < 4; depth++) {
    const { code, parent, original, cause } = at as Record<string, unknown>;
    if (typeof code === 'string') return code;
    at = parent ?? original ?? cause;
  }
  return undefined;
}

const FULL = ['SQLITE_FULL', 'ENOSPC', 'EDQUOT'];
const REFUSED = ['SQLITE_READONLY', 'SQLITE_CANTOPEN', 'SQLITE_PERM', 'SQLITE_IOERR', 'EACCES', 'EPERM', 'EROFS'];
const NO_FOLDER = ['EEXIST', 'ENOTDIR'];
const GARBAGE = ['SQLITE_NOTADB', 'SQLITE_CORRUPT'];

/** What keeps something from being stored: no room, or a folder that cannot be written. Undefined for any other error. */
export function storageFault(error: unknown): 'full' | 'refused' | undefined {
  const code = storageCode(error) ?? '';
  if (FULL.includes(code)) return 'full';
  return REFUSED.includes(code) ? 'refused' : undefined;
}

/** An error met while the database was being opened, as a sentence that says what is wrong and where; undefined for a fault of our own. */
export function startErrorOf(error: unknown, folder: string): StartError | undefined {
  if (error instanceof StartError) return error;
  const code = storageCode(error) ?? '';
  const fault = storageFault(error);
  if (fault === 'full')
    return new StartError('disk-full', `There is no room left on the disk of the data folder ${folder} (${code}).`);
  if (NO_FOLDER.includes(code))
    return new StartError('folder-unusable', `Expected ${folder} to be a folder for the data; it is a file (${code}).`);
  if (fault === 'refused')
    return new StartError(
      'folder-unusable',
      `Expected a data folder that can be written; ${folder} cannot be (${code}). Change its rights, or name another in ARC_SHIFT_DATA.`,
    );
  if (GARBAGE.includes(code))
    return new StartError(
      'database-unreadable',
      `The file ${path.join(folder, 'arc-shift.sqlite')} is no database that can be read (${code}). Put a backup in its place, or move it away to start anew; nothing was changed.`,
    );
  return undefined;
}
