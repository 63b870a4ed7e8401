import { type Contour, ContourBuilder } from './contour';

const QUARTER = Math.PI / 2;

/**
 * Appends a circular arc about (cx, cy) to a builder that stands at its start. Angles in rad, clockwise on screen from the right-hand
 * side, in segments of at most a quarter turn with handles 4/3·tan(φ/4) (radial error 2.7e-4 of the radius; common practice).
 */
export function appendArc(builder: ContourBuilder, cx: number, cy: number, r: number, from: number, to: number): void {
  const segments = Math.max(1, Math.ceil(Math.abs(to - from) / QUARTER - 1e-9));
  const step = (to - from) / segments;
  const k = (4 / 3) * Math.tan(step / 4) * r;
  for (let i = 0; i < segments; i++) {
    const a = from + i * step;
    const b = i === segments - 1 ? to : a + step;
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    builder.cubicTo(
      cx + r * ca - k * sa,
      cy + r * sa + k * ca,
      cx + r * cb + k * sb,
      cy + r * sb - k * cb,
      cx + r * cb,
      cy + r * sb,
    );
  }
}

/**
 * A closed polygon x0, y0, x1, y1, … whose corner i is rounded by an arc of `radii[i]` px that touches both edges. Where the arcs of an
 * edge's ends need more than its length, all are made smaller by one factor, as CSS Backgrounds 3, section 4.5, does for boxes.
 */
export function roundedPolygon(corners: readonly number[], radii: readonly number[]): Contour {
  const n = corners.length / 2;
  const at = (i: number): [number, number] => [corners[2 * (((i % n) + n) % n)], corners[2 * (((i % n) + n) % n) + 1]];
  const turns = Array.from({ length: n }, (_, i) => {
    const [px, py] = at(i - 1);
    const [x, y] = at(i);
    const [qx, qy] = at(i + 1);
    return Math.atan2((x - px) * (qy - y) - (y - py) * (qx - x), (x - px) * (qx - x) + (y - py) * (qy - y));
  });
  const cuts = turns.map((turn, i) => Math.max(0, radii[i] ?? 0) * Math.tan(Math.abs(turn) / 2));
  let factor = 1;
  for (let i = 0; i < n; i++) {
    const [x, y] = at(i);
    const [qx, qy] = at(i + 1);
    const need = cuts[i] + cuts[(i + 1) % n];
    const length = Math.hypot(qx - x, qy - y);
    if (need > 0 && length / need < factor) factor = length / need;
  }
  let builder: ContourBuilder | undefined;
  const go = (x: number, y: number): void => {
    if (builder) builder.lineTo(x, y);
    else builder = new ContourBuilder(x, y);
  };
  let room = Infinity;
  let firstCut = 0;
  for (let i = 0; i < n; i++) {
    const [px, py] = at(i - 1);
    const [x, y] = at(i);
    const [qx, qy] = at(i + 1);
    const cut = Number.isFinite(cuts[i]) ? cuts[i] * factor : 0;
    if (i === 0) firstCut = cut;
    const before = Math.hypot(x - px, y - py);
    if (!(cut > 1e-9 * before)) {
      go(x, y);
      room = Math.hypot(qx - x, qy - y);
      continue;
    }
    const ux = (x - px) / before;
    const uy = (y - py) / before;
    // Do the arcs of this edge meet? Then there is no line between them.
    if (i === 0 || room - cut > 1e-9 * before) go(x - ux * cut, y - uy * cut);
    const r = cut / Math.tan(Math.abs(turns[i]) / 2);
    const side = Math.sign(turns[i]);
    const cx = x - ux * cut - uy * r * side;
    const cy = y - uy * cut + ux * r * side;
    const start = Math.atan2(-ux * side, uy * side);
    appendArc(builder as ContourBuilder, cx, cy, r, start, start + turns[i]);
    room = Math.hypot(qx - x, qy - y) - cut;
  }
  const done = builder as ContourBuilder;
  return done.finish(true, room - firstCut > 1e-9 * (Math.abs(room) + firstCut) ? undefined : 'snap');
}
