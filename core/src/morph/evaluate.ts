import { contourNumberCount, type PlanContour, type PlanKeys, type ShiftPlan } from './plan';
import { writeWipe } from './wipe';

/**
 * Progress as the plan follows it: unchanged in 0..1, and outside compressed smoothly towards the plan's overshoot, so that an elastic
 * easing slows down instead of stopping dead.
 */
export function followProgress(progress: number, overshoot: ShiftPlan['overshoot']): number {
  if (progress >= 0 && progress <= 1) return progress;
  const limit = progress > 1 ? overshoot.above : overshoot.below;
  if (!(limit > 0)) return progress > 1 ? 1 : 0;
  const beyond = progress > 1 ? progress - 1 : progress;
  const followed = beyond / (1 + Math.abs(beyond) / limit);
  return progress > 1 ? 1 + followed : followed;
}

/**
 * Writes the in-between at `progress` (0 = first outline, 1 = second; beyond for overshooting easings) as flat x, y in px. Contours that are
 * born or die stay at their end outside 0..1. Allocates nothing when `out` is given; `out` must not be one of the plan's arrays.
 */
export function evaluate(
  plan: ShiftPlan,
  progress: number,
  out: Float64Array = new Float64Array(plan.from.length),
): Float64Array {
  const { from, to, contours } = plan;
  if (progress === 0 || progress === 1) {
    out.set(progress === 0 ? from : to);
    return out;
  }
  const followed = followProgress(progress, plan.overshoot);
  for (let c = 0; c < contours.length; c++) {
    const contour = contours[c];
    const { at, keys } = contour;
    const end = at + contourNumberCount(contour);
    const p = contour.role === 'pair' ? followed : ownProgress(contour, progress);
    if (contour.wipe) writeWipe(contour, contour.wipe, contour.role === 'appears' ? to : from, p, out);
    else if (keys && p > 0 && p < 1) writeBetweenKeys(keys, p, at, end, out);
    else if (keys) writeBeyondKeys(keys, p, at, end, out);
    else for (let i = at; i < end; i++) out[i] = from[i] + (to[i] - from[i]) * p;
    if (contour.joints.length > 0) alignJoints(contour, out);
    if (contour.turns.length > 0) turnJoints(contour, p, out);
  }
  return out;
}

/** Progress of a contour that moves during only a part of the shift. */
function ownProgress(contour: PlanContour, progress: number): number {
  const { begin, end } = contour;
  if (!(progress > begin)) return 0;
  return progress >= end ? 1 : (progress - begin) / (end - begin);
}

function writeBetweenKeys(keys: PlanKeys, p: number, at: number, end: number, out: Float64Array): void {
  const { times, values, slopes } = keys;
  let k = 0;
  while (p > times[k + 1]) k++;
  const width = times[k + 1] - times[k];
  const u = (p - times[k]) / width;
  const v = 1 - u;
  // Hermite's basis.
  const valueA = v * v * (1 + 2 * u);
  const valueB = u * u * (1 + 2 * v);
  const slopeA = width * u * v * v;
  const slopeB = -width * u * u * v;
  const n = end - at;
  let a = k * n;
  let b = a + n;
  for (let i = at; i < end; i++, a++, b++)
    out[i] = valueA * values[a] + slopeA * slopes[a] + valueB * values[b] + slopeB * slopes[b];
}

/** Beyond its ends a contour continues along its slope. */
function writeBeyondKeys(keys: PlanKeys, p: number, at: number, end: number, out: Float64Array): void {
  const n = end - at;
  const last = keys.times.length - 1;
  let k = p < 1 ? 0 : last * n;
  const beyond = p < 1 ? p : p - 1;
  for (let i = at; i < end; i++, k++) out[i] = keys.values[k] + keys.slopes[k] * beyond;
}

/**
 * Gives both handles of a smooth joint one direction. Both are projected onto the line through their ends, so that the joint has no kink and
 * the ends, whose handles lie on one line already, stay as they are.
 */
function alignJoints({ at, joints }: PlanContour, out: Float64Array): void {
  for (let j = 0; j < joints.length; j += 3) {
    const before = at + joints[j];
    const anchor = at + joints[j + 1];
    const after = at + joints[j + 2];
    const ax = out[anchor];
    const ay = out[anchor + 1];
    const ux = out[before] - ax;
    const uy = out[before + 1] - ay;
    const vx = out[after] - ax;
    const vy = out[after + 1] - ay;
    const wx = vx - ux;
    const wy = vy - uy;
    const square = wx * wx + wy * wy;
    const along = ux * wx + uy * wy;
    const on = vx * wx + vy * wy;
    // Handles that do not point away from each other have no common direction.
    if (!(along < 0) || !(on > 0)) continue;
    const k = along / square;
    const l = on / square;
    out[before] = ax + k * wx;
    out[before + 1] = ay + k * wy;
    out[after] = ax + l * wx;
    out[after + 1] = ay + l * wy;
  }
}

/** Sets the handles of joints that turn far: the direction turns evenly from one end to the other, the lengths stay those of the mean. */
function turnJoints({ at, turns }: PlanContour, p: number, out: Float64Array): void {
  for (let j = 0; j < turns.length; j += 5) {
    const before = at + turns[j];
    const anchor = at + turns[j + 1];
    const after = at + turns[j + 2];
    const angle = turns[j + 3] + turns[j + 4] * p;
    const x = Math.cos(angle);
    const y = Math.sin(angle);
    const short = Math.hypot(out[before] - out[anchor], out[before + 1] - out[anchor + 1]);
    const long = Math.hypot(out[after] - out[anchor], out[after + 1] - out[anchor + 1]);
    out[before] = out[anchor] - x * short;
    out[before + 1] = out[anchor + 1] - y * short;
    out[after] = out[anchor] + x * long;
    out[after + 1] = out[anchor + 1] + y * long;
  }
}
