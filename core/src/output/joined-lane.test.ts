import { expect, test } from '@jest/globals';
import { blendNumbers, FormulaLane, Lane, type Ramp, RampTime } from '../lane';
import { joinedLane } from './joined-lane';

const ramp = (start: number, end: number, from: number, to: number): Ramp => ({
  time: new RampTime(start, end, { kind: 'linear' }),
  blend: blendNumbers([from], [to], { beyond: 'on', least: -Infinity }),
});
const at = (lane: Lane, seconds: number): number[] => {
  const out = new Float64Array(lane.size);
  lane.sample(seconds, out);
  return [...out];
};

test('lanes that share their ramps are one lane of those ramps', () => {
  const [p, q] = [ramp(1, 2, 0, 10), ramp(1, 2, 5, 6)];
  const joined = joinedLane([new Lane([p]), new Lane([{ ...q, time: p.time }])]);
  expect(joined).not.toBeInstanceOf(FormulaLane);
  expect([joined.ramps.length, at(joined, 1.5)]).toEqual([1, [5, 5.5]]);
});

test('others lie side by side: each has its own value at every time, and each bend is known', () => {
  const joined = joinedLane([new Lane([ramp(0, 1, 0, 10), ramp(2, 3, 10, 0)]), new Lane([ramp(0.5, 2.5, 4, 8)])]);
  for (const [seconds, wanted] of [
    [0.25, [2.5, 4]],
    [1.5, [10, 6]],
    [2.75, [2.5, 8]],
  ] as const)
    at(joined, seconds).forEach((v, i) => {
      expect(v).toBeCloseTo(wanted[i], 9);
    });
  expect(joined.ramps.map(({ time }) => time.start)).toEqual([0, 0.5, 1, 2, 2.5]);
});
