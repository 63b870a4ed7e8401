import { roundedPolygon } from '../../outline';
import { endHandles, handleAt, length, pullEnd, type ShapeFrame, type ShapeKindDefinition } from '../shape-kind';

export interface CapsuleSource extends ShapeFrame {
  readonly kind: 'capsule';
  /** From end to end, caps included. */
  readonly length: number;
  readonly thickness: number;
}

export const capsule: ShapeKindDefinition<CapsuleSource> = {
  parameters: [length('length', 'Length'), length('thickness', 'Thickness')],
  build({ length: along, thickness }) {
    const h = thickness / 2;
    const w = Math.max(along / 2, h);
    return h > 0 ? [roundedPolygon([-w, -h, w, -h, w, h, -w, h], [h, h, h, h])] : [];
  },
  handles: (shape) => [...endHandles(shape), handleAt('thickness', 'Thickness', 0, shape.thickness / 2)],
  pull: (shape, id, to) => (id === 'thickness' ? { ...shape, thickness: 2 * Math.abs(to.y) } : pullEnd(shape, id, to)),
  inBox: ({ frame, width, height, radius }) => ({
    kind: 'capsule',
    ...frame,
    length: Math.max(width, height),
    thickness: radius * 2,
    rotation: height > width ? 90 : 0,
  }),
  grown: (shape, k) => ({ ...shape, length: shape.length * k, thickness: shape.thickness * k }),
};
