import { seededRandom } from '../../num';
import { ContourBuilder } from '../../outline';
import { fromTop, handleToward, pullRim, RADIUS, type ShapeFrame, type ShapeKindDefinition } from '../shape-kind';

export interface BlobSource extends ShapeFrame {
  readonly kind: 'blob';
  readonly radius: number;
  readonly lobes: number;
  /** How far lobes stray from the circle, as a share of the radius. */
  readonly wobble: number;
  readonly seed: number;
}

export const blob: ShapeKindDefinition<BlobSource> = {
  parameters: [
    RADIUS,
    { key: 'lobes', label: 'Lobes', min: 3, max: 60, whole: true },
    { key: 'wobble', label: 'Wobble', unit: '%', min: 0, max: 0.9, step: 0.01 },
    { key: 'seed', label: 'Seed', min: 0, max: 999_999, whole: true },
  ],
  /** Lobes of seeded random reach, joined by a closed Catmull–Rom spline (Catmull & Rom, 1974) as cubics. */
  build({ radius, lobes, wobble, seed }) {
    if (!(radius > 0)) return [];
    const random = seededRandom(seed);
    const reach = Array.from({ length: lobes }, () => radius * (1 + wobble * (2 * random() - 1)));
    const at = (i: number): [number, number] => {
      const k = ((i % lobes) + lobes) % lobes;
      const angle = fromTop((360 * k) / lobes);
      return [reach[k] * Math.cos(angle), reach[k] * Math.sin(angle)];
    };
    // For few lobes the spline's handles (a sixth of the chord) fall short of a circle's; this factor makes an even blob round.
    const step = (2 * Math.PI) / lobes;
    const k = ((4 / 3) * Math.tan(step / 4)) / (2 * Math.sin(step));
    const builder = new ContourBuilder(...at(0));
    for (let i = 0; i < lobes; i++) {
      const [p0, p1, p2, p3] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
      builder.cubicTo(
        p1[0] + (p2[0] - p0[0]) * k,
        p1[1] + (p2[1] - p0[1]) * k,
        p2[0] - (p3[0] - p1[0]) * k,
        p2[1] - (p3[1] - p1[1]) * k,
        ...p2,
      );
    }
    return [builder.finish(true)];
  },
  handles: ({ radius }) => [handleToward('radius', 'Radius and turn', 0, radius)],
  pull: (shape, _id, to) => pullRim(shape, to),
  inBox: ({ frame, radius, seed }) => ({ kind: 'blob', ...frame, radius: radius * 0.85, lobes: 7, wobble: 0.18, seed }),
  grown: (shape, k) => ({ ...shape, radius: shape.radius * k }),
};
