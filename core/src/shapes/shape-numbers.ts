import type { ShapeParameter } from './shape-kind';
import {
  SHAPE_KINDS,
  type ShapeKind,
  type ShapeSource,
  shapeParameter,
  shapeParameters,
  withShapeParameter,
} from './shapes';

/** A number, or a few that go together, of one kind of shape: `rectangle.width`, `rectangle.radii`. */
export type ShapeNumberId = `${ShapeKind}.${string}`;

/** What of adjustable shapes can change over time. */
export interface ShapeNumber {
  readonly id: ShapeNumberId;
  readonly kind: ShapeKind;
  /** The parameters that it sets, one for each of its numbers. */
  readonly parameters: readonly ShapeParameter[];
}

/** Where a shape lies and how it is turned is its figure's motion. */
const OF_THE_FIGURE: ReadonlySet<string> = new Set(['x', 'y', 'rotation']);

function numbersOf(kind: ShapeKind): ShapeNumber[] {
  const found = new Map<string, ShapeParameter[]>();
  for (const parameter of shapeParameters(kind)) {
    const [name] = parameter.key.split('.');
    if (!OF_THE_FIGURE.has(name)) found.set(name, [...(found.get(name) ?? []), parameter]);
  }
  return [...found].map(([name, parameters]) => ({ id: `${kind}.${name}`, kind, parameters }));
}

/** All of them, kind by kind, in the order in which they are typed. */
export const SHAPE_NUMBERS: ReadonlyMap<ShapeNumberId, ShapeNumber> = new Map(
  SHAPE_KINDS.flatMap(numbersOf).map((number) => [number.id, number]),
);

/** One by its id; undefined where it names none. */
export const shapeNumber = (id: string): ShapeNumber | undefined => SHAPE_NUMBERS.get(id as ShapeNumberId);

/** What a shape has of it. */
export const numbersOfShape = (source: ShapeSource, { parameters }: ShapeNumber): number[] =>
  parameters.map(({ key }) => shapeParameter(source, key));

/** A shape with other numbers, kept within their ranges; `values` from `at` on. */
export const withShapeNumber = (
  source: ShapeSource,
  { parameters }: ShapeNumber,
  values: ArrayLike<number>,
  at = 0,
): ShapeSource => parameters.reduce((shape, { key }, i) => withShapeParameter(shape, key, values[at + i]), source);
