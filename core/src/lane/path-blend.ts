import { cubicLength, cubicPoint, cubicSpeed, cubicTangent } from '../curve';
import type { Blend } from './blend';

/** A way through the plane: besides its points, which way it runs. */
export interface PathBlend extends Blend {
  /** Direction at a progress, radians clockwise from the right, without jumps along the way. */
  angle(progress: number): number;
}

type Point = readonly [x: number, y: number];

/** Places along the curve whose lengths are measured beforehand. */
const MEASURED = 128;

/**
 * A way from one point to another along a cubic: progress is a share of its arc length, so that how fast it runs is the easing's business alone. Beyond its ends
 * it goes straight on. Arc length by Gauss–Legendre quadrature, its inverse by a table and Newton's method.
 */
export function blendAlong(from: Point, out: Point, into: Point, to: Point): PathBlend {
  const p = Float64Array.of(
    from[0],
    from[1],
    from[0] + out[0],
    from[1] + out[1],
    to[0] + into[0],
    to[1] + into[1],
    to[0],
    to[1],
  );
  const lengths = new Float64Array(MEASURED + 1);
  for (let k = 0; k < MEASURED; k++) lengths[k + 1] = lengths[k] + cubicLength(p, 0, k / MEASURED, (k + 1) / MEASURED);
  const total = lengths[MEASURED];
  const angles = unwrapped(p);
  const parameterAt = (length: number): number => {
    let low = 0;
    let high = MEASURED;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (lengths[middle] <= length) low = middle;
      else high = middle;
    }
    const [start, stretch] = [low / MEASURED, lengths[high] - lengths[low]];
    if (!(stretch > 0)) return start;
    let t = start + (length - lengths[low]) / stretch / MEASURED;
    for (let k = 0; k < 2; k++) {
      const speed = cubicSpeed(p, 0, t);
      if (!(speed > 0)) break;
      t -= (lengths[low] + cubicLength(p, 0, start, t) - length) / speed;
      t = Math.min(1, Math.max(start, t));
    }
    return t;
  };
  const write = (progress: number, target: Float64Array, at: number): void => {
    if (progress <= 0 || progress >= 1) {
      const end = progress <= 0 ? 0 : 6;
      const angle = angles[progress <= 0 ? 0 : MEASURED];
      const beyond = (progress <= 0 ? progress : progress - 1) * total;
      target[at] = p[end] + beyond * Math.cos(angle);
      target[at + 1] = p[end + 1] + beyond * Math.sin(angle);
      return;
    }
    cubicPoint(p, 0, parameterAt(progress * total), target, at);
  };
  return {
    size: 2,
    // The straight lines beyond its ends meet it there.
    breaks: [0, 1],
    jumps: false,
    still: false,
    write,
    angle(progress) {
      if (progress <= 0) return angles[0];
      if (progress >= 1) return angles[MEASURED];
      const at = parameterAt(progress * total) * MEASURED;
      const k = Math.min(MEASURED - 1, Math.floor(at));
      return angles[k] + (angles[k + 1] - angles[k]) * (at - k);
    },
  };
}

/** Directions of a cubic at even parameters, each within half a turn of the one before. */
function unwrapped(p: Float64Array): Float64Array {
  const angles = new Float64Array(MEASURED + 1);
  const tangent = new Float64Array(2);
  for (let k = 0; k <= MEASURED; k++) {
    cubicTangent(p, 0, k / MEASURED, tangent);
    const angle = Math.atan2(tangent[1], tangent[0]);
    angles[k] = k === 0 ? angle : angles[k - 1] + turnBetween(angles[k - 1], angle);
  }
  return angles;
}

/** How far it is from one direction to another by the shorter way, radians. */
export function turnBetween(from: number, to: number): number {
  const round = 2 * Math.PI;
  const turn = (((to - from) % round) + round) % round;
  return turn > Math.PI ? turn - round : turn;
}
