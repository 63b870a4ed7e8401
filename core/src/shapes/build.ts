import { assertNever } from '../errors';
import { seededRandom } from '../num';
import { appendArc, type Contour, ContourBuilder, ellipseContour, reverseContour, roundedPolygon } from '../outline';
import { multiply, rotation, transformPoints, translation } from '../vec';
import type { BlobSource, RingSource, ShapeSource } from './source';

export const RAD = Math.PI / 180;
/** Angles of shapes count from the top; the builders count from the right. */
export const fromTop = (degrees: number): number => (degrees - 90) * RAD;

/** The contours of an adjustable shape in px; solids clockwise on screen, holes the other way. None where it has no extent. */
export function shapeContours(source: ShapeSource): readonly Contour[] {
  const matrix = multiply(translation(source.x, source.y), rotation(source.rotation * RAD));
  return centred(source).map((contour) => ({
    ...contour,
    points: transformPoints(matrix, contour.points, new Float64Array(contour.points.length)),
  }));
}

/** The shape about the origin, not turned. */
function centred(source: ShapeSource): readonly Contour[] {
  switch (source.kind) {
    case 'rectangle': {
      const w = source.width / 2;
      const h = source.height / 2;
      return w > 0 && h > 0 ? [roundedPolygon([-w, -h, w, -h, w, h, -w, h], source.radii)] : [];
    }
    case 'ellipse':
      return source.width > 0 && source.height > 0 ? [ellipseContour(0, 0, source.width / 2, source.height / 2)] : [];
    case 'polygon':
      return source.radius > 0 ? [spokes(Array(source.sides).fill(source.radius), source.rounding)] : [];
    case 'star': {
      const radii = Array.from({ length: 2 * source.points }, (_, i) =>
        i % 2 === 0 ? source.radius : source.radius * source.inner,
      );
      return source.radius > 0 ? [spokes(radii, source.rounding)] : [];
    }
    case 'ring':
      return ring(source);
    case 'capsule': {
      const h = source.thickness / 2;
      const w = Math.max(source.length / 2, h);
      return h > 0 ? [roundedPolygon([-w, -h, w, -h, w, h, -w, h], [h, h, h, h])] : [];
    }
    case 'line': {
      const builder = new ContourBuilder(-source.length / 2, 0);
      builder.lineTo(source.length / 2, 0);
      return source.length > 0 ? [builder.finish(false)] : [];
    }
    case 'arc': {
      const [from, to] = [fromTop(source.from), fromTop(clampTurn(source.from, source.to))];
      const builder = new ContourBuilder(source.radius * Math.cos(from), source.radius * Math.sin(from));
      appendArc(builder, 0, 0, source.radius, from, to);
      return source.radius > 0 && from !== to ? [builder.finish(false)] : [];
    }
    case 'blob':
      return source.radius > 0 ? [blob(source)] : [];
    default:
      return assertNever(source);
  }
}

/** A closed polygon with corners at the given distances from the middle, evenly round from the top. */
function spokes(radii: readonly number[], rounding: number): Contour {
  const corners = radii.flatMap((r, i) => {
    const a = fromTop((360 * i) / radii.length);
    return [r * Math.cos(a), r * Math.sin(a)];
  });
  return roundedPolygon(
    corners,
    radii.map(() => rounding),
  );
}

/** Nothing goes round more than once. */
const clampTurn = (from: number, to: number): number => from + Math.min(360, Math.max(-360, to - from));

function ring({ outer: r1, inner: r2, from, to }: RingSource): readonly Contour[] {
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
}

/** Lobes of seeded random reach, joined by a closed Catmull–Rom spline (Catmull & Rom, 1974) as cubics. */
function blob({ radius, lobes, wobble, seed }: BlobSource): Contour {
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
  return builder.finish(true);
}
