import { easedKeys, easingSegments } from '../../easing';
import {
  BEAT_BREAKS,
  type Blend,
  beatAt,
  blendAlong,
  blendColours,
  blendNumbers,
  FormulaLane,
  Lane,
  laneKind,
  levelLane,
  type NumberRange,
  noiseAt,
  RampTime,
  shareOfPeriod,
} from '../../lane';
import { type BlendSpace, changeColour, type Rgba } from '../../paint';
import {
  type Figure,
  figureOfLane,
  type Id,
  isColourLane,
  isDriven,
  isShapeNumber,
  type LaneKey,
  type LaneProperty,
  type LaneRecord,
  laneLimits,
  laneOf,
  neutralOf,
  ownValue,
  type Piece,
  pieceDuration,
  railTimeline,
  standsInPlace,
  timedKeys,
} from '../../piece';
import { directionLane } from './direction-lane';

const SPACE: BlendSpace = 'oklab';

/** All lanes of a piece over time. Each is made when it is first needed, since some follow others. */
export class LaneBook {
  private readonly known = new Map<string, Lane | null>();
  private lasts: number | undefined;

  constructor(private readonly piece: Piece) {}

  /** Length of the piece, s. Computed when first needed, and only driven lanes need it. */
  private get duration(): number {
    this.lasts ??= Math.max(pieceDuration(this.piece), 1e-3);
    return this.lasts;
  }

  private get loops(): boolean {
    return this.piece.playback === 'loop';
  }

  /**
   * The value of a lane over time. First its keys: level during their holds, a ramp with its easing between them, level before the first and after the
   * last. Then what it follows, then drift and pulse. Undefined if there is no such lane.
   */
  lane(figureId: Id | null, property: LaneProperty): Lane | undefined {
    const name = `${figureId} ${property}`;
    const known = this.known.get(name);
    if (known !== undefined) return known ?? undefined;
    // Stops a cycle; pieces with cycles are refused beforehand.
    this.known.set(name, null);
    const record = laneOf(this.piece, figureId, property);
    const lane = record && this.made(record);
    this.known.set(name, lane ?? null);
    return lane;
  }

  /** The value over time, with or without a lane. Without one: the changing paint of the poses, or the neutral value. */
  value(figureId: Id | null, property: LaneProperty): Lane {
    return this.lane(figureId, property) ?? this.own(figureId, property);
  }

  /** The heading of a figure along its motion path, degrees; undefined if it does not face along it. */
  direction(figureId: Id): Lane | undefined {
    const record = laneOf(this.piece, figureId, 'position');
    const keys = record?.along && this.keys(record);
    return keys ? directionLane(keys, breaksOf(keys)) : undefined;
  }

  private made(record: LaneRecord): Lane | undefined {
    const keys = this.keys(record);
    return isDriven(record) ? this.driven(record, keys) : keys;
  }

  private keys(record: LaneRecord): Lane | undefined {
    const { property } = record;
    const keys = timedKeys(this.piece, figureOfLane(this.piece, record), record);
    if (keys.length === 0) return undefined;
    if (keys.length === 1) return levelLane(blendOf(property, keys[0].key, keys[0].key));
    return new Lane(
      keys.slice(0, -1).map(({ key, until, easing }, i) => {
        const next = keys[i + 1];
        // A key inside the previous key's hold ends that level at once.
        return {
          time: new RampTime(Math.min(until, next.from), next.from, easing),
          blend: blendOf(property, key, next.key),
        };
      }),
    );
  }

  /** What a figure has without a lane: the colours and widths of its poses, with the easings of the shifts. */
  private own(figureId: Id | null, property: LaneProperty): Lane {
    const value = (stop: number): LaneKey['value'] =>
      standsInPlace(property) ? ownValue(this.piece, figureId, property, stop) : neutralOf(property);
    const level = (): Lane => levelLane(valuesBlend(property, value(0), value(0)));
    if (figureId === null || !standsInPlace(property)) return level();
    const { stops, spans } = railTimeline(this.piece, this.piece.figures[figureId] as Figure);
    if (spans.length === 0) return level();
    return new Lane(
      spans.map(({ shift, start, end }, i) => ({
        time: new RampTime(Math.min(stops[i].start + stops[i].hold, start), end, shift.easing),
        blend: valuesBlend(property, value(i), value(i + 1), shift.blend),
      })),
    );
  }

