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

export interface StarSource extends ShapeFrame {
  readonly kind: 'star';
  readonly radius: number;
  readonly points: number;
  /** Radius of the inner corners as a share of the outer. */
  readonly inner: number;
  readonly rounding: number;
}

export const star: ShapeKindDefinition<StarSource> = {
  parameters: [
    { key: 'points', label: 'Points', min: 2, max: 100, whole: true },
    RADIUS,
    { key: 'inner', label: 'Inner radius', unit: '%', min: 0, max: 1, step: 0.01 },
    ROUNDING,
  ],
  build({ radius, points, inner, rounding }) {
    const radii = Array.from({ length: 2 * points }, (_, i) => (i % 2 === 0 ? radius : radius * inner));
    return radius > 0 ? [spokes(radii, rounding)] : [];
  },
  handles: (shape) => [
    handleToward('radius', 'Radius and turn', 0, shape.radius),
    handleToward('inner', 'Inner radius', 180 / shape.points, shape.radius * shape.inner),
    roundingHandle(shape),
  ],
  pull(shape, id, to) {
    if (id === 'rounding') return { ...shape, rounding: pulledRounding(shape.radius, to) };
    if (id !== 'inner') return pullRim(shape, to);
    return { ...shape, inner: shape.radius > 0 ? Math.min(1, to.reach / shape.radius) : shape.inner };
  },
  inBox: ({ frame, radius }) => ({ kind: 'star', ...frame, radius, points: 5, inner: 0.5, rounding: 0 }),
  grown: (shape, k) => ({ ...shape, radius: shape.radius * k, rounding: shape.rounding * k }),
};
