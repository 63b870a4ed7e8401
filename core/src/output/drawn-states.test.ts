import { describe, expect, test } from '@jest/globals';
import { blendNumbers, Lane, RampTime } from '../lane';
import { drawnStates } from './drawn-states';

const HELD = { beyond: 'held', least: Number.NEGATIVE_INFINITY } as const;
const lane = (...ramps: readonly [start: number, end: number, from: number, to: number][]): Lane =>
  new Lane(
    ramps.map(([start, end, from, to]) => ({
      time: new RampTime(start, end, { kind: 'linear' }),
      blend: blendNumbers([0, from, 0], [0, to, 0], HELD),
    })),
  );
const words = (states: ReturnType<typeof drawnStates>): string =>
  states.map(({ time, state }) => `${time} ${state}`).join(', ');

describe('how much of a stroke is drawn', () => {
  test('nothing before it begins, a part while it grows, the whole from its end on where it closes', () => {
    const grows = lane([1, 2, 0, 1]);
    expect(words(drawnStates(grows, true))).toBe('0 none, 1 part, 2 whole');
    expect(words(drawnStates(grows, false))).toBe('0 none, 1 part');
  });
  test('it goes again the same way, and is nothing from its end on', () => {
    expect(words(drawnStates(lane([1, 2, 0, 1], [3, 4, 1, 0]), true))).toBe('0 none, 1 part, 2 whole, 3 part, 4 none');
  });
  test('what never changes has one state', () => {
    expect(words(drawnStates(lane([0, 0, 0.4, 0.4]), true))).toBe('0 part');
    expect(words(drawnStates(lane([0, 0, 0, 0]), true))).toBe('0 none');
  });
});
