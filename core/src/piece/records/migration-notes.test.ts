import { expect, test } from '@jest/globals';
import { migrationNotes } from './migration-notes';

const stored = (version: unknown, turns: readonly number[]): unknown => ({
  version,
  figures: { f: { name: 'Sail', poses: turns.map((_, i) => `q${i}`) } },
  poses: Object.fromEntries(turns.map((rotation, i) => [`q${i}`, { placement: { x: 0, rotation } }])),
});

test('a figure that an older version turned from pose to pose is named, for it spins now', () => {
  expect(migrationNotes(stored(5, [0, 90]))).toEqual([
    '“Sail” spins from pose to pose now: an older version turned outlines in a straight line. The poses look as they did.',
  ]);
});

test('nothing is told of what looks as it did: no turn, the same turn everywhere, a version that spins already', () => {
  expect([stored(5, [0, 0]), stored(5, [30, 30]), stored(6, [0, 90])].map(migrationNotes)).toEqual([[], [], []]);
});

test('whatever is stored is no reason to fail', () => {
  for (const data of [null, 7, [], {}, { version: '5' }, { version: 1, figures: { f: null }, poses: 3 }])
    expect(migrationNotes(data)).toEqual([]);
});
