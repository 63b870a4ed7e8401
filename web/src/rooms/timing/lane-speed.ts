import { compileLane, type LaneRecord, type Piece, pieceDuration } from '@core';

/** A lane over the whole piece: its values, each brought between 0 and 1, and how fast it changes. */
export interface LaneSpeed {
  /** For each number of the lane its height at even moments, 0 lowest, 1 highest; half where it never changes. */
  readonly values: readonly (readonly number[])[];
  /** The least and the most of each number. */
  readonly ranges: readonly (readonly [number, number])[];
  /** The moments, s. */
  readonly places: readonly number[];
  /** How fast it changes at the same moments, as a share of the fastest. */
  readonly speeds: readonly number[];
  /** The fastest, per s, in the lane's own unit, and when that is, s. */
  readonly fastest: number;
  readonly at: number;
}

/** Moments that are looked at. */
export const MOMENTS = 160;
/** Half of the time over which a change is measured, s. */
const NEAR = 1 / 240;

/** How a lane of numbers goes over time; undefined where nothing plays. */
export function laneSpeed(piece: Piece, lane: LaneRecord): LaneSpeed | undefined {
  const end = pieceDuration(piece);
  const compiled = compileLane(piece, lane.figure, lane.property);
  if (!compiled || !(end > 0)) return undefined;
  const [before, after] = [new Float64Array(compiled.size), new Float64Array(compiled.size)];
  const rows: number[][] = [];
  const speeds: number[] = [];
  for (let k = 0; k <= MOMENTS; k++) {
    const t = (end * k) / MOMENTS;
    compiled.sample(t, before);
    rows.push([...before]);
    const [from, until] = [Math.max(0, t - NEAR), Math.min(end, t + NEAR)];
    compiled.sample(from, before);
    compiled.sample(until, after);
    speeds.push(Math.hypot(...after.map((v, i) => v - before[i])) / (until - from));
  }
  const fastest = Math.max(...speeds);
  const ranges = Array.from({ length: compiled.size }, (_, i): readonly [number, number] => {
    const own = rows.map((row) => row[i]);
    return [Math.min(...own), Math.max(...own)];
  });
  return {
    places: rows.map((_, k) => (end * k) / MOMENTS),
    ranges,
    values: ranges.map(([low, high], i) => rows.map((row) => (high > low ? (row[i] - low) / (high - low) : 0.5))),
    speeds: speeds.map((v) => (fastest > 0 ? v / fastest : 0)),
    fastest,
    at: (end * speeds.indexOf(fastest)) / MOMENTS,
  };
}
