import { DEFAULT_EASING, type Easing, ease } from '../../easing';
import { planSoundShift, shiftInput } from '../../frame';
import type { ShiftPlan } from '../../morph';
import { anchorCount, type Outline } from '../../outline';
import type { BlendSpace } from '../../paint';
import {
  AS_DRAWN,
  emptyPiece,
  type IdSource,
  newFigure,
  newPose,
  newShift,
  type Part,
  type Piece,
  recordOfContour,
  type Shift,
} from '../../piece';
import type { SvgShape } from '../../svg';
import { READING_COST, type ReadingBudget } from '../document/budget';
import { DrawnLines } from './drawn-lines';
import { fittedCurve } from './fitted-easing';
import { plainOutline } from './plain-outline';
import { PlannedWay } from './planned-way';
import { Mixer } from './sample';
import { isFollowed } from './segment';
import { type Beside, type ShapeSample, shapeSample } from './shape-sample';

/** What is decided for a way; all else the program finds. */
export type WayChoices = Partial<Pick<Shift, 'method' | 'match'>>;

/** A way that the program finds by itself between two looks, when a file goes the same way. */
export interface OwnWay {
  readonly easing: Easing;
  readonly space: BlendSpace;
}

/** How far what is found may lie beside what the file shows, px. */
const WITHIN_PX = 0.1;
/** Moments of a way at which it is held against the file. */
const MOMENTS = 12;

/** What is tried for a way. */
interface WaySearch {
  readonly curves: readonly Easing[];
  readonly spaces: readonly BlendSpace[];
  readonly choices: WayChoices;
  /** Shares of the way at which the file has keys, ascending, the last 1. */
  readonly keys: readonly number[];
}

/**
 * A look as the program would have it: outlines that nothing was added to for the sake of a way, with names for their anchors. Shapes that are nothing but
 * points are left out.
 */
export function plainSample(sample: ShapeSample, beside: Beside, newId: IdSource): ShapeSample {
  const shapes = sample.shapes
    .map((shape): SvgShape => ({ ...shape, outline: withNames(plainOutline(shape.outline), newId) }))
    .filter(({ outline }) => outline.contours.length > 0);
  return shapeSample(shapes, beside);
}

const withNames = ({ contours, fillRule }: Outline, newId: IdSource): Outline => ({
  fillRule,
  contours: contours.map((contour) => ({
    ...contour,
    anchorIds: Array.from({ length: anchorCount(contour) }, () => newId('a')),
  })),
});

/**
 * Finds out whether the program goes from one look to another by itself as a file does that was made of such a way. The same outlines, point by point, at the
 * same moments by one easing. `at` is what the file shows at shares of the way.
 * @returns null where it does not, or where finding out would take too long
 */
export function ownWay(
  from: ShapeSample,
  to: ShapeSample,
  at: (share: number) => ShapeSample,
  { curves, spaces, choices, keys }: WaySearch,
  budget: ReadingBudget,
): OwnWay | null {
  if (from.shapes.length === 0 || to.shapes.length === 0) return null;
  if (!budget.take(costOf(from, to))) return null;
  const planned = waysBetween(from, to, choices);
  if (!planned) return null;
  const way = new PlannedWay(planned.map(({ plan }) => plan));
  const shares = momentsOf(keys);
  const inTurn = [...shares.keys()].sort((i, j) => Math.abs(shares[i] - 0.5) - Math.abs(shares[j] - 0.5));
  const seen = shares.map(at);
  if (!seen.every(({ shapes }) => shapes.length === way.shapes)) return null;
  const outlines = seen.map(({ shapes }) => shapes.map(({ outline }) => new DrawnLines(outline)));
  const fits = (easing: Easing): boolean =>
    isFollowed(easing) && inTurn.every((i) => way.strayOf(outlines[i], ease(easing, shares[i])) <= WITHIN_PX);
  // Most that do not go this way show it in the middle.
  const [middle] = inTurn;
  if (progressAt(way, outlines[middle]) === null) return null;
  const easing =
    [DEFAULT_EASING, LINEAR, ...curves].find(fits) ?? foundEasing(way, outlines, shares, inTurn)?.find(fits);
  if (!easing) return null;
  // What comes or goes on the way keeps its paint.
  const [first, last] = [
    paintOf(planned.map(({ a, b }) => a ?? (b as SvgShape))),
    paintOf(planned.map(({ a, b }) => b ?? (a as SvgShape))),
  ];
  if (first.kind !== last.kind) return null;
  const space = spaces.find((each) => {
    const mixer = new Mixer(first, last, each);
    return seen.every((sample, i) => mixer.isNear(withoutOutlines(sample), ease(easing, shares[i])));
  });
  return space ? { easing, space } : null;
}

const LINEAR: Easing = { kind: 'linear' };

