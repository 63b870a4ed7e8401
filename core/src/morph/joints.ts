import { SMOOTH_JOINT_RAD } from '../num';

/** Handles are in the same ratio at both ends when they agree to this share: then straight ways keep them in line by themselves. */
const SAME_RATIO = 0.01;
/** Directions at both ends are the same below this angle, rad. */
const SAME_DIRECTION = 0.002;
/** A joint that turns further than this between the ends, rad, has its direction turned instead of its handles averaged. */
const FAR_TURN = (145 * Math.PI) / 180;

/**
 * Joints of two runs of n segments that are smooth in both and would not stay so on straight ways: handle before, anchor, handle after, three
 * indices of numbers each. `every` lists those too that would stay smooth.
 */
export function smoothJoints(from: Float64Array, to: Float64Array, closed: boolean, every: boolean): Int32Array {
  const last = from.length - 2;
  const out: number[] = [];
  const first = closed ? 0 : 6;
  for (let anchor = first; anchor < last; anchor += 6) {
    const before = anchor === 0 ? last - 2 : anchor - 2;
    const after = anchor + 2;
    const a = jointAt(from, before, anchor, after);
    const b = jointAt(to, before, anchor, after);
    if (!a || !b) continue;
    const turned = Math.abs(turnOf(a, b));
    if (!every && turned > FAR_TURN) continue;
    if (!every && (Math.abs(a.share - b.share) <= SAME_RATIO || turned <= SAME_DIRECTION)) continue;
    out.push(before, anchor, after);
  }
  return Int32Array.from(out);
}

/** The joints that `smoothJoints` leaves out because they turn too far for a mean; rows as in `PlanContour.turns`. */
export function farTurns(from: Float64Array, to: Float64Array, closed: boolean): Float64Array {
  const last = from.length - 2;
  const out: number[] = [];
  for (let anchor = closed ? 0 : 6; anchor < last; anchor += 6) {
    const before = anchor === 0 ? last - 2 : anchor - 2;
    const after = anchor + 2;
    const a = jointAt(from, before, anchor, after);
    const b = jointAt(to, before, anchor, after);
    if (!a || !b) continue;
    const turn = turnOf(a, b);
    if (!(Math.abs(turn) > FAR_TURN)) continue;
    const angle = Math.atan2(a.y, a.x);
    if (goesAlong(from, to, anchor, angle, turn, closed)) out.push(before, anchor, after, angle, turn);
  }
  return Float64Array.from(out);
}

/** Moments at which a turned direction must go along the run. */
const MOMENTS = [0.25, 0.5, 0.75] as const;
/** Cosine of the angle between a turned direction and the run's own that still is along it. */
const ALONG = 0.5;

/** Does a direction that turns evenly go along the straight way's chord from the anchor before to the one after? Else it makes waves. */
function goesAlong(
  from: Float64Array,
  to: Float64Array,
  anchor: number,
  angle: number,
  turn: number,
  closed: boolean,
): boolean {
  const last = from.length - 2;
  const before = anchor >= 6 ? anchor - 6 : closed ? last - 6 : anchor;
  const after = anchor + 6 <= last ? anchor + 6 : closed ? 6 : anchor;
  return MOMENTS.every((p) => {
    const between = (i: number): number => from[i] + (to[i] - from[i]) * p;
    const x = between(after) - between(before);
    const y = between(after + 1) - between(before + 1);
    const direction = angle + turn * p;
    return x * Math.cos(direction) + y * Math.sin(direction) >= ALONG * Math.hypot(x, y);
  });
}

const turnOf = (a: { x: number; y: number }, b: { x: number; y: number }): number =>
  Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);

/** Direction and length share of the first handle at a smooth joint; undefined at a corner or without handles. */
function jointAt(
  p: Float64Array,
  before: number,
  anchor: number,
  after: number,
): { x: number; y: number; share: number } | undefined {
  const ux = p[anchor] - p[before];
  const uy = p[anchor + 1] - p[before + 1];
  const vx = p[after] - p[anchor];
  const vy = p[after + 1] - p[anchor + 1];
  const u = Math.hypot(ux, uy);
  const v = Math.hypot(vx, vy);
  if (!(u > 0) || !(v > 0)) return undefined;
  if (!(Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) <= 2 * SMOOTH_JOINT_RAD)) return undefined;
  return { x: (ux + vx) / (u + v), y: (uy + vy) / (u + v), share: u / (u + v) };
}
