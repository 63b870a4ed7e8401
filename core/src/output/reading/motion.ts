import { IDENTITY, invert, type Matrix, mapPoint, multiply } from '../../vec';
import { attributeAt } from '../document/attributes-at';
import type { Track } from '../tree/drawn-element';
import { movingOf, numbersSample } from './chain-values';
import { keyTimes, mergedTimes } from './curves';
import { fitKeys } from './fit-keys';
import type { Sample } from './sample';
import { INSIDE, type Segment } from './segment';
import type { Chain, StillTree } from './still-tree';

/** A movement of the whole, told by lanes: position px, turn and skew degrees, scale as factors, about a pivot. */
export interface ReadMotion {
  /** px of the canvas. */
  readonly pivot: readonly [x: number, y: number];
  /** How the shapes stand otherwise than they were read: so that they stand as they do at the beginning, in a size that never changes. */
  readonly base: { readonly x: number; readonly y: number; readonly scaleX: number; readonly scaleY: number };
  readonly position: readonly Segment<Sample>[];
  readonly turn: readonly Segment<Sample>[];
  readonly skew: readonly Segment<Sample>[];
  readonly scale: readonly Segment<Sample>[];
}

/** How shapes at the end of a chain move as a whole. */
export interface ChainMotion {
  /** null: they do not, or in no way that lanes can tell: then it is in their outlines. */
  readonly motion: ReadMotion | null;
  /** Elements whose transforms are in the motion, and not in the outlines. */
  readonly without?: { readonly from: number; readonly until: number };
  /** Tracks that the outlines depend on because lanes cannot tell them. */
  readonly inside: readonly Track[];
}

/** How far a point may stray, px, by each of what moves it. */
const ERROR_PX = 0.02;
/** Even the smallest picture is taken to reach so far, px. */
const LEAST_REACH = 100;
/** A map whose axes are nearer to square than this has no skew; what leans more than `STEEPEST` degrees is as good as a line. */
const NO_SKEW = 2e-3;
const STEEPEST = 85;
/** So much of an axis is nothing. */
const NO_LENGTH = 1e-7;

const isTransform = ({ attribute }: Track): boolean => attribute === 'transform';

/** How chains move; those with the same moving elements around them are looked at once. */
export class Motions {
  private readonly known = new Map<Chain[number], { readonly around: Chain; readonly motion: ChainMotion }[]>();

  constructor(
    private readonly still: StillTree,
    private readonly duration: number,
  ) {}

  /** How a chain moves as a whole. `middle` is where its shapes are, px of the canvas. */
  of(chain: Chain, middle: () => readonly [number, number]): ChainMotion {
    const until = chain.map(({ tracks }) => tracks.some(isTransform)).lastIndexOf(true);
    if (until < 0) return { motion: null, inside: [] };
    const around = chain.slice(0, until + 1);
    const known = this.known.get(chain[until]) ?? [];
    const found = known.find((each) => each.around.every((element, i) => element === around[i]));
    if (found) return found.motion;
    const motion = motionOfChain(this.still, chain, this.duration, middle);
    this.known.set(chain[until], [...known, { around, motion }]);
    return motion;
  }
}

