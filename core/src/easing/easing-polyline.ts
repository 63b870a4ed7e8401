import { cubicPoint } from '../curve';
import { type Easing, easingSegments } from './easing';

/** Points taken of each cubic of an easing. */
const SAMPLES = 96;

/**
 * An easing as a polyline whose straight stretches stay within `error` of it: times and progresses, from (0, 0) to (1, 1), each reaching as far as it
 * can. Where progress jumps, two points have one time.
 */
export function easingPolyline(easing: Easing, error: number): readonly (readonly [time: number, progress: number])[] {
  const samples = samplesOf(easingSegments(easing));
  const out: (readonly [number, number])[] = [samples[0]];
  let from = 0;
  while (from < samples.length - 1) {
    let to = from + 1;
    // It goes on past one end that is too far, for the next may be near again; past two it does not.
    for (let next = to + 1; next < samples.length && next <= to + 2; next++)
      if (isNear(samples, from, next, error)) to = next;
    out.push(samples[to]);
    from = to;
  }
  return out;
}

function samplesOf(segments: Float64Array): (readonly [number, number])[] {
  const out: (readonly [number, number])[] = [[segments[0], segments[1]]];
  const point = new Float64Array(2);
  for (let at = 0; at + 7 < segments.length; at += 6) {
    const jump = !(segments[at + 6] > segments[at]);
    for (let i = jump ? SAMPLES : 1; i <= SAMPLES; i++) {
      cubicPoint(segments, at, i / SAMPLES, point);
      out.push([point[0], point[1]]);
    }
  }
  return out;
}

/** Does the straight line between two samples stay within `error` of those between? Nothing is near across a jump. */
function isNear(samples: readonly (readonly [number, number])[], from: number, to: number, error: number): boolean {
  const [t0, p0] = samples[from];
  const [t1, p1] = samples[to];
  if (!(t1 > t0)) return false;
  for (let i = from + 1; i <= to; i++) {
    const [t, p] = samples[i];
    if (!(t > samples[i - 1][0])) return false;
    if (i < to && !(Math.abs(p0 + ((p1 - p0) * (t - t0)) / (t1 - t0) - p) <= error)) return false;
  }
  return true;
}
