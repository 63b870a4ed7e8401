import { convexHull, hullDiameter } from '../vec';
import { findCrossings } from './crossings';
import { endOutline } from './end-outline';
import { evaluate } from './evaluate';
import { FillMeter } from './fill-area';
import type { ShiftPlan } from './plan';
import { InBetweenProbe, isTangle, MOST_CROSSINGS, NO_CROSSINGS } from './probe';

/** A curl shorter than this share of the size does not count as a fold. */
export const LEAST_LOOP_REL = 0.005;
/** How coarsely in-betweens are looked at when candidates are compared, as a share of the size. */
const COARSE_REL = 0.0015;
/** Edges shorter than this share of the size say nothing about direction. */
const LEAST_EDGE_REL = 0.004;
/** The yardstick of the penalties: about the longer side of a box round the ends, but the same however they are turned. */
const SIZE_OF_DIAMETER = 0.85;
/** The convex hull of both ends of a plan. */
export const hullOfEnds = ({ from, to }: ShiftPlan): Float64Array => {
  const points = new Float64Array(from.length + to.length);
  points.set(from);
  points.set(to, from.length);
  return convexHull(points);
};
/** The size of a hull, the same however it is turned, px. */
export const steadySize = (hull: Float64Array): number => SIZE_OF_DIAMETER * hullDiameter(hull);
const ROWS = 96;
const FIRST_LOOK = 15;
const SECOND_LOOK = 39;

/** What candidates are compared by: 0 is as good as it gets. */
export interface Judgement {
  readonly penalty: number;
  readonly folds: boolean;
}

/** Moments of the first look, and between them those of the second: coarse in-betweens miss thin folds near the ends. */
const FIRST_TIMES = Array.from({ length: FIRST_LOOK }, (_, k) => (k + 1) / (FIRST_LOOK + 1));
const SECOND_TIMES = Array.from({ length: SECOND_LOOK }, (_, k) => (k + 0.5) / SECOND_LOOK);

/** A plan of more numbers than this (4,000 segments) is looked at less often. */
const NUMBERS_OF_LARGE = 24_000;
const everyOther = (times: readonly number[]): number[] => times.filter((_, k) => k % 2 === 0);

/** Judges the in-betweens of one plan by what the eye minds: folds, thinning, ballooning, leaving the in-between, crossings, holes outside. */
export class Judge {
  private readonly probe: InBetweenProbe;
  private readonly fill: FillMeter | undefined;
  private readonly inBetween: Float64Array;
  private readonly box = Float64Array.of(Infinity, Infinity, -Infinity, -Infinity);
  /** Hull of both ends: unlike their box it does not depend on how they are turned. */
  private readonly hull: Float64Array;
  private readonly size: number;
  private readonly baseFolds: number;
  private readonly baseCrossings: number;
  private readonly sign: number;
  private readonly areas: readonly [number, number];
  private readonly lengths: readonly [number, number];
  /** Total turning of the more restless end, rad, and the shortest edge that counts for it. */
  private readonly turning: number;
  private readonly leastEdge: number;

  constructor(private readonly plan: ShiftPlan) {
    this.hull = hullOfEnds(plan);
    this.size = steadySize(this.hull) || 1;
    this.probe = new InBetweenProbe(plan, COARSE_REL * this.size);
    this.inBetween = new Float64Array(plan.from.length);
    this.leastEdge = LEAST_EDGE_REL * this.size;
    const ends = (['first', 'second'] as const).map((end) => {
      this.probe.take(end === 'first' ? plan.from : plan.to);
      this.probe.growBox(this.box);
      return {
        ...this.probe.countCrossings(LEAST_LOOP_REL * this.size, end),
        area: this.probe.signedArea(),
        length: this.probe.length(end),
        turning: this.probe.turning(this.leastEdge, end),
      };
    });
    const counted = (['first', 'second'] as const).map((end, k) => endCrossings(plan, end) ?? ends[k]);
    this.baseFolds = Math.max(counted[0].folds, counted[1].folds);
    this.baseCrossings = Math.max(counted[0].between, counted[1].between);
    this.sign = ends[0].area + ends[1].area < 0 ? -1 : 1;
    const open = plan.contours.every(({ closed }) => !closed);
    // A single line may always show three quarters of a turn.
    this.turning = Math.max(ends[0].turning, ends[1].turning, (open ? 1.5 : 1) * Math.PI);
    this.lengths = [ends[0].length, ends[1].length];
    if (plan.contours.length > 1) {
      const margin = 0.2 * this.size;
      this.fill = new FillMeter(plan, this.probe, this.box[1] - margin, this.box[3] + margin, ROWS);
      const filled = [plan.from, plan.to].map((end) => {
        this.probe.take(end);
        return this.fill?.measure(this.sign).filled ?? 0;
      });
      this.areas = [filled[0], filled[1]];
    } else this.areas = [Math.abs(ends[0].area), Math.abs(ends[1].area)];
  }

