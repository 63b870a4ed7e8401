import { appendArc, ContourBuilder } from '../../outline';
import {
  ANGLES,
  clampTurn,
  fromTop,
  handleToward,
  nearTo,
  RADIUS,
  type ShapeFrame,
  type ShapeKindDefinition,
  stepped,
} from '../shape-kind';

/** Angles in degrees clockwise from the top. */
export interface ArcSource extends ShapeFrame {
  readonly kind: 'arc';
  readonly radius: number;
  readonly from: number;
  readonly to: number;
}

export const arc: ShapeKindDefinition<ArcSource> = {
  parameters: [RADIUS, ...ANGLES],
  build(shape) {
    const { radius } = shape;
    const [from, to] = [fromTop(shape.from), fromTop(clampTurn(shape.from, shape.to))];
    const builder = new ContourBuilder(radius * Math.cos(from), radius * Math.sin(from));
    appendArc(builder, 0, 0, radius, from, to);
    return radius > 0 && from !== to ? [builder.finish(false)] : [];
  },
  handles: ({ radius, from, to }) => [
    handleToward('radius', 'Radius', (from + to) / 2, radius),
    handleToward('from', 'From', from, radius),
    handleToward('to', 'To', to, radius),
  ],
  pull: (shape, id, { reach, degrees, even }) =>
    id === 'from' || id === 'to'
      ? { ...shape, [id]: nearTo(stepped(degrees, even), shape[id]) }
      : { ...shape, radius: reach },
  inBox: ({ frame, radius }) => ({ kind: 'arc', ...frame, radius, from: -90, to: 90 }),
  grown: (shape, k) => ({ ...shape, radius: shape.radius * k }),
};
