import { cubicPoint, cubicStretch } from '../curve';
import { bezierSignChanges } from '../num';
import { areaCentre, type Contour, nestingOf, segmentAt, segmentCount } from '../outline';
import type { RunContour } from './joined-contour';
import type { CutPart } from './match';

type Line = readonly [number, number, number, number];

/**
 * A closed contour divided by straight lines (each through both its points, without end), as closed contours whose new edges lie on the
 * lines and run against each other. A line that does not cross a part leaves it whole. Parts come in the order of their centres along
 * the first line's normal.
 */
export const cutContour = (run: RunContour, lines: CutPart['lines']): RunContour[] =>
  cutSolid([run], lines).map(([part]) => part);

/**
 * As `cutContour`, for a solid with holes: `rings` are the solid and, run the other way, its holes. A hole that a line crosses opens into the
 * edges of the parts; one that no line crosses stays in the part round it. Each part is its outer contour and the holes left in it.
 */
export function cutSolid(rings: readonly RunContour[], lines: CutPart['lines']): RunContour[][] {
  let parts: RunContour[][] = [[...rings]];
  for (const line of lines) parts = parts.flatMap((part) => cutPart(part, line));
  if (parts.length < 2) return parts;
  const [x0, y0, x1, y1] = lines[0];
  const along = (part: readonly RunContour[]): number => {
    const centre = areaCentre({ contours: part.map(({ contour }) => contour), fillRule: 'nonzero' });
    return (x1 - x0) * (centre.y - y0) - (y1 - y0) * (centre.x - x0);
  };
  return parts.sort((p, q) => along(p) - along(q));
}

interface Crossing {
  /** Position along the walk: segment + parameter. */
  readonly at: number;
  /** Position along the line. */
  readonly along: number;
}

/** A crossing of one of several rings, and the index of the next one of the same ring. */
interface RingCrossing extends Crossing {
  readonly ring: RunContour;
  readonly next: number;
}

function cutPart(part: RunContour[], line: Line): RunContour[][] {
  const crossings: RingCrossing[] = [];
  for (const ring of part) {
    const own = crossingsWith(ring.contour, line);
    const first = crossings.length;
    crossings.push(...own.map((crossing, k) => ({ ...crossing, ring, next: first + ((k + 1) % own.length) })));
  }
  if (crossings.length < 2 || crossings.length % 2 === 1) return [part];
  // Inside the solid lie the stretches of the line between its first and second crossing, third and fourth, and so on.
  const alongLine = crossings.map((_, i) => i).sort((p, q) => crossings[p].along - crossings[q].along);
  const partner = new Int32Array(crossings.length);
  for (let k = 0; k < alongLine.length; k += 2) {
    partner[alongLine[k]] = alongLine[k + 1];
    partner[alongLine[k + 1]] = alongLine[k];
  }
  const used = new Uint8Array(crossings.length);
  const out: RunContour[][] = [];
  for (let first = 0; first < crossings.length; first++) {
    if (used[first]) continue;
    const points: number[] = [];
    const bridges: number[] = [];
    for (let k = first; !used[k]; ) {
      used[k] = 1;
      const { ring, at, next } = crossings[k];
      walkBetween(ring, at, crossings[next].at, points, bridges);
      // Across the cut.
      const over = partner[next];
      const [x0, y0] = points.slice(-2);
      const target = pointAt(crossings[over].ring.contour, crossings[over].at);
      bridges.push((points.length / 2 - 1) / 3);
      for (let s = 1; s <= 3; s++) points.push(x0 + ((target[0] - x0) * s) / 3, y0 + ((target[1] - y0) * s) / 3);
      k = over;
    }
    points[points.length - 2] = points[0];
    points[points.length - 1] = points[1];
    out.push([{ contour: { points: Float64Array.from(points), closed: true }, bridges }]);
  }
  const outers = out.map(([{ contour }]) => contour);
  for (const ring of part) {
    if (crossings.some((crossing) => crossing.ring === ring)) continue;
    const nesting = nestingOf({ contours: [...outers, ring.contour], fillRule: 'nonzero' });
    out[Math.max(0, nesting[outers.length].parent)].push(ring);
  }
  return out;
}

/** Proper crossings, in the order of the contour. */
function crossingsWith(contour: Contour, [x0, y0, x1, y1]: Line): Crossing[] {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const length = Math.hypot(dx, dy);
  if (!(length > 0)) return [];
  const p = contour.points;
  const side = (i: number): number => (dx * (p[i + 1] - y0) - dy * (p[i] - x0)) / length;
  const out: Crossing[] = [];
  const point = new Float64Array(2);
  for (let i = 0; i < segmentCount(contour); i++) {
    const at = segmentAt(i);
    const [a, b, c, d] = [side(at), side(at + 2), side(at + 4), side(at + 6)];
    for (const t of bezierSignChanges(a, b, c, d)) {
      cubicPoint(p, at, t, point);
      const along = ((point[0] - x0) * dx + (point[1] - y0) * dy) / length;
      out.push({ at: i + t, along });
    }
  }
  return out.sort((q, r) => q.at - r.at);
}

function pointAt(contour: Contour, at: number): [number, number] {
  const out = new Float64Array(2);
  const segment = Math.floor(at);
  cubicPoint(contour.points, segmentAt(segment), at - segment, out);
  return [out[0], out[1]];
}

function walkBetween(
  { contour, bridges }: RunContour,
  from: number,
  to: number,
  points: number[],
  out: number[],
): void {
  const n = segmentCount(contour);
  const end = to > from ? to : to + n;
  const buffer = new Float64Array(8);
  if (points.length === 0) points.push(...pointAt(contour, from));
  for (let segment = Math.floor(from); segment < end; segment++) {
    const t0 = Math.max(0, from - segment);
    const t1 = Math.min(1, end - segment);
    if (!(t1 - t0 > 1e-12)) continue;
    cubicStretch(contour.points, segmentAt(segment % n), t0, t1, buffer, 0);
    if (bridges.includes(segment % n)) out.push((points.length / 2 - 1) / 3);
    for (let k = 2; k < 8; k++) points.push(buffer[k]);
  }
}
