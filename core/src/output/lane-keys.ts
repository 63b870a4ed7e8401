import { EVEN_THIRDS, type KeySpline } from '../easing';
import { clipLane, cutRamp, type Lane, type Property } from '../lane';
import { SAME_TIME_S } from '../num';
import { rampKeys } from './ramp-keys';
import type { FileRun } from './run-tracks';

/** A value at a time, s, and how it goes on from there to the next. */
export interface WrittenKey {
  readonly time: number;
  readonly value: Float64Array;
  /** 'hold': it stands until the next key, and jumps there. */
  readonly onward: KeySpline | 'hold';
}

/**
 * Keys of a lane over one run of a piece, from 0 on, level before the first and after the last: for formats that name a value, its time, and the curve to the
 * next. A run that goes back is followed by itself turned round; of one that ends with a stretch that plays again, what comes up to its end is taken.
 */
export function laneKeys(lane: Lane, property: Property, rate: number, run: FileRun): WrittenKey[] {
  const end = run.playback === 'stretch' ? run.stretch[1] : run.duration;
  const keys = keysUntil(clipLane(lane, 0, Math.max(end, SAME_TIME_S)), property, rate, run);
  return run.playback === 'back' && keys.length > 1 ? thereAndBack(keys, run.duration) : keys;
}

function keysUntil(lane: Lane, property: Property, rate: number, { playback, stretch }: FileRun): WrittenKey[] {
  const ramps = playback === 'stretch' ? lane.ramps.flatMap((ramp) => cutRamp(ramp, stretch)) : lane.ramps;
  const keys: WrittenKey[] = [];
  const add = (key: WrittenKey): void => {
    const last = keys[keys.length - 1];
    if (last && key.time - last.time < SAME_TIME_S) {
      // A cut: what was before stands up to it.
      keys.pop();
      const before = keys[keys.length - 1];
      // Of three at one time the one between says nothing.
      const between = before !== undefined && key.time - before.time < 2 * SAME_TIME_S;
      if (before && !between && !same(before.value, last.value))
        keys.push({ ...last, time: key.time - SAME_TIME_S, onward: 'hold' });
      else if (before) keys[keys.length - 1] = { ...before, onward: 'hold' };
      else if (key.time > SAME_TIME_S) keys.push({ ...last, time: 0, onward: 'hold' });
    } else if (last && last.onward === EVEN_THIRDS && key.time > last.time && same(last.value, key.value)) {
      const before = keys[keys.length - 2];
      // Three of one value in a row: the one between says nothing.
      if (before && same(before.value, last.value)) keys.pop();
    }
    keys.push(key);
  };
  for (const { start, end, times, values, splines } of ramps.map((ramp) => rampKeys(ramp, property, rate))) {
    const last = keys[keys.length - 1];
    if (last && start > last.time && last.onward !== 'hold')
      add({ time: start, value: last.value, onward: EVEN_THIRDS });
    times.forEach((share, k) => {
      const onward = splines.length === 0 ? 'hold' : k + 1 < times.length ? splines[k + 1] : EVEN_THIRDS;
      add({ time: Math.max(0, start + (end - start) * share), value: values[k], onward });
    });
  }
  const [first] = keys;
  return keys.every(({ value }) => same(value, first.value)) ? [{ ...first, time: 0 }] : keys;
}

const same = (p: Float64Array, q: Float64Array): boolean => p.every((v, i) => v === q[i]);

function thereAndBack(keys: readonly WrittenKey[], duration: number): WrittenKey[] {
  const end = keys[keys.length - 1];
  const there =
    duration - end.time > SAME_TIME_S ? [...keys, { ...end, onward: EVEN_THIRDS, time: duration }] : [...keys];
  const last = there.length - 1;
  /** How the value goes from a key to the one before it. */
  const backFrom = (i: number): WrittenKey['onward'] => {
    const onward = i > 0 ? there[i - 1].onward : EVEN_THIRDS;
    return onward === 'hold' ? 'hold' : turned(onward);
  };
  there[last] = { ...there[last], onward: backFrom(last) };
  const back: WrittenKey[] = [];
  for (let i = last - 1; i >= 0; i--) {
    const { time, value, onward } = there[i];
    // What jumped at the next key jumps back where that key is left, and stands until its own time.
    if (onward === 'hold') back.push({ time: 2 * duration - there[i + 1].time + SAME_TIME_S, value, onward: 'hold' });
    if (onward !== 'hold' || (i > 0 && there[i - 1].onward !== 'hold'))
      back.push({ time: 2 * duration - time, value, onward: backFrom(i) });
  }
  return [...there, ...back];
}

const turned = ([x1, y1, x2, y2]: KeySpline): KeySpline => [1 - x2, 1 - y2, 1 - x1, 1 - y1];