/** How many segments a look has. */
export const segmentsIn = ({ shapes }: ShapeSample): number =>
  shapes.reduce((sum, { outline }) => sum + segmentsOf(outline), 0);

const segmentsOf = ({ contours }: Outline): number => contours.reduce((sum, { points }) => sum + points.length / 6, 0);

/** Work of planning all shapes of a way, each with its dearest partner where there are more of them on one side. */
const costOf = (from: ShapeSample, to: ShapeSample): number =>
  from.shapes.length === to.shapes.length
    ? from.shapes.reduce((sum, { outline }, i) => sum + costOfPlan(outline, to.shapes[i].outline), 0)
    : from.shapes.reduce(
        (sum, { outline }) => sum + Math.max(...to.shapes.map((other) => costOfPlan(outline, other.outline))),
        0,
      );

/** Where contours can become one another in several ways, all of these are planned; powers as measured. */
function costOfPlan(from: Outline, to: Outline): number {
  const contours = from.contours.length * to.contours.length;
  const segments = segmentsOf(from) * segmentsOf(to);
  return READING_COST.plan * contours ** 1.75 + READING_COST.planSegments * segments ** 1.5;
}

/** Shares of a way at which it is looked at: evenly, and at each key of the file and half-way to it, where a spring or a bounce turns. */
function momentsOf(keys: readonly number[]): number[] {
  const even = Array.from({ length: MOMENTS }, (_, i) => (i + 0.5) / MOMENTS);
  const own = keys.flatMap((key, i) => [((keys[i - 1] ?? 0) + key) / 2, key]).filter((share) => share > 0 && share < 1);
  const all = [...even, ...own].sort((p, q) => p - q);
  return all.filter((share, i) => i === 0 || share - all[i - 1] > LEAST_APART);
}
/** Moments are so far from each other, as shares of a way. */
const LEAST_APART = 1e-3;

/** The progress at which a way shows what is seen; null where it does not. */
function progressAt(way: PlannedWay, seen: readonly DrawnLines[]): number | null {
  const progress = way.progressOf(seen, WITHIN_PX);
  return progress !== null && way.strayOf(seen, progress) <= WITHIN_PX ? progress : null;
}

/** Easings by which a planned way may go as a file does; null where it does not go the file's way at all. */
function foundEasing(
  way: PlannedWay,
  outlines: readonly (readonly DrawnLines[])[],
  shares: readonly number[],
  inTurn: readonly number[],
): Easing[] | null {
  const progresses: number[] = [];
  for (const i of inTurn) {
    const progress = progressAt(way, outlines[i]);
    if (progress === null) return null;
    progresses[i] = progress;
  }
  return [fittedCurve(shares, progresses)];
}

/** Paint and pen alone. */
export const withoutOutlines = ({ shapes }: ShapeSample): ShapeSample => paintOf(shapes);

const paintOf = (shapes: readonly SvgShape[]): ShapeSample =>
  shapeSample(shapes.map((shape) => ({ ...shape, outline: { contours: [], fillRule: 'nonzero' } })));

/** How one shape becomes another, or comes or goes: then one of them is absent. */
interface ShapeWay {
  readonly a?: SvgShape;
  readonly b?: SvgShape;
  readonly plan: ShiftPlan;
}

/** The ways of all shapes between two looks, in painting order; null where none is sound, or a file cannot show them in the order of its shapes. */
function waysBetween(from: ShapeSample, to: ShapeSample, choices: WayChoices): readonly ShapeWay[] | null {
  let ids = 0;
  const newId = (prefix: string): string => `${prefix}${++ids}`;
  const parts: Record<string, Part> = {};
  const poses = [from, to].map(({ shapes }) =>
    newPose(
      newId('q'),
      'Pose',
      shapes.map(({ outline, fill, stroke }) => {
        const id = newId('p');
        const contours = outline.contours.map((contour) => recordOfContour(contour, newId));
        parts[id] = { id, name: 'Part', contours, fillRule: outline.fillRule, fill, stroke };
        return id;
      }),
    ),
  );
  const shift = { ...newShift('s', poses[0].id, poses[1].id), ...choices };
  const piece: Piece = {
    ...emptyPiece('own', 'Own'),
    figures: { f: { ...newFigure('f', 'Figure'), poses: poses.map(({ id }) => id), rail: ['s'] } },
    figureOrder: ['f'],
    poses: Object.fromEntries(poses.map((pose) => [pose.id, { ...pose, placement: AS_DRAWN }])),
    parts,
    shifts: { s: shift },
  };
  const planned = planSoundShift(shiftInput(piece, shift))?.parts;
  if (!planned) return null;
  const shapeOf = (part: string | undefined, side: number): SvgShape | undefined =>
    part === undefined ? undefined : [from, to][side].shapes[poses[side].parts.indexOf(part)];
  return planned.map(({ a, b, plan }) => ({ a: shapeOf(a, 0), b: shapeOf(b, 1), plan }));
}
