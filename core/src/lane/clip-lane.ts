import { easedKeys, easingSegments } from '../easing';
import type { Blend } from './blend';
import { Lane, levelLane, type Ramp, RampTime } from './lane';

/**
 * A lane as it is between two times in s, from 0 on as most files have it. What lies outside is left out, and of a ramp that reaches over an end the rest stays,
 * with the values that it has there.
 */
export function clipLane(lane: Lane, from: number, until: number): Lane {
  const inside = lane.ramps.filter(({ time }) => time.end > from && time.start < until);
  if (inside.length === 0) {
    const value = new Float64Array(lane.size);
    lane.sample(from, value);
    return levelLane(standing(value));
  }
  const clipped = inside.map((ramp) => clipRamp(ramp, from, until));
  return clipped.every((ramp, i) => ramp === inside[i]) && inside.length === lane.ramps.length
    ? lane
    : new Lane(clipped);
}

/** A ramp as several, one after another, so that one ends and another begins at each of some times in s. */
export function cutRamp(ramp: Ramp, times: readonly number[]): Ramp[] {
  const { start, end } = ramp.time;
  const cuts = times.filter((time) => time > start && time < end).sort((p, q) => p - q);
  if (cuts.length === 0) return [ramp];
  return [start, ...cuts].map((from, i) => clipRamp(ramp, from, cuts[i] ?? end));
}

function clipRamp(ramp: Ramp, from: number, until: number): Ramp {
  const { time, blend } = ramp;
  const [start, end] = [Math.max(from, time.start), Math.min(until, time.end)];
  if (start === time.start && end === time.end) return ramp;
  // Where it bends or jumps, as shares of what is left of it.
  const bends = easedKeys(easingSegments(time.easing), blend.breaks)
    .map((key) => (time.start + (time.end - time.start) * key.time - start) / (end - start))
    .filter((share) => share > 0 && share < 1);
  return {
    time: new RampTime(start, end, { kind: 'linear' }),
    blend: {
      size: blend.size,
      breaks: [...new Set(bends)],
      jumps: blend.jumps,
      still: blend.still,
      write: (progress, out, at) => blend.write(time.progressAt(start + progress * (end - start)), out, at),
    },
  };
}

const standing = (value: Float64Array): Blend => ({
  size: value.length,
  breaks: [],
  jumps: false,
  still: true,
  write: (_progress, out, at) => void out.set(value, at),
});
