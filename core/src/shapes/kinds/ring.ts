import { appendArc, ContourBuilder, ellipseContour, reverseContour } from '../../outline';
import {
  ANGLES,
  clampTurn,
  fromTop,
  handleToward,
  length,
  nearTo,
  type ShapeFrame,
  type ShapeKindDefinition,
  stepped,
} from '../shape-kind';

/** Angles in degrees clockwise from the top; 360 between them is a whole ring. */
export interface RingSource extends ShapeFrame {
  readonly kind: 'ring';
  readonly outer: number;
  readonly inner: number;
  readonly from: number;
  readonly to: number;
}

export const ring: ShapeKindDefinition<RingSource> = {
  parameters: [length('outer', 'Outer radius'), length('inner', 'Inner radius'), ...ANGLES],
  build({ outer: r1, inner: r2, from, to }) {
    const outer = Math.max(r1, r2);
    const inner = Math.max(0, Math.min(r1, r2));
    const turn = clampTurn(from, to) - from;
    if (!(outer > inner) || turn === 0) return [];
    if (Math.abs(turn) >= 360) {
      const whole = ellipseContour(0, 0, outer, outer);
      return inner > 0 ? [whole, reverseContour(ellipseContour(0, 0, inner, inner))] : [whole];
    }
    const [a, b] = turn > 0 ? [fromTop(from), fromTop(from + turn)] : [fromTop(from + turn), fromTop(from)];
    const builder = new ContourBuilder(outer * Math.cos(a), outer * Math.sin(a));
    appendArc(builder, 0, 0, outer, a, b);
    builder.lineTo(inner * Math.cos(b), inner * Math.sin(b));
    if (inner > 0) appendArc(builder, 0, 0, inner, b, a);
    return [builder.finish(true)];
  },
  handles({ outer, inner, from, to }) {
    const middle = (from + to) / 2;
    return [
      handleToward('outer', 'Outer radius', middle, outer),
      handleToward('inner', 'Inner radius', middle, inner),
      handleToward('from', 'From', from, (outer + inner) / 2),
      handleToward('to', 'To', to, (outer + inner) / 2),
    ];
  },
  pull(shape, id, { reach, degrees, even }) {
    if (id === 'outer' || id === 'inner') return { ...shape, [id]: reach };
    return id === 'from' || id === 'to' ? { ...shape, [id]: nearTo(stepped(degrees, even), shape[id]) } : shape;
  },
  inBox: ({ frame, radius }) => ({ kind: 'ring', ...frame, outer: radius, inner: radius * 0.6, from: 0, to: 270 }),
  grown: (shape, k) => ({ ...shape, outer: shape.outer * k, inner: shape.inner * k }),
};
