import { describe, expect, test } from '@jest/globals';
import { motionAt, motionMatrix } from '../../frame';
import { addFigure, addLane, checkPiece, type Piece, type PieceDraft, setLaneAtStop } from '../../piece';
import { countedIds, pieceOf } from '../../testing/pieces';
import { mapPoint } from '../../vec';
import { TRANSFORM_IDS } from '.';
import { skew } from './skew';

/** A square of which one stop has these values. */
function leaning(values: Readonly<Record<string, readonly number[]>>): Piece {
  const newId = countedIds();
  const draft = structuredClone(pieceOf(['M0 0H10V10H0Z'], newId)) as PieceDraft;
  draft.figures.f.middle = [5, 10];
  for (const [property, value] of Object.entries(values))
    setLaneAtStop(draft, 'f', property as 'skew', 0, value, newId);
  return draft as Piece;
}

describe('skew', () => {
  test('leans as skewX of CSS Transforms 1, 12.2: x by the tangent of the angle times the height over the pivot', () => {
    const piece = leaning({ skew: [30] });
    const motion = motionAt(piece, 'f', 0);
    if (!motion) throw new Error('It does not move.');
    const [x, y] = mapPoint(motionMatrix(motion), 0, 0);
    expect([x, y]).toEqual([expect.closeTo(-10 * Math.tan(Math.PI / 6), 9), expect.closeTo(0, 9)]);
    // What is as high as the pivot stays.
    expect(mapPoint(motionMatrix(motion), 3, 10)).toEqual([3, 10]);
  });

  test('comes after the turn and before the scale, in all that draws and writes', () => {
    expect(TRANSFORM_IDS).toEqual(['position', 'turn', 'skew', 'scale']);
    const motion = motionAt(leaning({ skew: [45], turn: [90], scale: [2, 3] }), 'f', 0);
    if (!motion) throw new Error('It does not move.');
    // Scaled to 0, 30 below the pivot; leaning by 45° to 30, 30; turned by 90° to −30, 30.
    expect(mapPoint(motionMatrix(motion), 5, 20).map((v) => Math.round(v))).toEqual([5 - 30, 10 + 30]);
  });

  test('leans the other way in a transform of Lottie, where its axis has to be named', () => {
    expect([skew.step.lottie.say([20]), skew.step.lottie.beside]).toEqual([-20, { sa: 0 }]);
  });

  test('is refused beyond 85°, where a figure is a line', () => {
    expect(checkPiece(leaning({ skew: [85] })).version).toBe(12);
    expect(() => checkPiece(leaning({ skew: [85.1] }))).toThrow('from -85 to 85');
  });

  test('a lane of it is offered for every figure, and changes nothing at first', () => {
    const newId = countedIds();
    const draft = structuredClone(pieceOf(['M0 0H10V10H0Z'], newId)) as PieceDraft;
    addFigure(draft, 'g', 'Other');
    const id = addLane(draft, 'f', 'skew', newId) ?? '';
    expect(draft.lanes[id].keys.map(({ value }) => value)).toEqual([[0]]);
  });
});
