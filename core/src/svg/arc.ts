/**
 * An elliptical arc as cubics: endpoint to centre parameterisation and the correction of radii as in SVG 2, appendix
 * "Implementation notes", B.2. Each quarter turn or less becomes one cubic with handles 4/3·tan(φ/4) (radial error 2.7e-4 of the
 * radius for a quarter).
 *
 * @param phi turn of the ellipse's x axis in rad
 * @returns six numbers a cubic; 'line' where a radius is zero; nothing where the ends are the same point.
 */
export function arcToCubics(
  x1: number,
  y1: number,
  radiusX: number,
  radiusY: number,
  phi: number,
  large: boolean,
  sweep: boolean,
  x2: number,
  y2: number,
): number[] | 'line' {
  // Are the ends the same? Then the arc is left out (B.2.5).
  if (x1 === x2 && y1 === y2) return [];
  let rx = Math.abs(radiusX);
  let ry = Math.abs(radiusY);
  if (!(rx > 0) || !(ry > 0)) return 'line';
  const sin = Math.sin(phi);
  const cos = Math.cos(phi);
  const hx = (x1 - x2) / 2;
  const hy = (y1 - y2) / 2;
  const px = cos * hx + sin * hy;
  const py = -sin * hx + cos * hy;
  const lambda = (px * px) / (rx * rx) + (py * py) / (ry * ry);
  if (lambda > 1) {
    rx *= Math.sqrt(lambda);
    ry *= Math.sqrt(lambda);
  }
  const weight = rx * rx * py * py + ry * ry * px * px;
  const root = Math.sqrt(Math.max(0, (rx * rx * ry * ry - weight) / weight)) * (large === sweep ? -1 : 1);
  const qx = (root * rx * py) / ry;
  const qy = (-root * ry * px) / rx;
  const cx = cos * qx - sin * qy + (x1 + x2) / 2;
  const cy = sin * qx + cos * qy + (y1 + y2) / 2;
  const start = Math.atan2((py - qy) / ry, (px - qx) / rx);
  let turn = Math.atan2((-py - qy) / ry, (-px - qx) / rx) - start;
  if (sweep && turn < 0) turn += 2 * Math.PI;
  if (!sweep && turn > 0) turn -= 2 * Math.PI;

  const count = Math.max(1, Math.ceil(Math.abs(turn) / (Math.PI / 2) - 1e-9));
  const step = turn / count;
  const handle = (4 / 3) * Math.tan(step / 4);
  const out: number[] = [];
  const point = (ux: number, uy: number): void => {
    out.push(cx + cos * rx * ux - sin * ry * uy, cy + sin * rx * ux + cos * ry * uy);
  };
  for (let i = 0; i < count; i++) {
    const a = start + i * step;
    const b = a + step;
    point(Math.cos(a) - handle * Math.sin(a), Math.sin(a) + handle * Math.cos(a));
    point(Math.cos(b) + handle * Math.sin(b), Math.sin(b) - handle * Math.cos(b));
    if (i === count - 1) out.push(x2, y2);
    else point(Math.cos(b), Math.sin(b));
  }
  return out;
}
