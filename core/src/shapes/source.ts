/** Everything that stays adjustable: a centre, a turn in degrees clockwise, and the parameters of its kind. Lengths in px. */
interface Frame {
  readonly x: number;
  readonly y: number;
  readonly rotation: number;
}
export interface RectangleSource extends Frame {
  readonly kind: 'rectangle';
  readonly width: number;
  readonly height: number;
  /** Corner radii: top left, top right, bottom right, bottom left. */
  readonly radii: readonly [number, number, number, number];
}
export interface EllipseSource extends Frame {
  readonly kind: 'ellipse';
  readonly width: number;
  readonly height: number;
}
export interface PolygonSource extends Frame {
  readonly kind: 'polygon';
  readonly radius: number;
  readonly sides: number;
  readonly rounding: number;
}
export interface StarSource extends Frame {
  readonly kind: 'star';
  readonly radius: number;
  readonly points: number;
  /** Radius of the inner corners as a share of the outer. */
  readonly inner: number;
  readonly rounding: number;
}
/** Angles in degrees clockwise from the top; 360 between them is a whole ring. */
export interface RingSource extends Frame {
  readonly kind: 'ring';
  readonly outer: number;
  readonly inner: number;
  readonly from: number;
  readonly to: number;
}
export interface CapsuleSource extends Frame {
  readonly kind: 'capsule';
  /** From end to end, caps included. */
  readonly length: number;
  readonly thickness: number;
}
export interface LineSource extends Frame {
  readonly kind: 'line';
  readonly length: number;
}
export interface ArcSource extends Frame {
  readonly kind: 'arc';
  readonly radius: number;
  readonly from: number;
  readonly to: number;
}
export interface BlobSource extends Frame {
  readonly kind: 'blob';
  readonly radius: number;
  readonly lobes: number;
  /** How far lobes stray from the circle, as a share of the radius. */
  readonly wobble: number;
  readonly seed: number;
}

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
export const SHAPE_KINDS = [
  'rectangle',
  'ellipse',
  'polygon',
  'star',
  'ring',
  'capsule',
  'line',
  'arc',
  'blob',
] as const satisfies readonly ShapeSource['kind'][];
export type ShapeKind = ShapeSource['kind'];

/** One parameter that can be typed, with its unit and range. */
export interface ShapeParameter {
  readonly key: string;
  readonly label: string;
  readonly unit?: 'px' | '°' | '%';
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly whole?: boolean;
}

const LENGTH = { unit: 'px', min: 0, max: 100_000 } as const;
const ANGLE = { unit: '°', min: -3600, max: 3600 } as const;
const PLACE: readonly ShapeParameter[] = [
  { key: 'x', label: 'Centre X', unit: 'px', min: -1e6, max: 1e6 },
  { key: 'y', label: 'Centre Y', unit: 'px', min: -1e6, max: 1e6 },
  { key: 'rotation', label: 'Turn', ...ANGLE },
];
const BOX: readonly ShapeParameter[] = [
  { key: 'width', label: 'Width', ...LENGTH },
  { key: 'height', label: 'Height', ...LENGTH },
];
const RADIUS: ShapeParameter = { key: 'radius', label: 'Radius', ...LENGTH };
const ROUNDING: ShapeParameter = { key: 'rounding', label: 'Rounding', ...LENGTH };
const ANGLES: readonly ShapeParameter[] = [
  { key: 'from', label: 'From', ...ANGLE },
  { key: 'to', label: 'To', ...ANGLE },
];

/** What can be typed for each kind of shape. `radii.0` to `radii.3` are a rectangle's corners. */
export const SHAPE_PARAMETERS: Readonly<Record<ShapeKind, readonly ShapeParameter[]>> = {
  rectangle: [
    ...BOX,
    ...['top left', 'top right', 'bottom right', 'bottom left'].map((corner, i) => ({
      key: `radii.${i}`,
      label: `Radius ${corner}`,
      ...LENGTH,
    })),
    ...PLACE,
  ],
  ellipse: [...BOX, ...PLACE],
  polygon: [{ key: 'sides', label: 'Sides', min: 3, max: 100, whole: true }, RADIUS, ROUNDING, ...PLACE],
  star: [
    { key: 'points', label: 'Points', min: 2, max: 100, whole: true },
    RADIUS,
    { key: 'inner', label: 'Inner radius', unit: '%', min: 0, max: 1, step: 0.01 },
    ROUNDING,
    ...PLACE,
  ],
  ring: [
    { key: 'outer', label: 'Outer radius', ...LENGTH },
    { key: 'inner', label: 'Inner radius', ...LENGTH },
    ...ANGLES,
    ...PLACE,
  ],
  capsule: [
    { key: 'length', label: 'Length', ...LENGTH },
    { key: 'thickness', label: 'Thickness', ...LENGTH },
    ...PLACE,
  ],
  line: [{ key: 'length', label: 'Length', ...LENGTH }, ...PLACE],
  arc: [RADIUS, ...ANGLES, ...PLACE],
  blob: [
    RADIUS,
    { key: 'lobes', label: 'Lobes', min: 3, max: 60, whole: true },
    { key: 'wobble', label: 'Wobble', unit: '%', min: 0, max: 0.9, step: 0.01 },
    { key: 'seed', label: 'Seed', min: 0, max: 999_999, whole: true },
    ...PLACE,
  ],
};

/** The value of a parameter by its key. */
export function shapeParameter(source: ShapeSource, key: string): number {
  const [name, index] = key.split('.');
  const value = (source as unknown as Record<string, number | readonly number[]>)[name];
  return typeof value === 'number' ? value : value[Number(index)];
}

/** The source with one parameter changed, kept within its range. */
export function withShapeParameter(source: ShapeSource, key: string, value: number): ShapeSource {
  const parameter = SHAPE_PARAMETERS[source.kind].find((candidate) => candidate.key === key);
  if (!parameter || !Number.isFinite(value)) return source;
  const kept = Math.min(parameter.max, Math.max(parameter.min, parameter.whole ? Math.round(value) : value));
  const [name, index] = key.split('.');
  if (index === undefined) return { ...source, [name]: kept };
  const list = [...((source as unknown as Record<string, readonly number[]>)[name] ?? [])];
  list[Number(index)] = kept;
  return { ...source, [name]: list } as unknown as ShapeSource;
}
