import { createHash } from 'node:crypto';
import fs from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { planAndCompile, prepareFrame, sampleFrame } from '../../frame';
import { PIECE_VERSION, type Piece } from '../records/records';
import { pieceDuration } from '../time/rail';
import { checkPiece } from './check-piece';

/** A logo as the program wrote it on its own in each version that ever landed: what was added within a version is there as it was before, too. */
const OLD = JSON.parse(fs.readFileSync(`${__dirname}/../../testing/old-pieces.json`, 'utf8')) as readonly {
  readonly since: string;
  readonly piece: { readonly version: number };
}[];

/** What a piece of a version consists of, as a number: what the schema says without its words. Whoever adds a field gives the format a new number. */
const SHAPE_OF_VERSION: Readonly<Record<number, string>> = { 12: 'b109221d48c619dc' };

describe('piece files of all versions that ever landed', () => {
  test('there is one of each version before this one', () => {
    const versions = new Set(OLD.map(({ piece }) => piece.version));
    expect([...versions].sort((p, q) => p - q)).toEqual(Array.from({ length: PIECE_VERSION - 1 }, (_, k) => k + 1));
  });

  test.each(OLD.map(({ since, piece }) => [since, piece] as const))(
    '%s opens, plays and can be stored',
    (_since, old) => {
      const piece: Piece = checkPiece(structuredClone(old));
      expect(piece.version).toBe(PIECE_VERSION);
      expect(Object.values(piece.poses).map(({ name }) => name)).toEqual(['Wave', 'Sail', 'Lantern']);
      expect(checkPiece(JSON.parse(JSON.stringify(piece)))).toEqual(piece);
      const compiled = planAndCompile(piece);
      const frame = prepareFrame(compiled);
      for (const share of [0, 0.3, 0.6, 0.9]) {
        const { figures } = sampleFrame(compiled, share * compiled.duration, frame);
        expect(figures.flatMap(({ parts }) => parts).length).toBeGreaterThan(0);
      }
      expect(pieceDuration(piece)).toBeGreaterThan(3);
    },
  );

  test('decisions of a match that have another name since version 12 are kept under it', () => {
    const last = OLD.find(({ piece }) => piece.version === 11);
    const old = structuredClone(last?.piece) as unknown as {
      shifts: Record<string, { match: Record<string, unknown> }>;
    };
    const [first] = Object.keys(old.shifts);
    Object.assign(old.shifts[first].match, { softness: 6, turns: 'after' });
    const { match } = checkPiece(old).shifts[first];
    expect(match).toMatchObject({ smoothing: 6, unpairedOrder: 'after' });
    expect(Object.keys(match).filter((name) => name === 'softness' || name === 'turns')).toEqual([]);
  });

  test('the schema is that of this version: a field is never added without a new number', () => {
    const text = fs.readFileSync(`${__dirname}/piece.schema.json`, 'utf8');
    const shape = JSON.stringify(JSON.parse(text), (key, value) =>
      key === 'description' || key === 'title' ? undefined : value,
    );
    expect(createHash('sha256').update(shape).digest('hex').slice(0, 16)).toBe(SHAPE_OF_VERSION[PIECE_VERSION]);
  });
});
