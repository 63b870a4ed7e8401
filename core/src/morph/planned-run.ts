import type { Outline } from '../outline';
import { ENGINE_VERSION, type PlanContour, type ShiftPlan } from './plan';
import type { RunTravel, Way } from './travel';

/** How far outside 0..1 progress is followed at most. */
export const MOST_OVERSHOOT = 0.3;

/** Two ends of equal structure, before it is said how they travel. */
export interface RunSource {
  readonly travel: RunTravel;
  readonly closed: boolean;
  readonly role: PlanContour['role'];
  readonly a?: number;
  readonly b?: number;
  readonly reversed?: boolean;
  readonly bridgesA: readonly number[];
  readonly bridgesB: readonly number[];
  /** For each anchor its share of the first run's length from the start of the pair; absent for contours that come or go alone. */
  readonly shares?: Float64Array;
  /** How far the segments stray from the outlines, px. */
  readonly deviation: number;
}

/** A contour of a plan before it has its place among the others. */
export interface PlannedRun extends Omit<PlanContour, 'at'> {
  readonly from: Float64Array;
  readonly to: Float64Array;
}

/** Computes the keys and joints of a run on a way. */
export function planRun({ travel, closed, role, a, b, reversed, bridgesA, bridgesB }: RunSource, way: Way): PlannedRun {
  return {
    from: travel.from,
    to: travel.to,
    segments: (travel.from.length / 2 - 1) / 3,
    closed,
    role,
    a,
    b,
    reversed,
    keys: travel.keys(way),
    begin: 0,
    end: 1,
    joints: travel.joints(way),
    turns: travel.turns(way),
    bridgesA,
    bridgesB,
    method: way.method,
    smoothing: way.smoothing,
  };
}

/** Puts runs one after the other into one plan. */
export function assemble(
  runs: readonly PlannedRun[],
  fillRule: Outline['fillRule'],
  size: number,
  endError = 0,
): ShiftPlan {
  const total = runs.reduce((sum, run) => sum + run.from.length, 0);
  const from = new Float64Array(total);
  const to = new Float64Array(total);
  const contours: PlanContour[] = [];
  let at = 0;
  for (const { from: runFrom, to: runTo, ...run } of runs) {
    from.set(runFrom, at);
    to.set(runTo, at);
    contours.push({ ...run, at });
    at += runFrom.length;
  }
  return {
    engine: ENGINE_VERSION,
    fillRule,
    contours,
    from,
    to,
    overshoot: { below: MOST_OVERSHOOT, above: MOST_OVERSHOOT },
    size,
    endError,
  };
}
