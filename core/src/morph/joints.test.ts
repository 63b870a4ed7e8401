import { describe, expect, test } from '@jest/globals';
import { ellipseContour } from '../outline';
import { evaluate } from './evaluate';
import { measureHealth } from './health';
import { farTurns, smoothJoints } from './joints';
import type { ShiftPlan } from './plan';
import { assemble, planRun } from './planned-run';
import { InBetweenProbe } from './probe';
import { stillPlan } from './still-plan';
import { RunTravel } from './travel';

const turned = (points: Float64Array, degrees: number): Float64Array => {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return points.map((v, i) => (i % 2 === 0 ? v * cos - points[i + 1] * sin : points[i - 1] * sin + v * cos));
};
/** A straight run of three segments of these lengths from a place in a direction, degrees. */
function straightRun(x: number, y: number, degrees: number, lengths: readonly number[]): Float64Array {
  const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const numbers = [x, y];
  let far = 0;
  for (const length of lengths) {
    for (let k = 1; k <= 3; k++) numbers.push(x + dx * (far + (length * k) / 3), y + dy * (far + (length * k) / 3));
    far += length;
  }
  return Float64Array.from(numbers);
}
/** How much more the middle of a straight way turns than its ends, in full turns. */
function turningAdded(from: Float64Array, to: Float64Array, closed: boolean): number {
  const travel = new RunTravel(from, to, closed, 100);
  const source = { travel, closed, role: 'pair', a: 0, b: 0, bridgesA: [], bridgesB: [], deviation: 0 } as const;
  const plan = assemble([planRun(source, { method: 'straight', smoothing: 0 })], 'nonzero', 100);
  const probe = new InBetweenProbe(plan, 0.01);
  const at = (p: number): number => {
    probe.take(evaluate(plan, p));
    return probe.turningAlong(0.7) / (2 * Math.PI);
  };
  return Math.max(at(0.3), at(0.5), at(0.7)) - Math.max(at(0), at(1));
}

describe('joints that are smooth at both ends', () => {
  test('are aligned where their handles would not stay on one line, and left alone where they do', () => {
    const circle = ellipseContour(0, 0, 40, 40).points;
    expect(smoothJoints(circle, circle, true, false)).toHaveLength(0);
    expect(smoothJoints(circle, circle, true, true)).toHaveLength(12);
    const ellipse = ellipseContour(0, 0, 60, 20).points;
    // Handles of both are equally long on both sides of each joint: straight ways keep them in line.
    expect(smoothJoints(circle, ellipse, true, false)).toHaveLength(0);
  });

  test('of a shape that turns far with its run have their direction turned', () => {
    const ellipse = ellipseContour(0, 0, 60, 20).points;
    const rows = farTurns(ellipse, turned(ellipse, 160), true);
    expect(rows).toHaveLength(4 * 5);
    for (let j = 0; j < rows.length; j += 5) expect(Math.abs(rows[j + 4])).toBeCloseTo((160 * Math.PI) / 180, 6);
    // Less than 145 degrees is no far turn: there the mean of the handles has a direction.
    expect(farTurns(ellipse, turned(ellipse, 120), true)).toHaveLength(0);
  });

  test('whose turned direction would lie across the run are left alone: it makes no waves', () => {
    // A short run upwards becomes a long one down to the left: half-way it goes down to the left already.
    const from = straightRun(82, 58, -72, [2, 2, 2]);
    const to = straightRun(67, 67, 130, [10, 9, 8]);
    expect(farTurns(from, to, false)).toHaveLength(0);
    expect(turningAdded(from, to, false)).toBeLessThan(0.05);
  });
});

describe('a kink', () => {
  /** Two curves that meet at (50, 50), with handles on both sides of the joint. */
  const plan = (before: [number, number], after: [number, number]): ShiftPlan => {
    const points = Float64Array.from([0, 50, 10, 60, ...before, 50, 50, ...after, 90, 60, 100, 50]);
    const outline = { contours: [{ points, closed: false }], fillRule: 'nonzero' as const };
    const still = stillPlan(outline);
    // Said to be smooth: the handle before, the anchor, the handle after.
    return { ...still, contours: [{ ...still.contours[0], joints: Int32Array.from([4, 6, 8]) }] };
  };

  test('is measured where a joint that is smooth at both ends has two directions', () => {
    // The handle after lies beside the one before, so that no line through both can be taken for their direction.
    const { kink } = measureHealth(plan([40, 50], [30, 51]));
    const wanted = (Math.atan2(1, -20) * 180) / Math.PI;
    expect(kink).toBeCloseTo(wanted, 1);
  });

  test('is none where both handles lie on one line', () => {
    expect(measureHealth(plan([40, 45], [70, 60])).kink).toBeCloseTo(0, 6);
  });
});