  private driven(record: LaneRecord, keys: Lane | undefined): Lane | undefined {
    const { property, follow } = record;
    const source = follow && this.value(follow.figure, follow.property);
    if (isColourLane(property)) return follow && source ? this.followedColour(follow, source) : keys;
    const terms: Term[] = [];
    if (follow && source) terms.push(this.followed(record, follow, source));
    if (record.drift) terms.push(this.drifting(record.drift));
    if (record.pulse) terms.push(this.pulsing(record.pulse));
    const neutral = neutralOf(property);
    const limits = neutral.map((_, i) => numberLimits(property, i));
    // A lane that replaces a value starts as that value, until keys or a followed lane change it.
    const base = keys ?? (standsInPlace(property) && !follow ? this.own(record.figure, property) : undefined);
    const breaks = [0, this.duration, ...breaksOf(base), ...terms.flatMap((term) => term.breaks)];
    return new FormulaLane(neutral.length, this.within(breaks), (seconds, out, at) => {
      if (base) base.sample(seconds, out, at);
      else for (let i = 0; i < neutral.length; i++) out[at + i] = neutral[i];
      for (let k = 0; k < terms.length; k++) terms[k].add(seconds, out, at);
      for (let i = 0; i < neutral.length; i++)
        out[at + i] = Math.min(limits[i][1], Math.max(limits[i][0], out[at + i]));
    });
  }

  /** An earlier time; in a looping piece, a time before the start wraps to the end. */
  private earlier(seconds: number, delay: number): number {
    const time = seconds - delay;
    const { loops, duration } = this;
    return loops ? time - Math.floor(time / duration) * duration : time;
  }

  private laterBreaks(lane: Lane, delay: number): number[] {
    return breaksOf(lane).flatMap((time) =>
      this.loops ? [time + delay, time + delay - this.duration] : [time + delay],
    );
  }

  private followed({ property }: LaneRecord, follow: NonNullable<LaneRecord['follow']>, source: Lane): Term {
    const { axis, factor, offset, delay } = follow;
    const nothing = neutralOf(follow.property);
    const count = neutralOf(property).length;
    const value = new Float64Array(source.size);
    return {
      breaks: [...this.laterBreaks(source, delay), delay],
      add: (seconds, out, at) => {
        source.sample(this.earlier(seconds, delay), value);
        for (let i = 0; i < count; i++) {
          const j = axis ?? (value.length === 1 ? 0 : i);
          out[at + i] += factor * (value[j] - nothing[j]) + offset;
        }
      },
    };
  }

  private followedColour({ colour, delay }: NonNullable<LaneRecord['follow']>, source: Lane): Lane {
    const breaks = [0, this.duration, delay, ...this.laterBreaks(source, delay)];
    return new FormulaLane(4, this.within(breaks), (seconds, out, at) => {
      source.sample(this.earlier(seconds, delay), out, at);
      changeColour(out, at, colour);
    });
  }

  private drifting({ amount, speed, seed }: NonNullable<LaneRecord['drift']>): Term {
    // In a loop it returns to where it began, so a whole number of periods must fit.
    const turns = this.loops ? Math.max(1, Math.round(this.duration * speed)) : 0;
    const pace = this.loops ? turns / this.duration : speed;
    const cells = Math.min(MOST_BREAKS, Math.ceil(this.duration * pace));
    return {
      breaks: Array.from({ length: cells }, (_, k) => k / pace),
      add: (seconds, out, at) => {
        for (let i = 0; i < amount.length; i++)
          out[at + i] += amount[i] * noiseAt(seconds * pace, seed + i * AXES_APART, turns);
      },
    };
  }

