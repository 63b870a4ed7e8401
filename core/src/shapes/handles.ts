import { assertNever } from '../errors';
import type { Matrix } from '../vec';
import { fromTop, RAD } from './build';
import type { ShapeKind, ShapeSource } from './source';

/** A place on the canvas by which a shape is adjusted; coordinates as the shape's own. */
export interface ShapeHandle {
  readonly id: string;
  readonly label: string;
  readonly x: number;
  readonly y: number;
}

const toWorld = (s: ShapeSource, x: number, y: number): [number, number] => {
  const c = Math.cos(s.rotation * RAD);
  const n = Math.sin(s.rotation * RAD);
  return [s.x + c * x - n * y, s.y + n * x + c * y];
};
const toOwn = (s: ShapeSource, x: number, y: number): [number, number] => {
  const c = Math.cos(s.rotation * RAD);
  const n = Math.sin(s.rotation * RAD);
  return [c * (x - s.x) + n * (y - s.y), -n * (x - s.x) + c * (y - s.y)];
};
const CORNERS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const;
const CORNER_NAMES = ['top left', 'top right', 'bottom right', 'bottom left'];

/** All handles of a shape. */
export function shapeHandles(s: ShapeSource): ShapeHandle[] {
  const handle = (id: string, label: string, x: number, y: number): ShapeHandle => {
    const [wx, wy] = toWorld(s, x, y);
    return { id, label, x: wx, y: wy };
  };
  const polar = (id: string, label: string, degrees: number, r: number): ShapeHandle =>
    handle(id, label, r * Math.cos(fromTop(degrees)), r * Math.sin(fromTop(degrees)));
  switch (s.kind) {
    case 'rectangle': {
      const room = Math.min(s.width, s.height) / 2;
      return [
        handle('size', 'Size', s.width / 2, s.height / 2),
        ...CORNERS.map(([i, j], k) => {
          const r = Math.min(s.radii[k], room);
          // A sharp corner's handle stands a little inside, so that it can be taken apart from the size handle.
          const inset = Math.max(r, 0.12 * room);
          return handle(
            `radius${k}`,
            `Radius ${CORNER_NAMES[k]}`,
            i * (s.width / 2 - inset),
            j * (s.height / 2 - inset),
          );
        }),
      ];
    }
    case 'ellipse':
      return [
        handle('width', 'Width', s.width / 2, 0),
        handle('height', 'Height', 0, s.height / 2),
        handle('size', 'Size', s.width / 2, s.height / 2),
      ];
    case 'polygon':
      return [
        polar('radius', 'Radius and turn', 0, s.radius),
        polar('rounding', 'Rounding', 0, s.radius * 0.85 - s.rounding),
      ];
    case 'star':
      return [
        polar('radius', 'Radius and turn', 0, s.radius),
        polar('inner', 'Inner radius', 180 / s.points, s.radius * s.inner),
        polar('rounding', 'Rounding', 0, s.radius * 0.85 - s.rounding),
      ];
    case 'ring': {
      const middle = (s.from + s.to) / 2;
      return [
        polar('outer', 'Outer radius', middle, s.outer),
        polar('inner', 'Inner radius', middle, s.inner),
        polar('from', 'From', s.from, (s.outer + s.inner) / 2),
        polar('to', 'To', s.to, (s.outer + s.inner) / 2),
      ];
    }
    case 'capsule':
      return [
        handle('start', 'Start', -s.length / 2, 0),
        handle('end', 'End', s.length / 2, 0),
        handle('thickness', 'Thickness', 0, s.thickness / 2),
      ];
    case 'line':
      return [handle('start', 'Start', -s.length / 2, 0), handle('end', 'End', s.length / 2, 0)];
    case 'arc':
      return [
        polar('radius', 'Radius', (s.from + s.to) / 2, s.radius),
        polar('from', 'From', s.from, s.radius),
        polar('to', 'To', s.to, s.radius),
      ];
    case 'blob':
      return [polar('radius', 'Radius and turn', 0, s.radius)];
    default:
      return assertNever(s);
  }
}

const near = (degrees: number, old: number): number => degrees + 360 * Math.round((old - degrees) / 360);

