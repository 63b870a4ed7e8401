import { describe, expect, test } from '@jest/globals';
import { type Easing, ease } from '../easing';
import { blendChoice, blendNumbers, Lane, PROPERTIES, RampTime } from '../lane';
import { laneKeys, type WrittenKey } from './lane-keys';

const SOFT: Easing = { kind: 'cubic-bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 };
const RUN = { duration: 4, playback: 'once', stretch: [0, 4] } as const;
const ramp = (start: number, end: number, from: number, to: number, easing = SOFT) => ({
  time: new RampTime(start, end, easing),
  blend: blendNumbers([from], [to], PROPERTIES.turn.range),
});

/** What keys say at a time: by the curve to the next, or standing. */
function played(keys: readonly WrittenKey[], seconds: number): number {
  let k = 0;
  while (k + 1 < keys.length && keys[k + 1].time <= seconds) k++;
  const [key, next] = [keys[k], keys[k + 1]];
  if (!next || key.onward === 'hold' || seconds <= key.time) return key.value[0];
  const [x1, y1, x2, y2] = key.onward;
  const way = ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, (seconds - key.time) / (next.time - key.time));
  return key.value[0] + (next.value[0] - key.value[0]) * way;
}

function expectSame(
  lane: Lane,
  run: Parameters<typeof laneKeys>[3],
  until: number,
  at = (t: number): number => t,
): void {
  const keys = laneKeys(lane, PROPERTIES.turn, 60, run);
  keys.forEach(({ time }, k) => expect(time).toBeGreaterThan(k === 0 ? -1e-9 : keys[k - 1].time));
  const out = new Float64Array(1);
  for (let t = 0.0101; t < until; t += 0.0203) {
    lane.sample(at(t), out);
    expect([t, Math.abs(played(keys, t) - out[0]) <= 0.05]).toEqual([t, true]);
  }
}

describe('keys of a lane for formats of keys', () => {
  const lane = new Lane([ramp(0.5, 1.5, 0, 90), ramp(2, 2, 90, 10), ramp(2.5, 3.2, 10, 40)]);

  test('they say what the lane says: ramps, level stretches, and a cut at one time', () => expectSame(lane, RUN, 4));

  test('there and back: the same turned round, a cut at the same place both ways', () =>
    expectSame(lane, { ...RUN, playback: 'back' }, 8, (t) => (t <= 4 ? t : 8 - t)));

  test('of a run that ends with a stretch, what comes up to the end of the stretch', () => {
    const keys = laneKeys(lane, PROPERTIES.turn, 60, { ...RUN, playback: 'stretch', stretch: [1, 3] });
    expect(keys[keys.length - 1].time).toBeLessThanOrEqual(3);
    expectSame(lane, { ...RUN, playback: 'stretch', stretch: [1, 3] }, 3);
  });

  test('what begins before the run or ends after it is cut to it', () =>
    expectSame(new Lane([ramp(-1, 1, 0, 50), ramp(3, 9, 50, 0)]), RUN, 4));

  test('of several values at one time two keys are left: what was up to then, and what is from then on', () => {
    const cuts = new Lane([ramp(1, 2, 0, 30), ramp(2, 2, 30, 50), ramp(2, 2, 50, 70), ramp(2, 3, 70, 90)]);
    const keys = laneKeys(cuts, PROPERTIES.turn, 60, RUN).filter(({ time }) => Math.abs(time - 2) < 1e-4);
    expect(keys.map(({ value }) => value[0])).toEqual([30, 70]);
    expectSame(cuts, RUN, 4);
  });

  test('what never changes is one key, and a choice holds', () => {
    const still = laneKeys(new Lane([ramp(1, 2, 5, 5), ramp(2, 3, 5, 5)]), PROPERTIES.turn, 60, RUN);
    expect(still.map(({ time, value }) => [time, value[0]])).toEqual([[0, 5]]);
    const choice = new Lane([{ time: new RampTime(1, 2, { kind: 'linear' }), blend: blendChoice(0, 1) }]);
    expect(laneKeys(choice, PROPERTIES.cap, 60, RUN).map(({ onward }) => onward)).toEqual(['hold', 'hold']);
  });
});