/** Finds out how a chain moves, from 0 to `duration`, s. `middle` is where its shapes are, px of the canvas. */
function motionOfChain(
  still: StillTree,
  chain: Chain,
  duration: number,
  middle: () => readonly [number, number],
): ChainMotion {
  const moving = chain.map(({ tracks }) => tracks.some(isTransform));
  const [from, until] = [moving.indexOf(true), moving.lastIndexOf(true)];
  const tracks = chain.flatMap((element) => element.tracks.filter(isTransform));
  if (from < 0) return { motion: null, inside: [] };
  const inside: ChainMotion = { motion: null, inside: tracks };
  // A view box between them cannot be left out of outlines.
  if (from === 0 || chain.slice(from, until + 1).some(({ name }) => name === 'svg')) return inside;
  const { width, height } = still.size();
  const reach = Math.max(LEAST_REACH, width, height);
  const lead = still.matrixAt(chain.slice(0, from), 0);
  const back = lead && invert(lead);
  if (!back) return inside;
  const matrixAt = (seconds: number): Matrix => {
    const whole = still.matrixAt(chain.slice(0, until + 1), seconds);
    return whole ? multiply(whole, back) : IDENTITY;
  };
  const moved = chain.slice(from, until + 1);
  const breaks = mergedTimes([0, duration, ...tracks.flatMap((track) => keyTimes(track, 0, duration))]);
  const times = breaks.flatMap((time, i) =>
    i === 0 ? [INSIDE] : [breaks[i - 1] + (time - breaks[i - 1]) / 2, Math.max(INSIDE, time - INSIDE)],
  );
  const turned = moved.some(saysTurn) ? null : turnsOf(times, matrixAt);
  const leaning = moved.some(saysSkew);
  const hints = (seconds: number): Hint => {
    const said = { ...hintOf(moved, seconds), leaning };
    return turned ? { ...said, turn: turned(seconds) } : said;
  };
  const values = movingOf(
    tracks,
    duration,
    (seconds) => {
      const matrix = matrixAt(seconds);
      const parts = decomposed(matrix, hints(seconds));
      return { ...numbersSample(parts ? [...parts] : [], 1), matrix, kind: parts ? 'told' : 'untold' };
    },
    still.budget,
  );
  if (times.some((time) => values.at(time).kind === 'untold')) return inside;
  const fitted = (numbers: (seconds: number) => readonly number[], error: number): readonly Segment<Sample>[] =>
    fitKeys(
      movingOf(tracks, duration, (seconds) => numbersSample(numbers(seconds), error), still.budget),
      0,
      duration,
      values.breaks,
      ['srgb'],
    ).segments;
  const place = (pivot: readonly [number, number]) => (seconds: number) => {
    const [x, y] = mapPoint(values.at(seconds).matrix, pivot[0], pivot[1]);
    return [x - pivot[0], y - pivot[1]];
  };
  let best: { pivot: readonly [number, number]; position: readonly Segment<Sample>[] } | undefined;
  for (const pivot of pivots(
    chain,
    from,
    until,
    lead,
    times.map((time) => values.at(time).matrix),
    middle,
  )) {
    const position = fitted(place(pivot), ERROR_PX);
    const count = (segments: readonly Segment<Sample>[]): number => segments.filter((segment) => !segment.still).length;
    if (!best || count(position) < count(best.position)) best = { pivot, position };
    if (count(best.position) === 0) break;
  }
  if (!best) return inside;
  const shift = place(best.pivot)(INSIDE);
  const pivot: readonly [number, number] = [best.pivot[0] + shift[0], best.pivot[1] + shift[1]];
  const apart = (segment: Segment<Sample>): Segment<Sample> => ({
    ...segment,
    first: less(segment.first, shift),
    last: less(segment.last, shift),
  });
  const leans = times.some((time) => values.at(time).numbers[3] !== 0);
  const scale = fitted((seconds) => [...values.at(seconds).numbers.subarray(1, 3)], ERROR_PX / reach);
  const [sx, sy] = constantScale(scale) ?? [1, 1];
  return {
    motion: {
      pivot,
      base: {
        x: pivot[0] + sx * (shift[0] - pivot[0]),
        y: pivot[1] + sy * (shift[1] - pivot[1]),
        scaleX: sx,
        scaleY: sy,
      },
      position: best.position.map(apart),
      turn: fitted((seconds) => [values.at(seconds).numbers[0]], ((ERROR_PX / reach) * 180) / Math.PI),
      skew: leans ? fitted((seconds) => [values.at(seconds).numbers[3]], ((ERROR_PX / reach) * 180) / Math.PI) : [],
      scale: constantScale(scale) ? [] : scale,
    },
    without: { from, until },
    inside: [],
  };
}

/** The size that something has all the time; undefined where it changes, or is nothing. */
function constantScale(segments: readonly Segment<Sample>[]): readonly [number, number] | undefined {
  const [{ first }] = segments;
  const same = segments.length === 1 && segments[0].still && first.numbers.every((v) => Math.abs(v) > NO_LENGTH);
  return same ? [first.numbers[0], first.numbers[1]] : undefined;
}

const less = (sample: Sample, by: readonly number[]): Sample => ({
  ...sample,
  numbers: sample.numbers.map((v, i) => v - by[i]),
});

const saysSkew = ({ attributes, tracks }: Chain[number]): boolean =>
  /skewX/.test(attributes.transform ?? '') || tracks.some(({ step }) => step?.type === 'skewX');
const saysTurn = ({ attributes, tracks }: Chain[number]): boolean =>
  /rotate/.test(attributes.transform ?? '') || tracks.some(({ step }) => step?.type === 'rotate');

/** How far a map has turned up to a time, degrees, where the file has only maps: never more than half a round from one time to the next. */
function turnsOf(times: readonly number[], matrixAt: (seconds: number) => Matrix): (seconds: number) => number {
  let turn = 0;
  const turns = times.map(
    (time) => (turn = decomposed(matrixAt(time), { turn, signX: 1, signY: 1, leaning: true })?.[0] ?? turn),
  );
  return (seconds) => {
    let [low, high] = [0, times.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (times[middle] <= seconds) low = middle;
      else high = middle - 1;
    }
    return turns[low];
  };
}

