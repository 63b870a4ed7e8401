import { describe, expect, test } from '@jest/globals';
import { evaluate } from '../../morph';
import { contourArea } from '../../outline';
import {
  checkPiece,
  outlineOfPart,
  type Part,
  type Piece,
  type PieceDraft,
  placementMatrix,
  shapePart,
} from '../../piece';
import { adjustableContours, type ShapeSource, shapeBetween, withShapeParameter } from '../../shapes';
import { outlineDistance } from '../../testing/outline-distance';
import { countedIds, pieceBetween } from '../../testing/pieces';
import { shiftInput } from '../lanes/input-of-shift';
import { canGoByNumbers } from './by-numbers';
import { planPoseShift } from './part-plans';

const newId = countedIds();
const SQUARE: ShapeSource = {
  kind: 'rectangle',
  x: 100,
  y: 100,
  rotation: 0,
  width: 120,
  height: 120,
  radii: [0, 0, 0, 0],
};
const shaped = (source: ShapeSource): Part => shapePart(source, 'Shape', { fill: '#204060', stroke: null }, newId);
function pieceOf(from: ShapeSource, to: ShapeSource): Piece {
  const draft = structuredClone(pieceBetween([shaped(from)], [shaped(to)])) as PieceDraft;
  draft.shifts[draft.figures.f.rail[0]].method = 'numbers';
  return checkPiece(JSON.parse(JSON.stringify(draft)));
}
const planOf = (piece: Piece) => planPoseShift(shiftInput(piece, piece.shifts[piece.figures.f.rail[0]]));

describe('a shift by the numbers of a shape', () => {
  test('rounds the corners of a square until it is a disc: each in-between is that very rectangle', () => {
    const disc: ShapeSource = { ...SQUARE, radii: [60, 60, 60, 60] } as ShapeSource;
    const { parts, reasons, health } = planOf(pieceOf(SQUARE, disc));
    const [{ plan }] = parts;
    expect([reasons.map(({ code }) => code), health.verdict]).toEqual([['by-numbers'], 'good']);
    for (const share of [0.13, 0.5, 0.77]) {
      const points = evaluate(plan, share);
      const [wanted] = adjustableContours(shapeBetween(SQUARE, disc, share) as ShapeSource);
      const own = Math.abs(contourArea({ points, closed: true }));
      expect(Math.abs(own - Math.abs(contourArea(wanted)))).toBeLessThan(0.05);
    }
  });
  test('its ends are the outlines of both poses, to a hundredth of a px, placements and turns included', () => {
    const draft = structuredClone(
      pieceOf(SQUARE, { ...SQUARE, x: 160, rotation: 45, width: 60, radii: [10, 0, 20, 5] } as ShapeSource),
    ) as PieceDraft;
    Object.assign(draft.poses.B.placement, { x: 20, scaleX: 1.5, scaleY: 1.5, rotation: 30 });
    const piece = draft as Piece;
    const [{ plan }] = planOf(piece).parts;
    (['A', 'B'] as const).forEach((id, i) => {
      const pose = piece.poses[id];
      const matrix = placementMatrix(pose.placement);
      const outline = outlineOfPart(piece.parts[pose.parts[0]]);
      const [a, b, c, d, e, f] = matrix;
      const wanted = outline.contours.map(({ points, closed }) => ({
        points: points.map((_, k) => {
          const [x, y] = [points[k - (k % 2)], points[k - (k % 2) + 1]];
          return k % 2 === 0 ? a * x + c * y + e : b * x + d * y + f;
        }),
        closed,
      }));
      const end = { contours: [{ points: evaluate(plan, i), closed: true }], fillRule: 'nonzero' as const };
      expect(outlineDistance(end, { contours: wanted, fillRule: 'nonzero' })).toBeLessThan(0.01);
    });
  });
  test('is offered for shapes of one kind alone; what is counted stays a matter of points', () => {
    const polygon: ShapeSource = { kind: 'polygon', x: 0, y: 0, rotation: 0, radius: 50, sides: 5, rounding: 0 };
    const offered = (from: ShapeSource, to: ShapeSource): boolean => {
      const piece = pieceOf(from, to);
      return canGoByNumbers(piece, piece.shifts[piece.figures.f.rail[0]]);
    };
    expect(offered(polygon, withShapeParameter(polygon, 'rounding', 12))).toBe(true);
    expect(offered(polygon, withShapeParameter(polygon, 'sides', 6))).toBe(false);
    expect(offered(polygon, SQUARE)).toBe(false);
    // Where it cannot be, the shift goes as the program would choose.
    const { reasons } = planOf(pieceOf(polygon, SQUARE));
    expect(reasons.some(({ code }) => code === 'by-numbers')).toBe(false);
  });
});
