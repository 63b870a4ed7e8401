/** An affine map as in SVG: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** The map that first does `inner`, then `outer`. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

/** Moves by (x, y) px. */
export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

/** Scales about the origin. */
export const scaling = (x: number, y: number = x): Matrix => [x, 0, 0, y, 0, 0];

/** Turns about the origin by `angle` rad, clockwise on screen (y down). */
export function rotation(angle: number): Matrix {
  const s = Math.sin(angle);
  const c = Math.cos(angle);
  return [c, s, -s, c, 0, 0];
}

/** The signed factor by which areas grow; negative where the map mirrors. */
export const determinant = (m: Matrix): number => m[0] * m[3] - m[1] * m[2];

/** Maps the (x, y) pairs of `points` into `out`, which may be `points` itself. */
export function transformPoints(m: Matrix, points: Float64Array, out: Float64Array): Float64Array {
  const [a, b, c, d, e, f] = m;
  for (let i = 0; i + 1 < points.length; i += 2) {
    const x = points[i];
    const y = points[i + 1];
    out[i] = a * x + c * y + e;
    out[i + 1] = b * x + d * y + f;
  }
  return out;
}

/** The map that undoes `m`, or undefined where it has no area. */
export function invert(m: Matrix): Matrix | undefined {
  const [a, b, c, d, e, f] = m;
  const det = determinant(m);
  if (!(Math.abs(det) > 0) || !Number.isFinite(1 / det)) return undefined;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** Where (x, y) goes. */
export const mapPoint = (m: Matrix, x: number, y: number): [number, number] => [
  m[0] * x + m[2] * y + m[4],
  m[1] * x + m[3] * y + m[5],
];
