import { PLAN_DEVIATION_REL } from '../num';
import { farTurns, smoothJoints } from './joints';
import { atLevel, type Rounded, roundedLevels, smoothingAt } from './melt';
import type { Method, PlanKeys } from './plan';
import { onGrid, splineKeys } from './spline-keys';
import { evaluateTurning, planTurning, type TurningPlan } from './turning';

/** Stretches between keys of a turning and of a softened way. */
const TURNING_STRETCHES = 8;
const SOFT_STRETCHES = 20;

/** A correction of the in-between at a progress: how far each number of the run is moved there, px. */
export interface Correction {
  readonly progress: number;
  readonly moves: Float64Array;
}

/** How a run travels from one end to the other. */
export interface Way {
  readonly method: Method;
  /** Roundness on the way, 0 (none) to 18. */
  readonly smoothing: number;
  readonly corrections?: readonly Correction[];
  /** Moves the whole run along at a progress, (0, 0) at the ends: a hole that its solid carries. */
  readonly carried?: (progress: number, out: Float64Array) => void;
}

/** The ways between two ends of equal structure (3n + 1 points each, px); what a way needs is computed once, when it is first asked for. */
export class RunTravel {
  readonly from: Float64Array;
  readonly to: Float64Array;
  private turning?: TurningPlan;
  private rounded?: readonly [Rounded, Rounded];

  constructor(
    from: Float64Array,
    to: Float64Array,
    readonly closed: boolean,
    private readonly size: number,
  ) {
    this.from = from.map(onGrid);
    this.to = to.map(onGrid);
  }

  /** Writes the exact in-between, before smooth joints are aligned. */
  inBetween({ method, smoothing, carried }: Way, progress: number, out: Float64Array): Float64Array {
    if (smoothing > 0 && this.closed) this.softInBetween(smoothing, progress, out);
    else if (method === 'straight') this.straightInBetween(progress, out);
    else {
      this.turning ??= planTurning(this.from, this.to, this.closed);
      evaluateTurning(this.turning, progress, out);
      if (method === 'blended')
        for (let i = 0; i < out.length; i++)
          out[i] = (out[i] + this.from[i] + (this.to[i] - this.from[i]) * progress) / 2;
    }
    if (carried) {
      const offset = new Float64Array(2);
      carried(progress, offset);
      for (let i = 0; i < out.length; i += 2) {
        out[i] += offset[0];
        out[i + 1] += offset[1];
      }
    }
    return out;
  }

  /** Keys for a way; undefined when it is straight. */
  keys(way: Way): PlanKeys | undefined {
    const corrections = [...(way.corrections ?? [])].sort((p, q) => p.progress - q.progress);
    const still = way.carried && this.isStill(way);
    const carried = still ? undefined : way.carried;
    const soft = way.smoothing > 0 && this.closed;
    if (way.method === 'straight' && !soft && corrections.length === 0 && !carried) return undefined;
    const stretches = soft ? SOFT_STRETCHES : TURNING_STRETCHES;
    const times = Array.from({ length: stretches + 1 }, (_, k) => k / stretches);
    for (const { progress } of corrections) {
      const near = times.findIndex((time) => Math.abs(time - progress) < 0.5 / stretches);
      // A key is moved to where the correction is, so that it is met exactly.
      if (near > 0 && near < times.length - 1) times[near] = progress;
      else times.push(progress);
      times.sort((p, q) => p - q);
    }
    const moved = { ...way, carried };
    const inBetweens = times.map((time) => {
      if (time === 0) return this.from;
      if (time === 1) return this.to;
      return this.inBetween(moved, time, new Float64Array(this.from.length));
    });
    if (corrections.length > 0) addCorrections(times, inBetweens, corrections);
    return splineKeys(times, inBetweens);
  }

  /** Joints to be aligned on a way. */
  joints(way: Way): Int32Array {
    return smoothJoints(this.from, this.to, this.closed, way.method !== 'straight' || way.smoothing > 0);
  }

  /** Joints that are turned on a straight way. */
  turns(way: Way): Float64Array {
    const straight = way.method === 'straight' && !(way.smoothing > 0);
    return straight ? farTurns(this.from, this.to, this.closed) : new Float64Array(0);
  }

  private straightInBetween(progress: number, out: Float64Array): void {
    const { from, to } = this;
    for (let i = 0; i < out.length; i++) out[i] = from[i] + (to[i] - from[i]) * progress;
  }

  private softInBetween(smoothing: number, progress: number, out: Float64Array): void {
    this.rounded ??= [roundedLevels(this.from, this.size), roundedLevels(this.to, this.size)];
    const other = atLevel(this.rounded[1], smoothingAt(1 - progress, smoothing), new Float64Array(out.length));
    atLevel(this.rounded[0], smoothingAt(progress, smoothing), out);
    for (let i = 0; i < out.length; i++) out[i] += (other[i] - out[i]) * progress;
  }

  /** Is what carries it too little to be seen? */
  private isStill({ carried }: Way): boolean {
    const offset = new Float64Array(2);
    return [0.25, 0.5, 0.75].every((progress) => {
      carried?.(progress, offset);
      return Math.hypot(offset[0], offset[1]) <= PLAN_DEVIATION_REL * this.size;
    });
  }
}

/** Adds corrections to in-betweens at key times: in full where they were made, fading smoothly towards the ends and to the next correction. */
function addCorrections(
  times: readonly number[],
  inBetweens: Float64Array[],
  corrections: readonly Correction[],
): void {
  const n = inBetweens[0].length;
  const none = new Float64Array(n);
  const stops = [{ progress: 0, moves: none }, ...corrections, { progress: 1, moves: none }];
  const keys = splineKeys(
    stops.map(({ progress }) => progress),
    stops.map(({ moves }) => moves),
  );
  times.forEach((time, k) => {
    if (time === 0 || time === 1) return;
    let s = 0;
    while (s < stops.length - 2 && time > stops[s + 1].progress) s++;
    const width = keys.times[s + 1] - keys.times[s];
    const u = (time - keys.times[s]) / width;
    const v = 1 - u;
    const inBetween = inBetweens[k];
    for (let i = 0; i < n; i++) {
      const a = s * n + i;
      const b = a + n;
      // At the ends the correction comes and goes without a jolt: there its slope is zero.
      const slopeA = s === 0 ? 0 : keys.slopes[a];
      const slopeB = s === stops.length - 2 ? 0 : keys.slopes[b];
      inBetween[i] +=
        v * v * (1 + 2 * u) * keys.values[a] +
        width * u * v * v * slopeA +
        u * u * (1 + 2 * v) * keys.values[b] -
        width * u * u * v * slopeB;
    }
  });
}
