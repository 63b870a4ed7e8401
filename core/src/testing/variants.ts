import { type Contour, type Outline, reverseContour, startAt, subdivide, transformOutline } from '../outline';
import { IDENTITY, type Matrix, rotation, scaling, translation } from '../vec';

/** The same pair of outlines told otherwise, and how its frames come back to those of the pair as it was. */
export interface Variant {
  readonly name: string;
  readonly a: Outline;
  readonly b: Outline;
  /** Maps a frame of the variant onto the frame of the pair. */
  readonly back: Matrix;
  /** The variant's frame at p is to be the pair's at 1 − p. */
  readonly swapped?: boolean;
}

const each = (outline: Outline, change: (contour: Contour) => Contour): Outline => ({
  ...outline,
  contours: outline.contours.map(change),
});

/** Ways to tell one pair that must not change what happens in between. */
export function variantsOf(a: Outline, b: Outline): Variant[] {
  const together = (name: string, there: Matrix, back: Matrix): Variant => ({
    name,
    a: transformOutline(a, there),
    b: transformOutline(b, there),
    back,
  });
  return [
    {
      name: 'started elsewhere',
      a: each(a, (contour) => startAt(contour, 2)),
      b: each(b, (contour) => startAt(contour, 1)),
      back: IDENTITY,
    },
    { name: 'run the other way', a: each(a, reverseContour), b, back: IDENTITY },
    together('moved', translation(37, -12), translation(-37, 12)),
    together('scaled', scaling(2.5), scaling(0.4)),
    together('turned', rotation(0.7), rotation(-0.7)),
    { name: 'with points added', a: each(a, (contour) => subdivide(contour, 2)), b, back: IDENTITY },
    { name: 'swapped', a: b, b: a, back: IDENTITY, swapped: true },
  ];
}
