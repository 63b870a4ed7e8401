import type { Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import type { SnapChoices } from '../../state';
import { drawnPiece } from '../../testing/drawn-piece';
import { shownPoses } from '../scene/scene';
import { SnapField, snapAngle } from './snap';

const NONE: SnapChoices = { points: false, outlines: false, centres: false, guides: false, grid: false };
const SQUARE = { d: 'M100 100H200V200H100Z' };
const field = (choices: Partial<SnapChoices>, left: string[] = [], piece: Piece = drawnPiece(SQUARE)): SnapField =>
  new SnapField(piece, shownPoses(piece, null, 0), { ...NONE, ...choices }, new Set(left));

describe('a point snaps', () => {
  test('to nothing when nothing is chosen, or when it is too far', () => {
    expect(field({}).point(101, 101, 1)).toEqual({ x: 101, y: 101, hints: [] });
    expect(field({ points: true }).point(110, 110, 1)).toMatchObject({ x: 110, hints: [] });
  });
  test('to points, by screen px: nearer when zoomed in', () => {
    expect(field({ points: true }).point(104, 97, 1)).toMatchObject({ x: 100, y: 100, hints: [{ axis: 'point' }] });
    expect(field({ points: true }).point(104, 97, 4)).toMatchObject({ x: 104, y: 97 });
  });
  test('to outlines where no point is near', () => {
    expect(field({ outlines: true }).point(150, 103, 1)).toMatchObject({
      x: 150,
      y: 100,
      hints: [{ label: 'outline' }],
    });
  });
  test('to middles and edges of the canvas, each axis by itself', () => {
    expect(field({ centres: true }, ['f0']).point(317, 500, 1)).toMatchObject({
      x: 320,
      y: 500,
      hints: [{ axis: 'x' }],
    });
    expect(field({ centres: true }, ['f0']).point(638, 3, 1)).toMatchObject({ x: 640, y: 0 });
  });
  test('to the centre of a figure, but not of one that moves', () => {
    expect(field({ centres: true }).point(152, 149, 1)).toMatchObject({ x: 150, y: 150 });
    expect(field({ centres: true }, ['f0']).point(152, 149, 1)).toMatchObject({ x: 152, y: 149 });
  });
  test('to guides and to the grid', () => {
    const piece = drawnPiece(SQUARE);
    const aided = { ...piece, aids: { ...piece.aids, guides: [{ id: 'g', axis: 'y' as const, at: 333 }] } };
    expect(field({ guides: true }, [], aided).point(50, 330, 1)).toMatchObject({
      x: 50,
      y: 333,
      hints: [{ label: 'guide' }],
    });
    expect(field({ grid: true }).point(58, 43, 1)).toMatchObject({
      x: 60,
      y: 40,
      hints: [{ label: 'grid' }, { label: 'grid' }],
    });
  });
  test('not to hidden figures', () => {
    const piece = drawnPiece(SQUARE);
    const hidden = { ...piece, figures: { f0: { ...piece.figures.f0, hidden: true } } };
    expect(field({ points: true }, [], hidden).point(101, 101, 1).hints).toEqual([]);
  });
});

describe('a moving box snaps', () => {
  const box = { minX: 0, minY: 0, maxX: 50, maxY: 50 };
  test('by whichever of its edges or its middle is nearest', () => {
    const at = field({ centres: true }, ['f0']);
    expect(at.box(box, 293, 10, 1)).toMatchObject({ x: 295, y: 10 });
    expect(at.box(box, 588, 592, 1)).toMatchObject({ x: 590, y: 590 });
    expect(at.box(box, 100, 100, 1)).toMatchObject({ x: 100, y: 100, hints: [] });
  });
});

test('angles snap to steps, and the length is that along the step', () => {
  const [x, y] = snapAngle(10, 10, 20, 11);
  expect([x, y].map((v) => +v.toFixed(9))).toEqual([20, 10]);
  const [u, v] = snapAngle(0, 0, 10, 9);
  expect(u).toBeCloseTo(v, 9);
  expect(snapAngle(0, 0, 10, 2, 15)[1]).toBeCloseTo(10.174 * Math.sin(Math.PI / 12), 1);
});