  /** A first look at 15 moments, enough to compare; of thousands of segments at 8. */
  firstLook(): Judgement {
    return this.look(this.large ? everyOther(FIRST_TIMES) : FIRST_TIMES);
  }

  /** A second look at 39 others; of thousands of segments at 10. */
  secondLook(): Judgement {
    return this.look(this.large ? everyOther(everyOther(SECOND_TIMES)) : SECOND_TIMES);
  }

  private get large(): boolean {
    return this.plan.from.length > NUMBERS_OF_LARGE;
  }

  private look(times: readonly number[]): Judgement {
    const { plan, probe, inBetween, size } = this;
    const smaller = Math.min(...this.areas);
    const larger = Math.max(...this.areas);
    const hasArea = smaller > 1e-6 * size * size;
    const longer = Math.max(...this.lengths);
    const shorter = Math.min(...this.lengths);
    let foldedInBetweens = 0;
    let mostFolds = 0;
    let crossingInBetweens = 0;
    let mostCrossings = 0;
    let leastArea = Infinity;
    let mostArea = 0;
    let leastLength = Infinity;
    let mostLength = 0;
    let inverted = 0;
    let out = 0;
    let turning = 0;
    for (const time of times) {
      probe.take(evaluate(plan, time, inBetween));
      // A tangle at an end can become no worse.
      const { folds, between } = isTangle(this.baseFolds, this.baseCrossings)
        ? NO_CROSSINGS
        : probe.countCrossings(LEAST_LOOP_REL * size);
      if (folds > this.baseFolds) foldedInBetweens++;
      mostFolds = Math.max(mostFolds, folds - this.baseFolds);
      if (between > this.baseCrossings) crossingInBetweens++;
      mostCrossings = Math.max(mostCrossings, between - this.baseCrossings);
      const length = probe.length();
      leastLength = Math.min(leastLength, length);
      mostLength = Math.max(mostLength, length);
      out = Math.max(out, probe.outside(this.hull));
      turning = Math.max(turning, probe.turning(this.leastEdge));
      if (!hasArea) continue;
      if (this.fill) {
        const area = this.fill.measure(this.sign);
        leastArea = Math.min(leastArea, area.filled);
        mostArea = Math.max(mostArea, area.filled);
        inverted = Math.max(inverted, area.inverted);
      } else {
        // Signed, so that an outline turned inside out counts as none.
        const area = probe.signedArea() * this.sign;
        leastArea = Math.min(leastArea, area);
        mostArea = Math.max(mostArea, area);
      }
    }
    let penalty = 0;
    if (foldedInBetweens > 0) penalty += 4 + (0.5 * foldedInBetweens * FIRST_LOOK) / times.length + 0.3 * mostFolds;
    if (crossingInBetweens > 0)
      penalty += 0.3 + (0.08 * crossingInBetweens * FIRST_LOOK) / times.length + 0.05 * Math.min(10, mostCrossings);
    if (hasArea) {
      penalty += 6 * Math.max(0, 0.7 - leastArea / smaller) + 3 * Math.max(0, mostArea / larger - 1.1);
      if (inverted > 0.002 * smaller) penalty += 2 + Math.min(4, (20 * inverted) / smaller);
    } else if (shorter > 0) penalty += 6 * Math.max(0, 0.7 - leastLength / shorter);
    if (longer > 0) penalty += 4 * Math.max(0, mostLength / longer - 1.12);
    penalty += 0.1 * Math.max(0, (100 * out) / size - 3) + 0.3 * Math.max(0, (100 * out) / size - 4.5);
    penalty += 2 * Math.max(0, turning / this.turning - (plan.contours.length > 1 ? 1.9 : 1.45));
    return { penalty, folds: foldedInBetweens > 0 };
  }
}

/** Crossings of an end's own outline, where slits or cuts would touch it; undefined where the plan's in-between is that outline. */
export function endCrossings(plan: ShiftPlan, end: 'first' | 'second'): { folds: number; between: number } | undefined {
  if (plan.contours.every(({ bridgesA, bridgesB }) => (end === 'first' ? bridgesA : bridgesB).length === 0))
    return undefined;
  const { self, between } = findCrossings(endOutline(plan, end), COARSE_REL * plan.size || 1, MOST_CROSSINGS);
  return { folds: self.filter(({ loop }) => loop >= LEAST_LOOP_REL * plan.size).length, between: between.length };
}
