import { cubicPoint } from '../curve';
import { seededRandom } from '../num';
import { type Contour, type Outline, segmentAt, segmentCount } from './contour';

export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

const SAMPLES = 16;

/**
 * The smallest circle around an outline, px (Welzl: Smallest enclosing disks, 1991, in its iterative form). Curves are met at 16 points a
 * cubic, so the radius may be short by up to 0.5 % of a cubic's length. Radius 0 for an outline without contours.
 */
export function enclosingCircle(outline: Outline): Circle {
  const points: [number, number][] = [];
  const out = new Float64Array(2);
  const hides = outline.contours.length > FEW_CONTOURS ? octagonOf(outline) : undefined;
  for (const contour of outline.contours) {
    if (hides && handlesInside(contour, hides)) continue;
    points.push([contour.points[0], contour.points[1]]);
    for (let i = 0; i < segmentCount(contour); i++) {
      for (let k = 1; k <= SAMPLES; k++) {
        cubicPoint(contour.points, segmentAt(i), k / SAMPLES, out);
        points.push([out[0], out[1]]);
      }
    }
  }
  return circleOfPoints(points);
}

/** With fewer contours nothing is gained by leaving some out. */
const FEW_CONTOURS = 16;

/**
 * The polygon of the points that lie furthest in eight directions: what is inside it touches no circle around the outline (Akl and Toussaint: A fast convex hull
 * algorithm, 1978). Corners in turn, x and y.
 */
function octagonOf({ contours }: Outline): number[] {
  const directions = Array.from({ length: 8 }, (_, k) => [Math.cos((k * Math.PI) / 4), Math.sin((k * Math.PI) / 4)]);
  const reach = new Float64Array(8).fill(Number.NEGATIVE_INFINITY);
  const corners = new Array<number>(16).fill(0);
  for (const { points } of contours) {
    for (let i = 0; i < points.length; i += 6) {
      for (let k = 0; k < 8; k++) {
        const far = points[i] * directions[k][0] + points[i + 1] * directions[k][1];
        if (far <= reach[k]) continue;
        reach[k] = far;
        corners[2 * k] = points[i];
        corners[2 * k + 1] = points[i + 1];
      }
    }
  }
  return corners;
}

/** Do all points and handles of a contour lie inside a convex polygon, and with them its curves? */
function handlesInside({ points }: Contour, polygon: readonly number[]): boolean {
  const n = polygon.length;
  for (let i = 0; i < points.length; i += 2) {
    for (let k = 0; k < n; k += 2) {
      const [ax, ay] = [polygon[k], polygon[k + 1]];
      const [bx, by] = [polygon[(k + 2) % n], polygon[(k + 3) % n]];
      if (ax === bx && ay === by) continue;
      // Turning clockwise on screen, the inside lies to the right.
      if (!((bx - ax) * (points[i + 1] - ay) - (by - ay) * (points[i] - ax) > 0)) return false;
    }
  }
  return true;
}

/** The smallest circle around points. */
export function circleOfPoints(points: readonly (readonly [number, number])[]): Circle {
  const random = seededRandom(points.length);
  const p = [...points];
  for (let i = p.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [p[i], p[j]] = [p[j], p[i]];
  }
  let circle: Circle = { x: p[0]?.[0] ?? 0, y: p[0]?.[1] ?? 0, r: 0 };
  const outside = ([x, y]: readonly [number, number]): boolean =>
    Math.hypot(x - circle.x, y - circle.y) > circle.r * (1 + 1e-12) + 1e-12;
  for (let i = 1; i < p.length; i++) {
    if (!outside(p[i])) continue;
    circle = { x: p[i][0], y: p[i][1], r: 0 };
    for (let j = 0; j < i; j++) {
      if (!outside(p[j])) continue;
      circle = onTwo(p[i], p[j]);
      for (let k = 0; k < j; k++) if (outside(p[k])) circle = onThree(p[i], p[j], p[k]) ?? circle;
    }
  }
  return circle;
}

const onTwo = ([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): Circle => ({
  x: (ax + bx) / 2,
  y: (ay + by) / 2,
  r: Math.hypot(bx - ax, by - ay) / 2,
});

function onThree(
  [ax, ay]: readonly [number, number],
  [bx, by]: readonly [number, number],
  [cx, cy]: readonly [number, number],
): Circle | undefined {
  const d = 2 * ((bx - ax) * (cy - ay) - (by - ay) * (cx - ax));
  // Are the three on one line? Then two of them carry the circle already.
  if (d === 0) return undefined;
  const b2 = (bx - ax) ** 2 + (by - ay) ** 2;
  const c2 = (cx - ax) ** 2 + (cy - ay) ** 2;
  const x = ((cy - ay) * b2 - (by - ay) * c2) / d;
  const y = ((bx - ax) * c2 - (cx - ax) * b2) / d;
  return { x: ax + x, y: ay + y, r: Math.hypot(x, y) };
}
