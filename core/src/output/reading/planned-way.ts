import { evaluate, inBetweenOutline, type ShiftPlan } from '../../morph';
import { DrawnLines } from './drawn-lines';

/** As far as ways are followed beyond their ends, and the steps in which that is gone through. */
const [LEAST, MOST, STEPS] = [-0.25, 1.25, 24];
const STEP = (MOST - LEAST) / STEPS;
/** Between two steps a way goes no farther than so many times the distance between them. */
const SURE = 1.5;
/** Progress is found as exactly as this. */
const EXACT_PROGRESS = 1e-4;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The plans of one way, one a shape, as lines that are held against what a file shows. */
export class PlannedWay {
  private readonly steps: DrawnLines[][] = [];

  constructor(private readonly plans: readonly ShiftPlan[]) {}

  get shapes(): number {
    return this.plans.length;
  }

  /** How far in-betweens at a progress lie from what is seen at most, px; `seen` has the lines of each shape. */
  strayOf(seen: readonly DrawnLines[], progress: number): number {
    return farthest(this.linesAt(progress), seen);
  }

  /**
   * The progress at which in-betweens lie nearest to what is seen: the nearest of even steps, then golden sections (Kiefer 1953).
   * @param within what is seen has to lie as near as this, px
   * @returns null where what is seen lies farther from the nearest step than the steps around it do: the way does not go through it
   */
  progressOf(seen: readonly DrawnLines[], within: number): number | null {
    let best = 0;
    let least = Infinity;
    for (let k = 0; k <= STEPS; k++) {
      const off = offOf(this.step(k), seen);
      if (off >= least) continue;
      least = off;
      best = k;
    }
    const around = [best - 1, best + 1].map((k) => farthest(this.step(k), this.step(best)));
    if (Math.sqrt(least / this.plans.length) > within + SURE * Math.max(...around)) return null;
    const offAt = (progress: number): number => offOf(this.linesAt(progress), seen);
    let [a, b] = [LEAST + STEP * (best - 1), LEAST + STEP * (best + 1)];
    let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
    let [offC, offD] = [offAt(c), offAt(d)];
    while (b - a > EXACT_PROGRESS) {
      if (offC < offD) {
        [b, d, offD] = [d, c, offC];
        c = b - GOLDEN * (b - a);
        offC = offAt(c);
      } else {
        [a, c, offC] = [c, d, offD];
        d = a + GOLDEN * (b - a);
        offD = offAt(d);
      }
    }
    return (a + b) / 2;
  }

  /** In-betweens at one of the steps, also one before the first and after the last. They are drawn once. */
  private step(k: number): readonly DrawnLines[] {
    this.steps[k + 1] ??= this.linesAt(LEAST + STEP * k);
    return this.steps[k + 1];
  }

  private linesAt(progress: number): DrawnLines[] {
    return this.plans.map((plan) => new DrawnLines(inBetweenOutline(plan, evaluate(plan, progress))));
  }
}

const farthest = (lines: readonly DrawnLines[], others: readonly DrawnLines[]): number =>
  lines.reduce((most, each, i) => Math.max(most, each.farthestFrom(others[i]), others[i].farthestFrom(each)), 0);

const offOf = (lines: readonly DrawnLines[], seen: readonly DrawnLines[]): number =>
  seen.reduce((sum, each, i) => sum + each.meanSquareFrom(lines[i]), 0);
