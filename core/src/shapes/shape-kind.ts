import { LIMITS, type Limit } from '../num';
import type { Contour } from '../outline';

/** What every adjustable shape has: a centre, px, and a turn in degrees clockwise. */
export interface ShapeFrame {
  readonly x: number;
  readonly y: number;
  readonly rotation: number;
}

/** One parameter that can be typed, with its unit and range. */
export interface ShapeParameter extends Limit {
  readonly key: string;
  readonly label: string;
  readonly unit?: 'px' | '°' | '%';
  readonly step?: number;
}

/** A place by which a shape is adjusted. */
export interface ShapeHandle {
  readonly id: string;
  readonly label: string;
  readonly x: number;
  readonly y: number;
}

/** Where a handle was dragged to, told in all the ways that kinds ask for. */
export interface HandlePull {
  /** In the shape's own coordinates: about its centre, not turned. */
  readonly x: number;
  readonly y: number;
  /** How far from the centre, and in which direction, degrees clockwise from the top. */
  readonly reach: number;
  readonly degrees: number;
  /** Keep sides equal and angles on steps of 15°? */
  readonly even: boolean;
}

/** The box that a new shape is to fill, px, and the corners from and to which it was dragged. */
export interface ShapeBox {
  readonly frame: ShapeFrame;
  readonly width: number;
  readonly height: number;
  /** Half the shorter side. */
  readonly radius: number;
  /** From the first corner to the last, degrees clockwise from the right. */
  readonly diagonal: number;
  readonly seed: number;
}

/** Everything that the program knows of one kind of adjustable shape. Coordinates are its own: about its centre, not turned; lengths in px. */
export interface ShapeKindDefinition<S extends ShapeFrame> {
  /** What can be typed besides place and turn. */
  readonly parameters: readonly ShapeParameter[];
  /** Solids clockwise on screen, holes the other way; none where the shape has no extent. */
  build(shape: S): readonly Contour[];
  handles(shape: S): readonly ShapeHandle[];
  /** The shape after its handle `id` was pulled somewhere. */
  pull(shape: S, id: string, to: HandlePull): S;
  /** A new one, which is also its icon. */
  inBox(box: ShapeBox): S;
  /** With all lengths multiplied. */
  grown(shape: S, factor: number): S;
  /** Scaled by its own axes; undefined where it would be no such shape any more. */
  stretched?(shape: S, x: number, y: number): S | undefined;
}

export const RAD = Math.PI / 180;
/** Angles of shapes count from the top; outlines count from the right. */
export const fromTop = (degrees: number): number => (degrees - 90) * RAD;
/** A whole turn more or less, so that it is near what it was. */
export const nearTo = (degrees: number, old: number): number => degrees + 360 * Math.round((old - degrees) / 360);
export const stepped = (degrees: number, even: boolean): number => (even ? Math.round(degrees / 15) * 15 : degrees);
/** Nothing goes round more than once. */
export const clampTurn = (from: number, to: number): number => from + Math.min(360, Math.max(-360, to - from));

/** From a shape's own coordinates to the canvas. */
export function toWorld({ x, y, rotation }: ShapeFrame, ownX: number, ownY: number): [number, number] {
  const c = Math.cos(rotation * RAD);
  const n = Math.sin(rotation * RAD);
  return [x + c * ownX - n * ownY, y + n * ownX + c * ownY];
}
/** From the canvas to a shape's own coordinates. */
export function toOwn({ x, y, rotation }: ShapeFrame, worldX: number, worldY: number): [number, number] {
  const c = Math.cos(rotation * RAD);
  const n = Math.sin(rotation * RAD);
  return [c * (worldX - x) + n * (worldY - y), -n * (worldX - x) + c * (worldY - y)];
}

export const handleAt = (id: string, label: string, x: number, y: number): ShapeHandle => ({ id, label, x, y });
/** A handle in a direction in degrees clockwise from the top. */
export const handleToward = (id: string, label: string, degrees: number, reach: number): ShapeHandle =>
  handleAt(id, label, reach * Math.cos(fromTop(degrees)), reach * Math.sin(fromTop(degrees)));

export const length = (key: string, label: string): ShapeParameter => ({ key, label, unit: 'px', ...LIMITS.length });
const arcAngle = (key: string, label: string): ShapeParameter => ({ key, label, unit: '°', ...LIMITS.arcAngle });
export const RADIUS = length('radius', 'Radius');
export const ROUNDING = length('rounding', 'Rounding');
export const BOX: readonly ShapeParameter[] = [length('width', 'Width'), length('height', 'Height')];
export const ANGLES: readonly ShapeParameter[] = [arcAngle('from', 'From'), arcAngle('to', 'To')];
export const PLACE: readonly ShapeParameter[] = [
  { key: 'x', label: 'Centre X', unit: 'px', ...LIMITS.coordinate },
  { key: 'y', label: 'Centre Y', unit: 'px', ...LIMITS.coordinate },
  { key: 'rotation', label: 'Own rotation', unit: '°', ...LIMITS.angle },
];

/** Pulled at its corner: the opposite corner stays where it is. */
export function pullSize<S extends ShapeFrame & { readonly width: number; readonly height: number }>(
  shape: S,
  { x, y, even }: HandlePull,
): S {
  let width = Math.max(0, x + shape.width / 2);
  let height = Math.max(0, y + shape.height / 2);
  if (even) width = height = Math.max(width, height);
  const [cx, cy] = toWorld(shape, width / 2 - shape.width / 2, height / 2 - shape.height / 2);
  return { ...shape, width, height, x: cx, y: cy };
}

/** Handles at both ends of something long. */
export const endHandles = ({ length: along }: { readonly length: number }): ShapeHandle[] => [
  handleAt('start', 'Start', -along / 2, 0),
  handleAt('end', 'End', along / 2, 0),
];

/** Pulled at one of its ends: the other end stays where it is. */
export function pullEnd<S extends ShapeFrame & { readonly length: number }>(shape: S, id: string, to: HandlePull): S {
  const sign = id === 'end' ? 1 : -1;
  const [fx, fy] = toWorld(shape, (-sign * shape.length) / 2, 0);
  const [x, y] = toWorld(shape, to.x, to.y);
  const reach = Math.hypot(x - fx, y - fy);
  const turn = stepped(Math.atan2(sign * (y - fy), sign * (x - fx)) / RAD, to.even);
  const [c, n] = [Math.cos(turn * RAD), Math.sin(turn * RAD)];
  return {
    ...shape,
    x: fx + (sign * c * reach) / 2,
    y: fy + (sign * n * reach) / 2,
    rotation: nearTo(turn, shape.rotation),
    length: reach,
  };
}

/** Pulled at its rim: as large as the pull, and turned along. */
export function pullRim<S extends ShapeFrame & { readonly radius: number }>(
  shape: S,
  { reach, degrees, even }: HandlePull,
): S {
  return { ...shape, radius: reach, rotation: nearTo(stepped(shape.rotation + degrees, even), shape.rotation) };
}

/** Where the handle of rounded corners stands on the way to the top corner. */
const ROUNDING_AT = 0.85;
export const roundingHandle = ({
  radius,
  rounding,
}: {
  readonly radius: number;
  readonly rounding: number;
}): ShapeHandle => handleToward('rounding', 'Rounding', 0, radius * ROUNDING_AT - rounding);
export const pulledRounding = (radius: number, { y }: HandlePull): number => Math.max(0, radius * ROUNDING_AT + y);
