import {
  handleToward,
  pulledRounding,
  pullRim,
  RADIUS,
  ROUNDING,
  roundingHandle,
  type ShapeFrame,
  type ShapeKindDefinition,
} from '../shape-kind';
import { spokes } from './spokes';

export interface PolygonSource extends ShapeFrame {
  readonly kind: 'polygon';
  readonly radius: number;
  readonly sides: number;
  readonly rounding: number;
}

export const polygon: ShapeKindDefinition<PolygonSource> = {
  parameters: [{ key: 'sides', label: 'Sides', min: 3, max: 100, whole: true }, RADIUS, ROUNDING],
  build: ({ radius, sides, rounding }) => (radius > 0 ? [spokes(Array(sides).fill(radius), rounding)] : []),
  handles: (shape) => [handleToward('radius', 'Radius and turn', 0, shape.radius), roundingHandle(shape)],
  pull: (shape, id, to) =>
    id === 'rounding' ? { ...shape, rounding: pulledRounding(shape.radius, to) } : pullRim(shape, to),
  inBox: ({ frame, radius }) => ({ kind: 'polygon', ...frame, radius, sides: 6, rounding: 0 }),
  grown: (shape, k) => ({ ...shape, radius: shape.radius * k, rounding: shape.rounding * k }),
};
