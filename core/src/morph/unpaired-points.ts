import { cubicPoint } from '../curve';
import { type Contour, type NearestOnContour, nearestOnContour, segmentAt, segmentCount } from '../outline';
import { convexHull } from '../vec';
import { evaluate } from './evaluate';
import { contourNumberCount, type PlanContour, type ShiftPlan } from './plan';
import { onGrid } from './spline-keys';

/** A contour begins no further than this from all that is there, as a share of the size. */
const REACH = 0.215;
/** Something on the other side that is less than this much further off makes it unclear where a contour could come from. */
const CLEARLY = 1.1;
/** Cosine of the angle beyond which another place lies on the other side. */
const OTHER_SIDE = -0.3;
const DIRECTIONS = 18;

/**
 * The plan with contours that come or go alone growing from, or shrinking to, a point near something that is there at that moment. A point far
 * from everything would be a jump for the eye. The point inside the contour (px) moves towards its nearest neighbour as far as it must, which
 * keeps growing a uniform scaling. One that lies in the middle between several stays, for any of them would look odd. The same plan where none
 * moves. Neither plan is altered.
 */
export function withUnpairedPointsNear(plan: ShiftPlan): ShiftPlan {
  const unpaired = plan.contours.filter(({ role, wipe }) => role !== 'pair' && !wipe);
  if (unpaired.length === 0 || unpaired.length === plan.contours.length) return plan;
  const reach = REACH * leastSize(plan);
  const inBetweens = new Map<number, Float64Array>();
  const inBetweenAt = (progress: number): Float64Array => {
    let inBetween = inBetweens.get(progress);
    if (!inBetween) inBetweens.set(progress, (inBetween = evaluate(plan, progress)));
    return inBetween;
  };
  let moved: { from: Float64Array; to: Float64Array } | undefined;
  for (const contour of unpaired) {
    const numbers = contour.role === 'appears' ? plan.from : plan.to;
    const [x, y] = [numbers[contour.at], numbers[contour.at + 1]];
    const there = others(plan, inBetweenAt(contour.role === 'appears' ? contour.begin : contour.end), contour);
    const near = nearest(there, x, y);
    if (!near || !(near.distance > reach) || isBetween(there, near, x, y)) continue;
    moved ??= { from: plan.from.slice(), to: plan.to.slice() };
    const share = 1 - reach / near.distance;
    const point = [onGrid(x + (near.x - x) * share), onGrid(y + (near.y - y) * share)];
    const end = contour.role === 'appears' ? moved.from : moved.to;
    for (let i = 0; i < contourNumberCount(contour); i++) end[contour.at + i] = point[i & 1];
  }
  return moved ? { ...plan, ...moved } : plan;
}

/** The longer side of a box round both ends, turned so that it is least: the same however the outlines are turned. */
function leastSize({ from, to }: ShiftPlan): number {
  const hull = convexHull(Float64Array.from([...from, ...to]));
  const width = (angle: number): number => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < hull.length; i += 2) {
      const across = hull[i] * c + hull[i + 1] * s;
      if (across < low) low = across;
      if (across > high) high = across;
    }
    return high - low;
  };
  let least = Infinity;
  for (let k = 0; k < DIRECTIONS; k++) {
    const angle = (k * Math.PI) / 2 / DIRECTIONS;
    least = Math.min(least, Math.max(width(angle), width(angle + Math.PI / 2)));
  }
  return least;
}

/** The other contours of an in-between; those that are a point are not there. */
const others = (plan: ShiftPlan, inBetween: Float64Array, self: PlanContour): Contour[] =>
  plan.contours.flatMap((other) => {
    const points = inBetween.subarray(other.at, other.at + contourNumberCount(other));
    const isPoint = points.every((value, i) => value === points[i & 1]);
    return other === self || isPoint ? [] : [{ points, closed: other.closed }];
  });

function nearest(contours: readonly Contour[], x: number, y: number): NearestOnContour | undefined {
  let best: NearestOnContour | undefined;
  for (const contour of contours) best = nearestOnContour(contour, x, y, best?.distance) ?? best;
  return best;
}

/** Is there something on the other side that is about as near? */
function isBetween(contours: readonly Contour[], near: NearestOnContour, x: number, y: number): boolean {
  const far = CLEARLY * near.distance;
  const [nx, ny] = [(near.x - x) / near.distance, (near.y - y) / near.distance];
  const at = new Float64Array(2);
  return contours.some((contour) => {
    for (let i = 0; i < segmentCount(contour); i++)
      for (const t of [0, 0.25, 0.5, 0.75]) {
        cubicPoint(contour.points, segmentAt(i), t, at);
        const [dx, dy] = [at[0] - x, at[1] - y];
        const distance = Math.hypot(dx, dy);
        if (distance < far && dx * nx + dy * ny < OTHER_SIDE * distance) return true;
      }
    return false;
  });
}
