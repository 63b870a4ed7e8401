import { type Piece, readPathData, recordOfContour } from '@core';
import { describe, expect, test } from '@jest/globals';
import { drawnPiece, newId } from '../../testing/drawn-piece';
import { type EditTarget, shownPoses } from '../scene/scene';
import { coincident, hitOutline, nearestAnchor, placedAnchors } from './hit-anchors';
import { hitPart, isInside } from './hit-parts';

const RING = { d: 'M100 100H200V200H100ZM130 130V170H170V130Z' };
const LINE = { d: 'M300 100C340 60 360 140 400 100', fill: null, stroke: 10 };
const shown = (piece: Piece) => shownPoses(piece, null, 0);
const targets = (piece: Piece): EditTarget[] => shown(piece).map((pose) => ({ ...pose, targets: pose.parts }));

describe('parts under the pointer', () => {
  test('fills without their holes, strokes within their width, the topmost first', () => {
    const piece = drawnPiece(RING, LINE, { d: 'M180 180H260V260H180Z' });
    const hit = (x: number, y: number): string | undefined => hitPart(shown(piece), x, y, 1)?.shown.figure.id;
    expect([hit(110, 110), hit(150, 150), hit(190, 190), hit(350, 100), hit(350, 112), hit(500, 500)]).toEqual([
      'f0',
      undefined,
      'f2',
      'f1',
      undefined,
      undefined,
    ]);
  });
  test('edges are hit within the slack, in px of the canvas whatever the pose’s scale', () => {
    const piece = drawnPiece(RING);
    const [pose] = Object.values(piece.poses);
    const small = {
      ...piece,
      poses: { [pose.id]: { ...pose, placement: { ...pose.placement, scaleX: 0.1, scaleY: 0.1 } } },
    };
    expect(hitPart(shown(small), 9, 15, 2)?.part.name).toBe('Part 1');
    expect(hitPart(shown(small), 7, 15, 2)).toBeUndefined();
  });
  test('even-odd and nonzero are asked as they fill', () => {
    const part = {
      ...Object.values(drawnPiece(RING).parts)[0],
      contours: readPathData('M0 0H9V9H0ZM3 3H6V6H3Z').contours.map((c) => recordOfContour(c, newId)),
    };
    expect(isInside({ ...part, fillRule: 'nonzero' }, 4, 4)).toBe(true);
    expect(isInside({ ...part, fillRule: 'evenodd' }, 4, 4)).toBe(false);
  });
});

describe('points and places', () => {
  test('the nearest anchor within reach; adjustable parts have none', () => {
    const piece = drawnPiece(RING);
    const anchors = placedAnchors(targets(piece));
    expect(anchors).toHaveLength(8);
    expect(nearestAnchor(anchors, 103, 98, 8)?.index).toBe(0);
    expect(nearestAnchor(anchors, 115, 115, 8)).toBeUndefined();
    const [part] = Object.values(piece.parts);
    const adjustable = {
      ...piece,
      parts: {
        [part.id]: { ...part, source: { kind: 'ellipse' as const, x: 0, y: 0, rotation: 0, width: 9, height: 9 } },
      },
    };
    expect(placedAnchors(targets(adjustable))).toEqual([]);
  });
  test('points that lie on each other are found across figures and placements', () => {
    const piece = drawnPiece({ d: 'M0 0H100V100Z' }, { d: 'M50 50H100V99Z' });
    const pose = Object.values(piece.poses)[1];
    const moved = {
      ...piece,
      poses: {
        ...piece.poses,
        [pose.id]: { ...pose, placement: { ...pose.placement, x: 50, y: 0.5, scaleX: 0.5, scaleY: 0.505 } },
      },
    };
    const all = placedAnchors(targets(moved));
    const corner = all.find(({ x, y }) => x === 100 && y === 100);
    expect(corner).toBeDefined();
    expect(coincident(corner ? [corner] : [], all)).toHaveLength(1);
    const other = placedAnchors(targets(drawnPiece({ d: 'M0 0H100V100Z' }, { d: 'M100 100H200V300Z' })));
    expect(coincident([other[2]], other).map(({ target }) => target.figure.id)).toEqual(['f0', 'f1']);
  });
  test('a place on an outline with its piece and parameter', () => {
    const found = hitOutline(targets(drawnPiece(LINE)), 350, 101, 5);
    expect([found?.segment, found?.t]).toEqual([0, expect.closeTo(0.5, 1)]);
    expect(hitOutline(targets(drawnPiece(LINE)), 350, 120, 5)).toBeUndefined();
    const two = targets(drawnPiece({ d: 'M0 0H100' }, { d: 'M0 6H100' }));
    expect([2, 5].map((y) => hitOutline(two, 50, y, 8)?.target.figure.id)).toEqual(['f0', 'f1']);
  });
});
