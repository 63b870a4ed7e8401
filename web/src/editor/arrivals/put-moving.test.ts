import { emptyPiece, type PieceDraft, type ReadPiece } from '@core';
import { expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { putMoving } from './put-moving';

const read = (): ReadPiece => {
  const piece = structuredClone(pieceOf(['M0 0H10V10H0Z', 'M0 0H20V20H0Z'])) as PieceDraft;
  piece.canvas = { ...piece.canvas, width: 300, height: 200, background: '#ff0000' };
  piece.playback = 'back';
  return { piece, notes: [] };
};

test('the first moving file gives a piece its size and way of playing, not its background', () => {
  const draft = structuredClone(emptyPiece('p', 'P')) as PieceDraft;
  draft.canvas.background = '#123456';
  putMoving(draft, read());
  expect(draft.canvas).toMatchObject({ width: 300, height: 200, background: '#123456' });
  expect([draft.playback, draft.figureOrder]).toEqual(['back', ['f']]);
});

test('one that comes to figures changes neither, lies over them and has a name of its own', () => {
  const draft = structuredClone(pieceOf(['M0 0H10V10H0Z'])) as PieceDraft;
  const before = structuredClone(draft.canvas);
  const moving = read();
  const other = structuredClone(moving.piece) as PieceDraft;
  other.figures = { g: { ...other.figures.f, id: 'g' } };
  other.figureOrder = ['g'];
  putMoving(draft, { ...moving, piece: other });
  expect([draft.canvas, draft.playback, draft.figureOrder]).toEqual([
    before,
    pieceOf(['M0 0H10V10H0Z']).playback,
    ['f', 'g'],
  ]);
  expect(draft.figures.g.name).not.toBe(draft.figures.f.name);
});
