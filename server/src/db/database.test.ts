import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { QueryTypes, Sequelize } from 'sequelize';
import { PieceRepository } from '../features/pieces/repository';
import { openDatabase } from './database';
import { startErrorOf, storageFault } from './storage-faults';

let folder: string;
beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-db-'));
});
afterEach(() => fs.rmSync(folder, { recursive: true }));

/** Statements on a database file by another program. */
async function byHand(...statements: string[]): Promise<void> {
  const other = new Sequelize({
    dialect: 'sqlite',
    storage: path.join(folder, 'arc-shift.sqlite'),
    logging: false,
  });
  for (const statement of statements) await other.query(statement);
  await other.close();
}

describe('a data folder', () => {
  test('belongs to one server; the next may have it when the first has closed', async () => {
    const first = await openDatabase(folder);
    await expect(openDatabase(folder)).rejects.toMatchObject({
      code: 'folder-in-use',
      message: expect.stringContaining(folder),
    });
    await first.close();
    await (await openDatabase(folder)).close();
  });

  test('of two that start on a fresh one at once, one has it and the other says so', async () => {
    const [a, b] = await Promise.allSettled([openDatabase(folder), openDatabase(folder)]);
    expect([a.status, b.status].sort()).toEqual(['fulfilled', 'rejected']);
    const lost = a.status === 'rejected' ? a : b;
    expect((lost as PromiseRejectedResult).reason).toMatchObject({ code: 'folder-in-use' });
    for (const one of [a, b]) if (one.status === 'fulfilled') await one.value.close();
  });

  test('is left as it was when a step cannot be done', async () => {
    // A view of that name cannot become a table with an index.
    await byHand('CREATE VIEW drawer AS SELECT 1 AS createdAt');
    await expect(openDatabase(folder)).rejects.toThrow(/drawer/);
    await byHand('DROP VIEW drawer');
    const other = new Sequelize({ dialect: 'sqlite', storage: path.join(folder, 'arc-shift.sqlite'), logging: false });
    const tables = await other.query('SELECT name FROM sqlite_master', { type: QueryTypes.SELECT });
    await other.close();
    expect(tables).toEqual([]);
    await (await openDatabase(folder)).close();
  });

  test('that an older program left half made is finished, and keeps what was in it', async () => {
    const first = await openDatabase(folder);
    await new PieceRepository(first).create('kept', 'Kept', '{}');
    await first.close();
    // Killed between making the tables and writing down that they are made.
    await byHand('DELETE FROM SequelizeMeta', 'DROP TABLE assets', 'DROP INDEX drawer_created_at');
    const second = await openDatabase(folder);
    expect((await new PieceRepository(second).list()).map(({ name }) => name)).toEqual(['Kept']);
    expect(await second.assets.count()).toBe(0);
    await second.close();
  });

  test('waits for a program that holds the database for a moment', async () => {
    const database = await openDatabase(folder);
    const other = new Sequelize({ dialect: 'sqlite', storage: path.join(folder, 'arc-shift.sqlite'), logging: false });
    await other.query('BEGIN IMMEDIATE');
    const made = new PieceRepository(database).create('late', 'Late', '{}');
    await new Promise((resolve) => setTimeout(resolve, 150));
    await other.query('COMMIT');
    expect((await made)?.id).toBe('late');
    await other.close();
    await database.close();
  });
});

describe('what is wrong at the start is one sentence that says where', () => {
  const opened = async (): Promise<string> => {
    const error = await openDatabase(folder).then(
      () => undefined,
      (failure: unknown) => failure,
    );
    return startErrorOf(error, folder)?.message ?? `no sentence for ${String(error)}`;
  };

  test('a database that is garbage', async () => {
    fs.writeFileSync(path.join(folder, 'arc-shift.sqlite'), 'This is a letter to the harbour master. '.repeat(200));
    expect(await opened()).toMatch(/arc-shift\.sqlite is no database that can be read \(SQLITE_NOTADB\)/);
  });

  test('a folder that is a file', async () => {
    fs.rmSync(folder, { recursive: true });
    fs.writeFileSync(folder, '');
    expect(await opened()).toMatch(/to be a folder/);
  });

  // Codes of SQLite ("Result and Error Codes") and of POSIX; wrapped as Sequelize does.
  test.each([
    ['SQLITE_FULL', 'full', /no room left/],
    ['ENOSPC', 'full', /no room left/],
    ['SQLITE_READONLY', 'refused', /can be written/],
    ['EACCES', 'refused', /can be written/],
    ['SQLITE_BUSY', undefined, undefined],
  ])('%s', (code, fault, says) => {
    const wrapped = Object.assign(new Error('failed'), { original: Object.assign(new Error('failed'), { code }) });
    expect(storageFault(wrapped)).toBe(fault);
    const sentence = startErrorOf(wrapped, '/data/here')?.message;
    if (says) expect(sentence).toMatch(says);
    else expect(sentence).toBeUndefined();
    if (says) expect(sentence).toContain('/data/here');
  });
});
