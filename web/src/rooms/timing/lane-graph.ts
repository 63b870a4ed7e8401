import {
  compileLane,
  cssText,
  figureOfLane,
  isColourLane,
  isDriven,
  type Lane,
  type LaneRecord,
  type Piece,
  type TimedKey,
  timedKeys,
} from '@core';
import { laneWords } from './lane-words';

/** Height of a lane's graph, and the room over and under it, CSS px. */
export const LANE = { height: 42, top: 16, bottom: 7 } as const;
/** Points of a ramp's edge. */
const STEPS = 24;

/** A level block of a lane, or the place of a free key. */
export interface KeyBlock {
  readonly key: TimedKey['key'];
  /** Its stop, counted from the rail's start. */
  readonly stop: number;
  /** Which of the lane's numbers it is of. */
  readonly part: number;
  /** From when until when, s. */
  readonly from: number;
  readonly until: number;
  readonly y: number;
  /** The same key again, where a closed rail comes back to its beginning. */
  readonly again: boolean;
}

/** One number of a lane over time: its edge, the area under it, and its blocks. */
export interface LaneCurve {
  readonly edge: string;
  readonly area: string;
  readonly blocks: readonly KeyBlock[];
  /** How much of the value a px upwards is; 0 where it never changes. */
  readonly perPx: number;
  /** For a colour: what it is on the way, at shares of the width. */
  readonly colours: readonly { readonly share: number; readonly css: string }[];
}

/** Height of the strip of a colour, CSS px. */
const STRIP = 16;

/** Do all keys of a lane have equal numbers? Then one curve shows them all. */
export const isEven = ({ property, keys }: LaneRecord): boolean =>
  laneWords(property).even === true && keys.every(({ value }) => value.every((v) => v === value[0]));

/**
 * The graph of a lane, a curve under the other for each of its numbers: level where its value rests, and between two keys a ramp whose edge is the easing. `x`
 * puts seconds on the picture; `end` is the end of the piece, s. The lowest and the highest value reach the edges; what never changes lies in the middle.
 */
export function laneGraph(
  piece: Piece,
  lane: LaneRecord,
  x: (seconds: number) => number,
  end: number,
): readonly LaneCurve[] {
  const keys = shownKeys(piece, lane);
  const compiled = compileLane(piece, lane.figure, lane.property);
  if (!compiled) return [];
  const times = sampleTimes(compiled, keys, end);
  const values = times.map((seconds) => {
    const out = new Float64Array(compiled.size);
    compiled.sample(seconds, out);
    return out;
  });
  const seen = new Set<string>();
  const again = keys.map(({ key }) => {
    const known = seen.has(key.id);
    seen.add(key.id);
    return known;
  });
  const room = LANE.height - LANE.top - LANE.bottom;
  if (isColourLane(lane.property)) return [colourStrip(keys, again, times, values, x, end)];
  const driven = isDriven(lane);
  const there = new Float64Array(compiled.size);
  const level = (seconds: number, part: number): number => {
    compiled.sample(seconds, there);
    return there[part];
  };
  return Array.from({ length: isEven(lane) ? 1 : compiled.size }, (_, part): LaneCurve => {
    const own = values.map((value) => value[part]);
    const [low, high] = [Math.min(...own), Math.max(...own)];
    const foot = (part + 1) * LANE.height;
    const floor = foot - LANE.bottom;
    const y = (value: number): number =>
      high > low ? floor - ((value - low) / (high - low)) * room : floor - room / 2;
    const edge = times.map((t, i) => `${i === 0 ? 'M' : 'L'}${x(t).toFixed(1)} ${y(own[i]).toFixed(1)}`).join('');
    const blocks = keys.map(({ key, stop, from, until }, i) => ({
      key,
      stop,
      part,
      from,
      until,
      // Where more is added to it, it lies where the sum does.
      y: y(driven ? level(from, part) : key.value[part]),
      again: again[i],
    }));
    return {
      edge,
      area: `${edge}L${x(end).toFixed(1)} ${foot}L${x(0).toFixed(1)} ${foot}Z`,
      blocks,
      perPx: high > low ? (high - low) / room : 0,
      colours: [],
    };
  });
}

/** The keys that count: a colour that follows has none. */
const shownKeys = (piece: Piece, lane: LaneRecord): TimedKey[] =>
  lane.follow && isColourLane(lane.property) ? [] : timedKeys(piece, figureOfLane(piece, lane), lane);

/** A colour over time as a strip in that colour. */
function colourStrip(
  keys: readonly TimedKey[],
  again: readonly boolean[],
  times: readonly number[],
  values: readonly Float64Array[],
  x: (seconds: number) => number,
  end: number,
): LaneCurve {
  const [top, foot] = [LANE.height - LANE.bottom - STRIP, LANE.height - LANE.bottom];
  const [left, right] = [x(0), x(Math.max(end, 1e-3))];
  const colours = times.map((t, i) => {
    const [r, g, b, alpha] = values[i];
    return { share: (x(t) - left) / (right - left), css: cssText(r, g, b, alpha) };
  });
  return {
    edge: '',
    area: `M${left} ${top}H${right.toFixed(1)}V${foot}H${left}Z`,
    blocks: keys.map(({ key, stop, from, until }, i) => ({
      key,
      stop,
      part: 0,
      from,
      until,
      y: top - 3,
      again: again[i],
    })),
    perPx: 0,
    colours,
  };
}

/** A lane of more ramps than this is drawn with fewer points of each. */
const MANY_RAMPS = 40;

/** Both ends, the ends of all level stretches, and points of each ramp between them. */
function sampleTimes({ ramps }: Lane, keys: readonly TimedKey[], end: number): number[] {
  const times = [0, end, ...keys.flatMap(({ from, until }) => [from, until])];
  const steps = ramps.length > MANY_RAMPS ? 4 : STEPS;
  for (const { time, blend } of ramps) {
    // A lane may jump at the end of a ramp.
    times.push(time.start, time.end - 1e-6, time.end);
    if (!blend.still) for (let k = 1; k < steps; k++) times.push(time.start + ((time.end - time.start) * k) / steps);
  }
  return times.filter((t) => t >= 0 && t <= end).sort((p, q) => p - q);
}