/** What the file says about angle and mirroring, which a map alone does not: degrees, and the signs of both axes. */
interface Hint {
  readonly turn: number;
  readonly signX: number;
  readonly signY: number;
  /** Does the file let it lean? Else what leans by being put together of several is in its outlines. */
  readonly leaning: boolean;
}

function hintOf(chain: Chain, seconds: number): Omit<Hint, 'leaning'> {
  let [turn, signX, signY] = [0, 1, 1];
  for (const element of chain) {
    const text = attributeAt(element, 'transform', seconds) ?? '';
    if (!/rotate|scale/.test(text)) continue;
    for (const [, name, inside] of text.matchAll(/(\w+)\(([^)]*)\)/g)) {
      const [x = 0, y] = inside
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number);
      if (name === 'rotate') turn += x;
      if (name === 'scale') {
        signX *= x < 0 ? -1 : 1;
        signY *= (y ?? x) < 0 ? -1 : 1;
      }
    }
  }
  return { turn, signX, signY };
}

/** Turn (degrees), the factors of both axes and the skew (degrees) of a map: it is the turn, then the skew, then the scale. Null where it is as good as a line. */
function decomposed([a, b, c, d]: Matrix, hint: Hint): readonly [number, number, number, number] | null {
  const [x, y] = [Math.hypot(a, b), Math.hypot(c, d)];
  if (!(x > NO_LENGTH) && !(y > NO_LENGTH)) return [hint.turn, 0, 0, 0];
  if (Math.abs(a * c + b * d) > NO_SKEW * x * y && x > NO_LENGTH && y > NO_LENGTH) {
    const area = a * d - b * c;
    const skew = (Math.atan2((a * c + b * d) * Math.sign(area), Math.abs(area)) * 180) / Math.PI;
    if (!hint.leaning || !(Math.abs(skew) <= STEEPEST)) return null;
    const angle = (Math.atan2(hint.signX * b, hint.signX * a) * 180) / Math.PI;
    return [angle + 360 * Math.round((hint.turn - angle) / 360), hint.signX * x, (hint.signX * area) / x, skew];
  }
  // By the longer axis, which has a direction.
  const byX = x >= y;
  const sign = byX ? hint.signX : hint.signY;
  const angle = ((byX ? Math.atan2(sign * b, sign * a) : Math.atan2(-sign * c, sign * d)) * 180) / Math.PI;
  const turn = angle + 360 * Math.round((hint.turn - angle) / 360);
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  return [turn, a * cos + b * sin, d * cos - c * sin, 0];
}

/** Points about which the movement may be told, the likeliest first, in px of the canvas. */
function pivots(
  chain: Chain,
  from: number,
  until: number,
  lead: Matrix,
  matrices: readonly Matrix[],
  middle: () => readonly [number, number],
): (readonly [number, number])[] {
  const found: (readonly [number, number])[] = [mapPoint(lead, 0, 0)];
  for (const element of chain.slice(from, until + 1))
    for (const [, x, y] of (attributeAt(element, 'transform', 0) ?? '').matchAll(
      /rotate\(\s*[^\s,)]+[\s,]+([^\s,)]+)[\s,]+([^\s,)]+)\s*\)/g,
    ))
      found.push(mapPoint(lead, Number(x), Number(y)));
  const fixed = fixedPoint(matrices);
  if (fixed) found.push(fixed);
  found.push(middle());
  return found.filter(
    (point, i) =>
      point.every(Number.isFinite) &&
      found.findIndex((other) => Math.hypot(other[0] - point[0], other[1] - point[1]) < 1e-3) === i,
  );
}

/** The point that maps move least from where the first of them puts it, by least squares; null where none is better than others. */
function fixedPoint(matrices: readonly Matrix[]): readonly [number, number] | null {
  const [[a0, b0, c0, d0, e0, f0]] = matrices;
  let [xx, xy, yy, xr, yr] = [0, 0, 0, 0, 0];
  const add = (x: number, y: number, right: number): void => {
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xr += x * right;
    yr += y * right;
  };
  for (const [a, b, c, d, e, f] of matrices) {
    add(a - a0, c - c0, e0 - e);
    add(b - b0, d - d0, f0 - f);
  }
  const det = xx * yy - xy * xy;
  return det > 1e-9 ? [(xr * yy - yr * xy) / det, (yr * xx - xr * xy) / det] : null;
}
