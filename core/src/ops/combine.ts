import { CoreError } from '../errors';
import {
  areaCentre,
  type Contour,
  contourArea,
  contourBox,
  dashContour,
  type Outline,
  orientOutline,
  outlineBox,
  outlineSize,
  simplifyContour,
  transformOutline,
} from '../outline';
import { boxSize, emptyBox, includeBox, type Matrix, multiply, scaling, translation } from '../vec';
import type { CombineKind, PathEngine, StrokeShape } from './engine';
import { restorePoints } from './restore';

/** Half the extent that outlines are brought to before the engine sees them; the others are tried when it fails. */
const EXTENTS = [256, 203.5, 151.3];
/** Single precision leaves this share of the extent uncertain. */
const RESTORE_EPS_REL = 4e-6;
/** Areas may differ by this share of the larger before a result is refused. */
const AREA_SLACK = 1e-4;
/** An overlap smaller than this share of the smaller area is told: it is rarely meant. */
const BARE_OVERLAP = 0.002;

export interface Combination {
  readonly outline: Outline;
  /** What looks unmeant: hairline overlaps, contours that are open by a little. */
  readonly notes: readonly string[];
}

/**
 * Unites, intersects or excludes outlines, or takes the later ones from the first. Solids of the result run clockwise, holes the other way,
 * fill rule nonzero; curves stay curves and points that were there keep their exact numbers.
 *
 * @throws CoreError 'path-operation' when the engine fails or its result cannot be right
 */
export function combineOutlines(engine: PathEngine, kind: CombineKind, outlines: readonly Outline[]): Combination {
  const notes = outlines.flatMap((outline) => nearlyClosed(outline));
  const sources = outlines.map(closedOnly).filter(({ contours }) => contours.length > 0);
  if (sources.length === 0) return { outline: { contours: [], fillRule: 'nonzero' }, notes };
  const box = sources.reduce((all, outline) => includeBox(all, outlineBox(outline)), emptyBox());
  const size = boxSize(box);
  const middle: [number, number] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  for (const extent of EXTENTS) {
    const found = attempt(engine, kind, sources, middle, size, extent, notes);
    if (found) return { outline: found, notes };
  }
  throw new CoreError(
    'path-operation',
    `The outlines could not be combined (${kind}): the result was empty or its area cannot be right. Move one of them by a hair, or simplify them, and try again.`,
  );
}

function attempt(
  engine: PathEngine,
  kind: CombineKind,
  sources: readonly Outline[],
  [mx, my]: readonly [number, number],
  size: number,
  extent: number,
  notes: string[],
): Outline | undefined {
  const k = size > 0 ? (2 * extent) / size : 1;
  const into: Matrix = multiply(scaling(k), translation(-mx, -my));
  const back: Matrix = multiply(translation(mx, my), scaling(1 / k));
  const none: Outline = { contours: [], fillRule: 'nonzero' };
  const scaled = sources.map((outline) => engine.combine('unite', transformOutline(outline, into), none));
  if (scaled.some((outline) => outline === null)) return undefined;
  const clean = scaled as Outline[];
  let result = clean[0];
  let area = filledArea(result);
  for (const next of clean.slice(1)) {
    const other = filledArea(next);
    const both = kind === 'subtract' ? null : engine.combine('intersect', result, next);
    const shared = both ? filledArea(both) : 0;
    if (kind === 'unite' && shared > 0 && shared < BARE_OVERLAP * Math.min(area, other))
      notes.push('Two of the outlines overlap by no more than a hairline: they may only have been meant to touch');
    if (shared > Math.min(area, other) + AREA_SLACK * Math.max(area, other)) return undefined;
    const combined = engine.combine(kind, result, next);
    if (!combined) return undefined;
    const now = filledArea(combined);
    const slack = AREA_SLACK * Math.max(area, other);
    const expected =
      kind === 'unite'
        ? area + other - shared
        : kind === 'intersect'
          ? shared
          : kind === 'exclude'
            ? area + other - 2 * shared
            : undefined;
    if (expected !== undefined && both && Math.abs(now - expected) > slack) return undefined;
    if (kind === 'subtract' && (now > area + slack || now < area - other - slack)) return undefined;
    result = combined;
    area = now;
  }
  const epsilon = RESTORE_EPS_REL * size;
  const restored = restorePoints(transformOutline(result, back), sources, epsilon);
  const solid = restored.contours.filter((contour) => Math.abs(contourArea(contour)) > epsilon * size * 0.01);
  return orientOutline({ contours: solid, fillRule: 'evenodd' }).outline;
}

/** The filled area of outlines whose contours do not cross, px². */
export const filledArea = (outline: Outline): number => areaCentre(outline).area;

/** Open contours are filled as if a straight line closed them. */
const closedOnly = (outline: Outline): Outline => ({
  ...outline,
  contours: outline.contours.filter((contour) => boxSize(contourBox(contour)) > 0),
});

/** One sentence for each contour that looks closed but is open by a little. */
export function nearlyClosed(outline: Outline): string[] {
  return outline.contours
    .filter((contour) => !contour.closed)
    .flatMap((contour) => {
      const p = contour.points;
      const gap = Math.hypot(p[p.length - 2] - p[0], p[p.length - 1] - p[1]);
      const size = boxSize(contourBox(contour));
      return gap < 0.03 * size ? [`A contour looks closed but is open by ${+gap.toFixed(3)} px`] : [];
    });
}

/**
 * The area that a stroke covers, as an outline: refitted so that its curves have few points, to a two-hundredth of the width.
 * @throws CoreError 'path-operation' when the engine fails, 'option' when dashes are too fine
 */
export function outlineOfStroke(engine: PathEngine, outline: Outline, stroke: StrokeShape): Outline {
  const size = Math.max(outlineSize(outline), stroke.width);
  const box = outlineBox(outline);
  const k = size > 0 ? EXTENTS[0] / size : 1;
  const [mx, my] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const into = multiply(scaling(k), translation(-mx, -my));
  // A dot is drawn by the caps alone.
  const least = stroke.cap === 'butt' ? 0 : stroke.width / 1000;
  const contours = outline.contours.flatMap((contour) => dashContour(contour, stroke.dash, stroke.dashOffset, least));
  if (contours.length === 0) return { contours, fillRule: 'evenodd' };
  const { width, cap, join, miter } = stroke;
  const drawn = engine.stroke(transformOutline({ ...outline, contours }, into), { width: width * k, cap, join, miter });
  const united = drawn && engine.combine('unite', drawn, { contours: [], fillRule: 'nonzero' });
  if (!united)
    throw new CoreError(
      'path-operation',
      'The stroke could not be turned into an outline. Make it wider, or simplify the line.',
    );
  const back = transformOutline(united, multiply(translation(mx, my), scaling(1 / k)));
  const tidy = restorePoints(back, [], RESTORE_EPS_REL * size);
  const refitted = tidy.contours.map((contour): Contour => simplifyContour(contour, stroke.width / 200).contour);
  return orientOutline({ contours: refitted, fillRule: 'evenodd' }).outline;
}
