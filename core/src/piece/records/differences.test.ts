import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { differencesOf } from './differences';
import type { Piece } from './records';

const piece = pieceOf(['M0 0H10V10H0Z', 'M0 0H20V10H0Z']);
const [pose] = piece.figures.f.poses;
const [part] = piece.poses[pose].parts;
const [shift] = piece.figures.f.rail;
const withPart = (change: Partial<Piece['parts'][string]>): Piece => ({
  ...piece,
  parts: { ...piece.parts, [part]: { ...piece.parts[part], ...change } },
});

describe('what differs between two versions of a piece', () => {
  test('nothing where they are alike, though they are other records', () => {
    expect(differencesOf(piece, JSON.parse(JSON.stringify(piece)))).toEqual([]);
  });

  test.each([
    ['the name', { ...piece, name: 'Quay' }, ['Its name is “Quay”.']],
    ['the canvas', { ...piece, canvas: { ...piece.canvas, width: 99 } }, [/^Its canvas is 99 × /]],
    ['the background', { ...piece, canvas: { ...piece.canvas, background: null } }, ['Its background is see-through.']],
    ['a colour', withPart({ fill: '#123456' }), [/: other colours or strokes\.$/]],
    [
      'a time',
      { ...piece, shifts: { ...piece.shifts, [shift]: { ...piece.shifts[shift], duration: 5 } } },
      [/other times or easing/],
    ],
    ['a figure that is gone', { ...piece, figureOrder: [], figures: {} }, [/^It lacks /]],
  ] as const)('%s', (_, changed, told) => {
    const found = differencesOf(changed as Piece, piece);
    expect(found).toHaveLength(told.length);
    told.forEach((text, i) => expect(found[i]).toMatch(text));
  });
});
