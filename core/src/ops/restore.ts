import { type Contour, type Outline, segmentAt, segmentCount } from '../outline';

/** A grid of the sources' points, so that a result's point finds the one that it was before single precision. */
class PointGrid {
  private readonly cells = new Map<string, number[]>();

  constructor(
    private readonly epsilon: number,
    sources: readonly Outline[],
  ) {
    for (const { contours } of sources)
      for (const { points } of contours)
        for (let i = 0; i + 1 < points.length; i += 2) this.add(points[i], points[i + 1]);
  }

  private add(x: number, y: number): void {
    const key = this.key(Math.floor(x / this.epsilon / 2), Math.floor(y / this.epsilon / 2));
    const cell = this.cells.get(key);
    if (cell) cell.push(x, y);
    else this.cells.set(key, [x, y]);
  }

  private readonly key = (i: number, j: number): string => `${i},${j}`;

  find(x: number, y: number): [number, number] | undefined {
    const ci = Math.floor(x / this.epsilon / 2);
    const cj = Math.floor(y / this.epsilon / 2);
    let best: [number, number] | undefined;
    let least = this.epsilon;
    for (let i = ci - 1; i <= ci + 1; i++) {
      for (let j = cj - 1; j <= cj + 1; j++) {
        const cell = this.cells.get(this.key(i, j)) ?? [];
        for (let k = 0; k < cell.length; k += 2) {
          const d = Math.hypot(cell[k] - x, cell[k + 1] - y);
          if (d < least) {
            least = d;
            best = [cell[k], cell[k + 1]];
          }
        }
      }
    }
    return best;
  }
}

/**
 * Puts the sources' own numbers back where the result has them within `epsilon` px, drops segments without length, joins straight segments
 * that go straight on, and leaves out contours without area.
 */
export function restorePoints(result: Outline, sources: readonly Outline[], epsilon: number): Outline {
  const grid = new PointGrid(epsilon, sources);
  const contours = result.contours.flatMap((contour) => {
    const points = contour.points.slice();
    for (let i = 0; i + 1 < points.length; i += 2) {
      const found = grid.find(points[i], points[i + 1]);
      if (found) points.set(found, i);
    }
    if (contour.closed) points.set(points.subarray(0, 2), points.length - 2);
    const tidy = tidyContour({ points, closed: contour.closed }, epsilon);
    return tidy ? [tidy] : [];
  });
  return { contours, fillRule: result.fillRule };
}

function tidyContour(contour: Contour, epsilon: number): Contour | undefined {
  const p = contour.points;
  const segments: number[][] = [];
  for (let i = 0; i < segmentCount(contour); i++) {
    const at = segmentAt(i);
    let reach = 0;
    for (let k = 2; k < 8; k += 2) reach = Math.max(reach, Math.hypot(p[at + k] - p[at], p[at + k + 1] - p[at + 1]));
    if (reach > epsilon) segments.push([...p.subarray(at, at + 8)]);
  }
  const merged: number[][] = [];
  for (const segment of segments) {
    const last = merged[merged.length - 1];
    if (last && continues(last, segment, epsilon))
      merged[merged.length - 1] = line(last[0], last[1], segment[6], segment[7]);
    else merged.push(segment);
  }
  if (contour.closed && merged.length > 2 && continues(merged[merged.length - 1], merged[0], epsilon)) {
    const last = merged.pop() as number[];
    merged[0] = line(last[0], last[1], merged[0][6], merged[0][7]);
  }
  if (merged.length < (contour.closed ? 2 : 1)) return undefined;
  const points = new Float64Array(6 * merged.length + 2);
  points.set(merged[0].slice(0, 2));
  merged.forEach((segment, i) => {
    points.set(segment.slice(2), 6 * i + 2);
  });
  if (contour.closed) points.set(points.subarray(0, 2), points.length - 2);
  return { points, closed: contour.closed };
}

const line = (x0: number, y0: number, x3: number, y3: number): number[] => [
  x0,
  y0,
  x0 + (x3 - x0) / 3,
  y0 + (y3 - y0) / 3,
  x0 + ((x3 - x0) * 2) / 3,
  y0 + ((y3 - y0) * 2) / 3,
  x3,
  y3,
];

const offChord = (q: readonly number[]): number => {
  const dx = q[6] - q[0];
  const dy = q[7] - q[1];
  const length = Math.hypot(dx, dy) || 1;
  return Math.max(
    Math.abs(dx * (q[3] - q[1]) - dy * (q[2] - q[0])) / length,
    Math.abs(dx * (q[5] - q[1]) - dy * (q[4] - q[0])) / length,
  );
};

/** Are both straight, and does the second go straight on? */
function continues(a: readonly number[], b: readonly number[], epsilon: number): boolean {
  if (offChord(a) > epsilon || offChord(b) > epsilon) return false;
  const whole = line(a[0], a[1], b[6], b[7]);
  const dx = whole[6] - whole[0];
  const dy = whole[7] - whole[1];
  const length = Math.hypot(dx, dy);
  if (!(length > epsilon)) return false;
  const off = Math.abs(dx * (a[7] - a[1]) - dy * (a[6] - a[0])) / length;
  const along = (dx * (a[6] - a[0]) + dy * (a[7] - a[1])) / length;
  return off <= epsilon && along > 0 && along < length;
}
