import { describe, expect, test } from '@jest/globals';
import { droppedFiles } from './dropped-files';

const file = (name: string) => ({
  isFile: true,
  isDirectory: false,
  name,
  file: (done: (file: File) => void) => done(new File(['x'], name)),
});
/** A folder whose reader gives its entries in portions of two. */
const folder = (name: string, ...entries: { name: string }[]) => ({
  isFile: false,
  isDirectory: true,
  name,
  createReader: () => {
    let at = 0;
    return {
      readEntries: (done: (entries: unknown[]) => void) => {
        done(entries.slice(at, at + 2));
        at += 2;
      },
    };
  },
});
const drop = (entries: unknown[], files: File[] = []): DataTransfer =>
  ({ items: entries.map((entry) => ({ webkitGetAsEntry: () => entry })), files }) as unknown as DataTransfer;

describe('files of a drop', () => {
  test('a folder gives its drawings, those of folders inside too, in the order of their names', async () => {
    const files = await droppedFiles(
      drop([folder('icons', file('b10.svg'), file('b2.svg'), file('notes.txt'), folder('a', file('c.svg')))]),
    );
    expect(files.map(({ name }) => name)).toEqual(['c.svg', 'b2.svg', 'b10.svg']);
  });

  test('without a folder the files are taken as they are, whatever they are called', async () => {
    const odd = new File(['<svg/>'], 'drawing.txt');
    expect(await droppedFiles(drop([file('drawing.txt')], [odd]))).toEqual([odd]);
  });

  test('an entry that cannot be read is passed over', async () => {
    const broken = { ...file('x.svg'), file: (_done: unknown, failed: () => void) => failed() };
    expect((await droppedFiles(drop([folder('f', broken, file('y.svg'))]))).map(({ name }) => name)).toEqual(['y.svg']);
  });
});
