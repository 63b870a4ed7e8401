import { isStraight } from '../../curve';
import { type Contour, contourArea, type Outline, outlineBox, segmentCount, withoutIdleAnchors } from '../../outline';

/** What files round to: points nearer to each other are one, px. */
const ROUNDED_PX = 0.05;

/**
 * An outline as it was before a shift divided it. Without anchors at which a curve was only split, without slits that join a hole to its solid, without cuts
 * through a solid, and without contours that are a point, from which others grow. What is seen stays as it is to some hundredths of a px.
 */
export function plainOutline({ contours, fillRule }: Outline): Outline {
  const idle = (contour: Contour): Contour => withoutIdleAnchors(contour, ROUNDED_PX).contour;
  const plain = contours.filter((contour) => !isPoint(contour)).map(idle);
  const whole = withoutCuts(plain).flatMap(withoutSlits);
  return { contours: whole.length === plain.length ? plain : whole.map(idle), fillRule };
}

/** Contours that lie on both sides of one straight edge become one: the edge was a cut. */
function withoutCuts(contours: readonly Contour[]): Contour[] {
  const left = [...contours];
  for (let a = 0; a < left.length; a++)
    for (let b = a + 1; b < left.length; b++) {
      const joined = joinedAtCut(left[a], left[b]);
      if (!joined) continue;
      left[a] = joined;
      left.splice(b, 1);
      b = a;
    }
  return left;
}

function joinedAtCut(p: Contour, q: Contour): Contour | null {
  if (!p.closed || !q.closed) return null;
  const [n, m] = [segmentCount(p), segmentCount(q)];
  for (let i = 0; i < n; i++) {
    if (!isEdge(p.points, i)) continue;
    for (let j = 0; j < m; j++) {
      if (!isEdge(q.points, j) || !isBack(p.points, i, q.points, j)) continue;
      const [first, second] = [stretchOf(p.points, i + 1, i + n), stretchOf(q.points, j + 1, j + m)];
      const points = new Float64Array(first.length + second.length - 2);
      points.set(first);
      points.set(second.subarray(2), first.length);
      points.copyWithin(points.length - 2, 0, 2);
      return { points, closed: true };
    }
  }
  return null;
}

/** Is a contour as good as a point? */
export function isPoint(contour: Contour): boolean {
  const box = outlineBox({ contours: [contour], fillRule: 'nonzero' });
  return box.maxX - box.minX <= ROUNDED_PX && box.maxY - box.minY <= ROUNDED_PX;
}

const isSame = (p: Float64Array, i: number, q: Float64Array, j: number): boolean =>
  Math.hypot(p[i] - q[j], p[i + 1] - q[j + 1]) <= ROUNDED_PX;

/** Is a segment a straight one that leads somewhere? */
const isEdge = (points: Float64Array, i: number): boolean =>
  isStraight(points, 6 * i, ROUNDED_PX) && !isSame(points, 6 * i, points, 6 * i + 6);

/** Does one segment lead back to where the other comes from? */
const isBack = (p: Float64Array, i: number, q: Float64Array, j: number): boolean =>
  isSame(p, 6 * i, q, 6 * j + 6) && isSame(p, 6 * i + 6, q, 6 * j);

/** The segments of a closed contour from one to before another, which may lie a round further. */
function stretchOf(points: Float64Array, from: number, until: number): Float64Array {
  const n = (points.length - 2) / 6;
  const stretch = new Float64Array(6 * (until - from) + 2);
  for (let k = from; k < until; k++) {
    const at = 6 * (k % n);
    stretch.set(points.subarray(at, at + 8), 6 * (k - from));
  }
  return stretch;
}

/** The loops of a contour that straight edges join, each walked there and back. */
function withoutSlits(contour: Contour): Contour[] {
  const n = segmentCount(contour);
  const { points, closed } = contour;
  if (!closed || n < 6) return [contour];
  for (let i = 0; i < n; i++) {
    if (!isEdge(points, i)) continue;
    for (let j = i + 2; j < n; j++) {
      if (!isEdge(points, j) || !isBack(points, i, points, j)) continue;
      const [inner, outer] = [loopOf(points, i + 1, j), loopOf(points, j + 1, n + i)];
      if (inner && outer) return [...withoutSlits(outer), ...withoutSlits(inner)];
    }
  }
  return [contour];
}

/** The segments from one to before another as a closed contour; null where they enclose nothing. */
function loopOf(points: Float64Array, from: number, until: number): Contour | null {
  if (until - from < 2) return null;
  const loop = stretchOf(points, from, until);
  loop.copyWithin(loop.length - 2, 0, 2);
  const contour: Contour = { points: loop, closed: true };
  return Math.abs(contourArea(contour)) > ROUNDED_PX ? contour : null;
}
