import { SHORTEST_SECONDS, type Shift } from '../../piece';
import type { Span } from './chain-values';
import { isSame } from './sample';
import type { Segment } from './segment';
import type { ShapeSample } from './shape-sample';

/** A time that a piece can have: none, or long enough. */
export const seconds = (value: number): number => (value < SHORTEST_SECONDS ? 0 : value);

/** A look that stands for a while, and how it is reached. */
export interface Stop {
  readonly sample: ShapeSample;
  readonly from: number;
  hold: number;
  /** How it is reached; undefined: at once. `choices`: as the program goes by itself with these; else point by point. */
  readonly way?: {
    readonly seconds: number;
    readonly easing: Shift['easing'];
    readonly space: Shift['blend'];
    readonly choices?: Partial<Pick<Shift, 'method' | 'match'>>;
  };
}

/** Samples that stand, and ways between them. */
export function standingStops(segments: readonly Segment<ShapeSample>[], spans: readonly Span[]): Stop[] {
  const stops: Stop[] = [];
  for (const { from, until, first, last, still, easing, space } of segments) {
    const before = stops[stops.length - 1];
    if (before) before.hold = from - before.from;
    if (!before || !isSame(before.sample, first)) stops.push({ sample: first, from, hold: 0 });
    if (!still) stops.push({ sample: last, from: until, hold: 0, way: { seconds: until - from, easing, space } });
  }
  const last = stops[stops.length - 1];
  last.hold = Math.max(0, spans[spans.length - 1][1] - last.from);
  return stops;
}