  private pulsing({ shape, period, from, until, amount }: NonNullable<LaneRecord['pulse']>): Term {
    const count = Math.min(MOST_BREAKS, Math.ceil(Math.max(0, this.duration - from) / period) + 1);
    const shares = [0, ...BEAT_BREAKS[shape]];
    return {
      breaks: Array.from({ length: count }, (_, k) => shares.map((share) => from + (k + share) * period)).flat(),
      add: (seconds, out, at) => {
        const share = shareOfPeriod(seconds, period, from, until);
        if (share < 0) return;
        const beat = beatAt(shape, share);
        for (let i = 0; i < amount.length; i++) out[at + i] += amount[i] * beat;
      },
    };
  }

  /** Breaks within the piece, including its ends. */
  private within(breaks: readonly number[]): number[] {
    return breaks.filter((time) => time >= 0 && time <= this.duration);
  }
}

/** A part that is added to a value. */
interface Term {
  readonly breaks: readonly number[];
  readonly add: (seconds: number, out: Float64Array, at: number) => void;
}

/** Distance between the seeds of a drift's numbers. */
const AXES_APART = 7919;
/** Outputs sample a lane with more breaks than this less densely. Its values are the same. */
const MOST_BREAKS = 20_000;

/** Times at which a lane may bend, s: ends of ramps, corners and turns of their easings, and where progress passes a bend of the value. */
export function breaksOf(lane: Lane | undefined): number[] {
  return (lane?.ramps ?? []).flatMap(({ time: { start, end, easing }, blend }) =>
    easedKeys(easingSegments(easing), blend.breaks).map(({ time }) => start + (end - start) * time),
  );
}

type Point = readonly [x: number, y: number];
const NONE: Point = [0, 0];

/** The blend of a lane from one key to the next. */
function blendOf(property: LaneProperty, from: LaneKey, to: LaneKey): Blend {
  const [out, into] = [from.path?.out, to.path?.in];
  const moves = from.value.some((v, i) => v !== to.value[i]);
  if (property === 'position' && moves && (out || into))
    return blendAlong(from.value as unknown as Point, out ?? NONE, into ?? NONE, to.value as unknown as Point);
  return valuesBlend(property, from.value, to.value);
}

function valuesBlend(
  property: LaneProperty,
  from: readonly number[],
  to: readonly number[],
  space: BlendSpace = SPACE,
): Blend {
  return isColourLane(property)
    ? blendColours(colourOf(from), colourOf(to), space)
    : blendNumbers(from, to, rangeOf(property));
}

/** The numbers of a shape may overshoot: the code that builds the shape keeps each within its range. */
const rangeOf = (property: LaneProperty): NumberRange =>
  isShapeNumber(property) ? { beyond: 'on', least: -Infinity } : laneKind(property).property.range;

/** The range of a driven number. */
function numberLimits(property: LaneProperty, part: number): readonly [least: number, most: number] {
  const driven = isShapeNumber(property) ? undefined : laneKind(property).driven;
  return driven?.[part] ?? laneLimits(property, part);
}

const colourOf = ([r, g, b, alpha]: readonly number[]): Rgba => ({ r, g, b, alpha });

/** A lane times a number. */
export function timesLane(lane: Lane, factor: number): Lane {
  if (factor === 1) return lane;
  const times = (out: Float64Array, at: number): void => {
    for (let i = 0; i < lane.size; i++) out[at + i] *= factor;
  };
  if (lane instanceof FormulaLane)
    return new FormulaLane(lane.size, breaksOf(lane), (seconds, out, at) => {
      lane.sample(seconds, out, at);
      times(out, at);
    });
  return new Lane(
    lane.ramps.map(({ time, blend }) => ({
      time,
      blend: {
        ...blend,
        write: (progress: number, out: Float64Array, at: number) => {
          blend.write(progress, out, at);
          times(out, at);
        },
      },
    })),
  );
}

/** The sum of two lanes of equal size. */
export function plusLane(p: Lane, q: Lane): Lane {
  const other = new Float64Array(q.size);
  return new FormulaLane(p.size, [...breaksOf(p), ...breaksOf(q)], (seconds, out, at) => {
    p.sample(seconds, out, at);
    q.sample(seconds, other);
    for (let i = 0; i < other.length; i++) out[at + i] += other[i];
  });
}
