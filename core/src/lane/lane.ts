import { type Easing, ease } from '../easing';
import type { Blend } from './blend';

/** When and how something goes from one value to another; times in s. Lanes of one shift share it, so its progress is found once a frame. */
export class RampTime {
  private known = Number.NaN;
  private progress = 0;

  constructor(
    readonly start: number,
    readonly end: number,
    readonly easing: Easing,
  ) {}

  /** Eased progress at a time in s: 0 up to the start and 1 from the end on. */
  progressAt(seconds: number): number {
    if (seconds !== this.known) {
      this.known = seconds;
      const duration = this.end - this.start;
      if (seconds <= this.start) this.progress = 0;
      else this.progress = duration > 0 ? ease(this.easing, (seconds - this.start) / duration) : 1;
    }
    return this.progress;
  }
}

/** A stretch of a lane: from its start on the value is that of its blend, level before the start and after the end. */
export interface Ramp {
  readonly time: RampTime;
  readonly blend: Blend;
}

/** A value over time: ramps in the order of their starts, level between them. Can be sampled at any time, in any order. Allocates nothing. */
export class Lane {
  private head = 0;

  /** At least one ramp. */
  constructor(readonly ramps: readonly Ramp[]) {}

  /** The count of numbers in the value. */
  get size(): number {
    return this.ramps[0].blend.size;
  }

  /** Writes the value at a time in s to `out[at …]`. */
  sample(seconds: number, out: Float64Array, at = 0): void {
    const { ramps } = this;
    if (seconds < ramps[this.head].time.start) this.head = 0;
    while (this.head + 1 < ramps.length && seconds >= ramps[this.head + 1].time.start) this.head++;
    const { time, blend } = ramps[this.head];
    blend.write(time.progressAt(seconds), out, at);
  }
}

const ALWAYS = new RampTime(0, 0, { kind: 'linear' });

/** A value that never changes. */
export const levelLane = (blend: Blend): Lane => new Lane([{ time: ALWAYS, blend }]);

/** A value that changes once. */
export const rampLane = (time: RampTime, blend: Blend): Lane => new Lane([{ time, blend }]);
