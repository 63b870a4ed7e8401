import type { Contour } from '../outline';
import { type Matrix, multiply, rotation, transformPoints, translation } from '../vec';
import { type ArcSource, arc } from './kinds/arc';
import { type BlobSource, blob } from './kinds/blob';
import { type CapsuleSource, capsule } from './kinds/capsule';
import { type EllipseSource, ellipse } from './kinds/ellipse';
import { type LineSource, line } from './kinds/line';
import { type PolygonSource, polygon } from './kinds/polygon';
import { type RectangleSource, rectangle } from './kinds/rectangle';
import { type RingSource, ring } from './kinds/ring';
import { type StarSource, star } from './kinds/star';
import {
  PLACE,
  RAD,
  type ShapeHandle,
  type ShapeKindDefinition,
  type ShapeParameter,
  toOwn,
  toWorld,
} from './shape-kind';

/** An adjustable shape as it is stored: its kind, its place and its parameters. */
export type ShapeSource =
  | RectangleSource
  | EllipseSource
  | PolygonSource
  | StarSource
  | RingSource
  | CapsuleSource
  | LineSource
  | ArcSource
  | BlobSource;
export type ShapeKind = ShapeSource['kind'];

/** All kinds, in the order in which they are offered: a new one is a file and a row here. */
const KINDS: { readonly [K in ShapeKind]: ShapeKindDefinition<Extract<ShapeSource, { kind: K }>> } = {
  rectangle,
  ellipse,
  polygon,
  star,
  ring,
  capsule,
  line,
  arc,
  blob,
};
export const SHAPE_KINDS = Object.keys(KINDS) as readonly ShapeKind[];
const definitionOf = (kind: ShapeKind): ShapeKindDefinition<ShapeSource> =>
  KINDS[kind] as unknown as ShapeKindDefinition<ShapeSource>;

/** What can be typed for a kind of shape. `radii.0` to `radii.3` are a rectangle's corners. */
export const shapeParameters = (kind: ShapeKind): readonly ShapeParameter[] => [
  ...definitionOf(kind).parameters,
  ...PLACE,
];

/** The value of a parameter by its key. */
export function shapeParameter(source: ShapeSource, key: string): number {
  const [name, index] = key.split('.');
  const value = (source as unknown as Record<string, number | readonly number[]>)[name];
  return typeof value === 'number' ? value : value[Number(index)];
}

/** The source with one parameter changed, kept within its range. */
export function withShapeParameter(source: ShapeSource, key: string, value: number): ShapeSource {
  const parameter = shapeParameters(source.kind).find((candidate) => candidate.key === key);
  if (!parameter || !Number.isFinite(value)) return source;
  const kept = Math.min(parameter.max, Math.max(parameter.min, parameter.whole ? Math.round(value) : value));
  const [name, index] = key.split('.');
  if (index === undefined) return { ...source, [name]: kept };
  const list = [...((source as unknown as Record<string, readonly number[]>)[name] ?? [])];
  list[Number(index)] = kept;
  return { ...source, [name]: list } as unknown as ShapeSource;
}

/** The contours of an adjustable shape in px; solids clockwise on screen, holes the other way. None where it has no extent. */
export function adjustableContours(source: ShapeSource): readonly Contour[] {
  const matrix = multiply(translation(source.x, source.y), rotation(source.rotation * RAD));
  return definitionOf(source.kind)
    .build(source)
    .map((contour) => ({
      ...contour,
      points: transformPoints(matrix, contour.points, new Float64Array(contour.points.length)),
    }));
}

/** All handles of a shape, in its outer coordinates. */
export const shapeHandles = (source: ShapeSource): ShapeHandle[] =>
  definitionOf(source.kind)
    .handles(source)
    .map((handle) => {
      const [x, y] = toWorld(source, handle.x, handle.y);
      return { ...handle, x, y };
    });

/** The shape after its handle `id` was dragged to (x, y); `even` keeps sides equal and angles on steps of 15°. */
export function dragShapeHandle(source: ShapeSource, id: string, x: number, y: number, even = false): ShapeSource {
  const [ownX, ownY] = toOwn(source, x, y);
  const pull = {
    x: ownX,
    y: ownY,
    reach: Math.hypot(ownX, ownY),
    degrees: Math.atan2(ownY, ownX) / RAD + 90,
    even,
  };
  return definitionOf(source.kind).pull(source, id, pull);
}

/** A shape of a kind that fills the box from (x0, y0) to (x1, y1), px. */
export function shapeInBox(kind: ShapeKind, x0: number, y0: number, x1: number, y1: number, seed = 1): ShapeSource {
  const width = Math.abs(x1 - x0);
  const height = Math.abs(y1 - y0);
  return definitionOf(kind).inBox({
    frame: { x: (x0 + x1) / 2, y: (y0 + y1) / 2, rotation: 0 },
    width,
    height,
    radius: Math.min(width, height) / 2,
    diagonal: Math.atan2(y1 - y0, x1 - x0) / RAD,
    seed,
  });
}

/**
 * The shape mapped by `matrix` while it can stay adjustable: moves and turns always, even scaling always, uneven scaling along the axes of
 * an unturned shape where its kind bears it. Undefined otherwise; the caller then turns it into points.
 */
export function transformShape(source: ShapeSource, matrix: Matrix): ShapeSource | undefined {
  const [a, b, c, d, e, f] = matrix;
  const [x, y] = [a * source.x + c * source.y + e, b * source.x + d * source.y + f];
  const sx = Math.hypot(a, b);
  const sy = Math.hypot(c, d);
  const det = a * d - b * c;
  const close = (p: number, q: number): boolean => Math.abs(p - q) <= 1e-9 * (sx + sy);
  const definition = definitionOf(source.kind);
  if (det > 0 && close(sx, sy) && close(a, d) && close(b, -c))
    return { ...definition.grown(source, sx), x, y, rotation: source.rotation + Math.atan2(b, a) / RAD };
  const upright = Math.abs(b) + Math.abs(c) <= 1e-9 * (sx + sy) && source.rotation % 180 === 0;
  const stretched = upright ? definition.stretched?.(source, sx, sy) : undefined;
  return stretched && { ...stretched, x, y };
}
