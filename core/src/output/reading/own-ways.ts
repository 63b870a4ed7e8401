import { DEFAULT_EASING, type Easing, ease } from '../../easing';
import { planPoseShift, shiftInput } from '../../frame';
import { evaluate, inBetweenOutline, type ShiftPlan } from '../../morph';
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
 * Finds out whether the program goes from one look to another by itself as a file does that was made of such a way: the same outlines, point by point, at the
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
  if (!budget.take(READING_COST.plan * pointsOf(from) * pointsOf(to))) return null;
  const plans = plansBetween(from, to, choices);
  if (!plans) return null;
  const shares = momentsOf(keys);
  const inTurn = [...shares.keys()].sort((i, j) => Math.abs(shares[i] - 0.5) - Math.abs(shares[j] - 0.5));
  const seen = shares.map(at);
  if (!seen.every(({ shapes }) => shapes.length === plans.length)) return null;
  const outlines = seen.map(({ shapes }) => shapes.map(({ outline }) => new DrawnLines(outline)));
  const fits = (easing: Easing): boolean =>
    isFollowed(easing) && inTurn.every((i) => strayOf(plans, outlines[i], ease(easing, shares[i])) <= WITHIN_PX);
  // Most that do not go this way show it in the middle.
  const [middle] = inTurn;
  if (strayOf(plans, outlines[middle], progressOf(plans, outlines[middle])) > WITHIN_PX) return null;
  const easing =
    [DEFAULT_EASING, LINEAR, ...curves].find(fits) ?? foundEasing(plans, outlines, shares, inTurn)?.find(fits);
  if (!easing) return null;
  const [first, last] = [withoutOutlines(from), withoutOutlines(to)];
  if (first.kind !== last.kind) return null;
  const space = spaces.find((each) => {
    const mixer = new Mixer(first, last, each);
    return seen.every((sample, i) => mixer.isNear(withoutOutlines(sample), ease(easing, shares[i])));
  });
  return space ? { easing, space } : null;
}

const LINEAR: Easing = { kind: 'linear' };

/** How many segments a look has. */
export const pointsOf = ({ shapes }: ShapeSample): number =>
  shapes.reduce((sum, { outline }) => sum + outline.contours.reduce((n, { points }) => n + points.length / 6, 0), 0);

/** Shares of a way at which it is looked at: evenly, and at each key of the file and half-way to it, where a spring or a bounce turns. */
function momentsOf(keys: readonly number[]): number[] {
  const even = Array.from({ length: MOMENTS }, (_, i) => (i + 0.5) / MOMENTS);
  const own = keys.flatMap((key, i) => [((keys[i - 1] ?? 0) + key) / 2, key]).filter((share) => share > 0 && share < 1);
  const all = [...even, ...own].sort((p, q) => p - q);
  return all.filter((share, i) => i === 0 || share - all[i - 1] > LEAST_APART);
}
/** Moments are so far from each other, as shares of a way. */
const LEAST_APART = 1e-3;

/** Easings by which plans may go as a file does; null where they do not go its way at all. */
function foundEasing(
  plans: readonly ShiftPlan[],
  outlines: readonly (readonly DrawnLines[])[],
  shares: readonly number[],
  inTurn: readonly number[],
): Easing[] | null {
  const progresses: number[] = [];
  for (const i of inTurn) {
    progresses[i] = progressOf(plans, outlines[i]);
    if (strayOf(plans, outlines[i], progresses[i]) > WITHIN_PX) return null;
  }
  return [fittedCurve(shares, progresses)];
}

/** Paint and pen alone. */
export const withoutOutlines = ({ shapes }: ShapeSample): ShapeSample =>
  shapeSample(shapes.map((shape) => ({ ...shape, outline: { contours: [], fillRule: 'nonzero' } })));

function plansBetween(from: ShapeSample, to: ShapeSample, choices: WayChoices): readonly ShiftPlan[] | null {
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
  const planned = planPoseShift(shiftInput(piece, shift)).parts;
  // Paints go with their parts: each shape has to become the one in its place.
  const inPlace = planned.every(({ a, b }, i) => a === poses[0].parts[i] && b === poses[1].parts[i]);
  return inPlace && planned.length === poses[0].parts.length ? planned.map(({ plan }) => plan) : null;
}

/** How far in-betweens at a progress lie from what is seen at most, px. */
function strayOf(plans: readonly ShiftPlan[], seen: readonly DrawnLines[], progress: number): number {
  let worst = 0;
  for (const [i, plan] of plans.entries()) {
    const lines = linesAt(plan, progress);
    worst = Math.max(worst, lines.farthestFrom(seen[i]), seen[i].farthestFrom(lines));
  }
  return worst;
}

const linesAt = (plan: ShiftPlan, progress: number): DrawnLines =>
  new DrawnLines(inBetweenOutline(plan, evaluate(plan, progress)));

const offOf = (plans: readonly ShiftPlan[], seen: readonly DrawnLines[], progress: number): number =>
  plans.reduce((sum, plan, i) => sum + seen[i].meanSquareFrom(linesAt(plan, progress)), 0);

/** As far as ways are followed beyond their ends, and the steps in which that is gone through. */
const [LEAST, MOST, STEPS] = [-0.25, 1.25, 24];
/** Progress is found as exactly as this. */
const EXACT_PROGRESS = 1e-4;

/** The progress at which in-betweens lie nearest to what is seen: coarse steps, then golden sections (Kiefer 1953). */
function progressOf(plans: readonly ShiftPlan[], seen: readonly DrawnLines[]): number {
  const step = (MOST - LEAST) / STEPS;
  let [best, least] = [0, Infinity];
  for (let k = 0; k <= STEPS; k++) {
    const off = offOf(plans, seen, LEAST + step * k);
    if (off < least) [least, best] = [off, LEAST + step * k];
  }
  let [a, b] = [best - step, best + step];
  const ratio = (Math.sqrt(5) - 1) / 2;
  let [c, d] = [b - ratio * (b - a), a + ratio * (b - a)];
  let [offC, offD] = [offOf(plans, seen, c), offOf(plans, seen, d)];
  while (b - a > EXACT_PROGRESS) {
    if (offC < offD) {
      [b, d, offD] = [d, c, offC];
      c = b - ratio * (b - a);
      offC = offOf(plans, seen, c);
    } else {
      [a, c, offC] = [c, d, offD];
      d = a + ratio * (b - a);
      offD = offOf(plans, seen, d);
    }
  }
  return (a + b) / 2;
}
