import { ContourBuilder } from '../../outline';
import { endHandles, length, pullEnd, type ShapeFrame, type ShapeKindDefinition } from '../shape-kind';

export interface LineSource extends ShapeFrame {
  readonly kind: 'line';
  readonly length: number;
}

export const line: ShapeKindDefinition<LineSource> = {
  parameters: [length('length', 'Length')],
  build({ length: along }) {
    const builder = new ContourBuilder(-along / 2, 0);
    builder.lineTo(along / 2, 0);
    return along > 0 ? [builder.finish(false)] : [];
  },
  handles: endHandles,
  pull: pullEnd,
  inBox: ({ frame, width, height, diagonal }) => ({
    kind: 'line',
    ...frame,
    length: Math.hypot(width, height),
    rotation: diagonal,
  }),
  grown: (shape, k) => ({ ...shape, length: shape.length * k }),
};
