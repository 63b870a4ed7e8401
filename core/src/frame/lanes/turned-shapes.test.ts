import { expect, test } from '@jest/globals';
import { emptyPiece, newFigure, newPose, newShift, type Piece, shapePart } from '../../piece';
import { type ShapeSource, withShapeParameter } from '../../shapes';
import { countedIds } from '../../testing/pieces';
import { planPoseShift } from '../plan/part-plans';
import { shiftInput } from './input-of-shift';

const polygon = (sides: number, rotation: number): ShapeSource => ({
  kind: 'polygon',
  x: 360,
  y: 320,
  rotation,
  radius: 200,
  sides,
  rounding: 0,
});
const bar = (rotation: number): ShapeSource => ({
  kind: 'rectangle',
  x: 360,
  y: 320,
  rotation,
  width: 400,
  height: 80,
  radii: [0, 0, 0, 0],
});

function healthOf(from: ShapeSource, to: ShapeSource) {
  const newId = countedIds();
  const parts = [from, to].map((shape) => shapePart(shape, 'Shape', { fill: '#123456', stroke: null }, newId));
  const poses = parts.map(({ id }, i) => newPose(`q${i}`, 'Pose', [id]));
  const shift = newShift('s', 'q0', 'q1');
  const piece: Piece = {
    ...emptyPiece('turned', 'Turned'),
    figures: { f: { ...newFigure('f', 'Figure'), poses: ['q0', 'q1'], rail: ['s'] } },
    figureOrder: ['f'],
    poses: Object.fromEntries(poses.map((pose) => [pose.id, pose])),
    parts: Object.fromEntries(parts.map((part) => [part.id, part])),
    shifts: { s: shift },
  };
  return planPoseShift(shiftInput(piece, shift)).health;
}

test.each([
  ['seven sides at 180° to four at 270°', polygon(7, 180), polygon(4, 270)],
  ['five sides at 0° to five at 36°', polygon(5, 0), polygon(5, 36)],
  ['three sides at 0° to three at 180°', polygon(3, 0), polygon(3, 180)],
  ['eight sides at 0° to five at 180°', polygon(8, 0), polygon(5, 180)],
  ['a bar that lies to one that stands', bar(0), bar(90)],
  ['a bar to one at 135°', bar(0), bar(135)],
  ['a circle-like polygon to a triangle', withShapeParameter(polygon(7, 0), 'sides', 60), polygon(3, 90)],
])('adjustable shapes that are turned otherwise keep their area on the way: %s', (_name, from, to) => {
  const health = healthOf(from, to);
  expect(health.verdict).toBe('good');
  expect(health.evenDip).toBeGreaterThan(0.9);
  expect(health.swell).toBeLessThan(1.1);
});