/** The shape after its handle `id` was dragged to (x, y); `even` keeps sides equal and angles on steps of 15°. */
export function dragShapeHandle(s: ShapeSource, id: string, x: number, y: number, even = false): ShapeSource {
  const [ox, oy] = toOwn(s, x, y);
  const reach = Math.hypot(ox, oy);
  const degrees = Math.atan2(oy, ox) / RAD + 90;
  const step = (angle: number): number => (even ? Math.round(angle / 15) * 15 : angle);
  const between = (ax: number, ay: number, bx: number, by: number): ShapeSource => {
    const angle = step(Math.atan2(by - ay, bx - ax) / RAD);
    const length = Math.hypot(bx - ax, by - ay);
    const fixedStart = id === 'end';
    const [c, n] = [Math.cos(angle * RAD), Math.sin(angle * RAD)];
    const [mx, my] = fixedStart
      ? [ax + (c * length) / 2, ay + (n * length) / 2]
      : [bx - (c * length) / 2, by - (n * length) / 2];
    return { ...s, x: mx, y: my, rotation: near(angle, s.rotation), length } as ShapeSource;
  };
  if (id === 'size' && (s.kind === 'rectangle' || s.kind === 'ellipse')) {
    // The opposite corner stays where it is.
    let w = Math.max(0, ox + s.width / 2);
    let h = Math.max(0, oy + s.height / 2);
    if (even) w = h = Math.max(w, h);
    const [cx, cy] = toWorld(s, w / 2 - s.width / 2, h / 2 - s.height / 2);
    return { ...s, width: w, height: h, x: cx, y: cy };
  }
  if (s.kind === 'rectangle' && id.startsWith('radius')) {
    const k = Number(id.slice(6));
    const [i, j] = CORNERS[k];
    const inset = Math.max(0, Math.min((i * i * s.width) / 2 - i * ox, (j * j * s.height) / 2 - j * oy));
    const radius = Math.min(inset, Math.min(s.width, s.height) / 2);
    const radii = s.radii.map((old, n) => (n === k || even ? radius : old));
    return { ...s, radii: radii as unknown as typeof s.radii };
  }
  if (s.kind === 'ellipse' && id === 'width') return { ...s, width: 2 * Math.abs(ox) };
  if (s.kind === 'ellipse' && id === 'height') return { ...s, height: 2 * Math.abs(oy) };
  if ((s.kind === 'line' || s.kind === 'capsule') && (id === 'start' || id === 'end')) {
    const other = shapeHandles(s).find((handle) => handle.id === (id === 'end' ? 'start' : 'end')) as ShapeHandle;
    return id === 'end' ? between(other.x, other.y, x, y) : between(x, y, other.x, other.y);
  }
  if (s.kind === 'capsule') return { ...s, thickness: 2 * Math.abs(oy) };
  if (id === 'rounding' && (s.kind === 'polygon' || s.kind === 'star'))
    return { ...s, rounding: Math.max(0, s.radius * 0.85 + oy) };
  if (s.kind === 'star' && id === 'inner')
    return { ...s, inner: s.radius > 0 ? Math.min(1, reach / s.radius) : s.inner };
  if ((s.kind === 'polygon' || s.kind === 'star' || s.kind === 'blob') && id === 'radius')
    return { ...s, radius: reach, rotation: near(step(s.rotation + degrees), s.rotation) };
  if (s.kind === 'ring' && (id === 'outer' || id === 'inner')) return { ...s, [id]: reach };
  if ((s.kind === 'ring' || s.kind === 'arc') && (id === 'from' || id === 'to'))
    return { ...s, [id]: near(step(degrees), s[id]) };
  if (s.kind === 'arc') return { ...s, radius: reach };
  return s;
}

/** A shape of a kind that fills the box from (x0, y0) to (x1, y1), px. */
export function shapeInBox(kind: ShapeKind, x0: number, y0: number, x1: number, y1: number, seed = 1): ShapeSource {
  const width = Math.abs(x1 - x0);
  const height = Math.abs(y1 - y0);
  const frame = { x: (x0 + x1) / 2, y: (y0 + y1) / 2, rotation: 0 };
  const radius = Math.min(width, height) / 2;
  switch (kind) {
    case 'rectangle':
      return { kind, ...frame, width, height, radii: [0, 0, 0, 0] };
    case 'ellipse':
      return { kind, ...frame, width, height };
    case 'polygon':
      return { kind, ...frame, radius, sides: 6, rounding: 0 };
    case 'star':
      return { kind, ...frame, radius, points: 5, inner: 0.5, rounding: 0 };
    case 'ring':
      return { kind, ...frame, outer: radius, inner: radius * 0.6, from: 0, to: 270 };
    case 'capsule':
      return {
        kind,
        ...frame,
        length: Math.max(width, height),
        thickness: radius * 2,
        rotation: height > width ? 90 : 0,
      };
    case 'line':
      return {
        kind,
        ...frame,
        length: Math.hypot(width, height),
        rotation: Math.atan2(y1 - y0, x1 - x0) / RAD,
      };
    case 'arc':
      return { kind, ...frame, radius, from: -90, to: 90 };
    case 'blob':
      return { kind, ...frame, radius: radius * 0.85, lobes: 7, wobble: 0.18, seed };
    default:
      return assertNever(kind);
  }
}

/**
 * The shape mapped by `matrix` while it can stay adjustable: moves and turns always, even scaling always, uneven scaling along the axes of
 * an unturned rectangle or ellipse. Undefined otherwise; the caller then turns it into points.
 */
export function transformShape(s: ShapeSource, matrix: Matrix): ShapeSource | undefined {
  const [a, b, c, d, e, f] = matrix;
  const [x, y] = [a * s.x + c * s.y + e, b * s.x + d * s.y + f];
  const sx = Math.hypot(a, b);
  const sy = Math.hypot(c, d);
  const det = a * d - b * c;
  const close = (p: number, q: number): boolean => Math.abs(p - q) <= 1e-9 * (sx + sy);
  if (det > 0 && close(sx, sy) && close(a, d) && close(b, -c)) {
    const grown = Object.fromEntries(
      ['width', 'height', 'radius', 'rounding', 'outer', 'length', 'thickness'].flatMap((key) =>
        key in s ? [[key, (s as unknown as Record<string, number>)[key] * sx]] : [],
      ),
    );
    const inner = s.kind === 'ring' ? { inner: s.inner * sx } : {};
    const radii = s.kind === 'rectangle' ? { radii: s.radii.map((r) => r * sx) } : {};
    return { ...s, ...grown, ...inner, ...radii, x, y, rotation: s.rotation + Math.atan2(b, a) / RAD } as ShapeSource;
  }
  const upright = Math.abs(b) + Math.abs(c) <= 1e-9 * (sx + sy) && s.rotation % 180 === 0;
  if (upright && s.kind === 'ellipse') return { ...s, x, y, width: s.width * sx, height: s.height * sy };
  if (upright && s.kind === 'rectangle' && s.radii.every((r) => r === 0))
    return { ...s, x, y, width: s.width * sx, height: s.height * sy };
  return undefined;
}
