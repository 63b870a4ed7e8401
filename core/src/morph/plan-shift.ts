import { CoreError } from '../errors';
import { type Match, type PairMatch, runContour, runsBackwards, shareOnRun, type TouchUp } from '../match';
import {
  areaCentre,
  type Contour,
  innerPoint,
  type Nesting,
  nestingOf,
  type Outline,
  outlineSize,
  reverseContour,
} from '../outline';
import { splitEvenly, splitPair } from './break-points';
import { anchorPolygon, meanValueCoordinates } from './carried';
import { METHODS, type Method, type ShiftPlan } from './plan';
import { assemble, type PlannedRun, planRun, type RunSource } from './planned-run';
import { onGrid } from './spline-keys';
import { type Correction, RunTravel, type Way } from './travel';
import { withUnpairedPointsNear } from './unpaired-points';
import { wipedContour, writeWipe } from './wipe';

/**
 * Computes a shift from outline `a` to outline `b` (px, y down) by `match`. Points are added by exact splitting only, so the in-betweens at
 * progress 0 and 1 are the outlines themselves. Unpaired contours shrink to, or grow from, a point inside them, or nearer to the
 * others where that is far from all; holes go with their solid. `method` is for all pairs; without it each travels as the match says, or straight.
 *
 * @throws CoreError 'option' for an unknown method
 */
export function planShift(a: Outline, b: Outline, match: Match, method?: Method): ShiftPlan {
  if (method !== undefined && !METHODS.includes(method))
    throw new CoreError(
      'option',
      `Expected method to be one of ${METHODS.join(', ')}; found ${String(method)}.`,
      'method',
    );
  const size = Math.max(outlineSize(a), outlineSize(b));
  return withUnpairedPointsNear(
    planRuns(a, b, match, size, (pair) => pairSource(a, b, pair, size, match.even), method),
  );
}

/** Like `planShift`, but the caller supplies the split pairs, and unpaired contours grow from a point inside them. */
export function planRuns(
  a: Outline,
  b: Outline,
  match: Match,
  size: number,
  sourceOf: (pair: PairMatch) => RunSource,
  method?: Method,
): ShiftPlan {
  const several = a.contours.length > 1 || b.contours.length > 1;
  const nestingA = several ? nestingOf(a) : undefined;
  const nestingB = several ? nestingOf(b) : undefined;
  const runs: PlannedRun[] = [];
  const solids = match.pairs.map((pair) => ({ pair, source: sourceOf(pair) }));
  const pointsA = pointsOfUnpaired(a, match.unpairedA, nestingA, match.wipes?.unpairedA);
  const pointsB = pointsOfUnpaired(b, match.unpairedB, nestingB, match.wipes?.unpairedB);
  const wayOf = ({ method: own, smoothing }: PairMatch): Way => ({
    method: method ?? own ?? 'straight',
    smoothing: smoothing ?? 0,
  });
  for (const { pair, source } of solids) {
    const solid = solids.find(
      (other) =>
        other.pair !== pair &&
        other.source.closed &&
        isInside(nestingA, pair.a, other.pair.a) &&
        isInside(nestingB, pair.b, other.pair.b),
    );
    const way = { ...wayOf(pair), corrections: correctionsOf(a, pair, source, match.touchUps) };
    runs.push(planRun(source, solid ? { ...way, carried: carriedBy(solid.source, wayOf(solid.pair), source) } : way));
  }
  match.unpairedA.forEach((i, k) => {
    runs.push(
      unpairedRun(
        a.contours[i],
        i,
        'vanishes',
        solids,
        nestingA,
        pointsA[k],
        match.timing?.unpairedA[k],
        match.wipes?.unpairedA[k],
      ),
    );
  });
  match.unpairedB.forEach((j, k) => {
    runs.push(
      unpairedRun(
        b.contours[j],
        j,
        'appears',
        solids,
        nestingB,
        pointsB[k],
        match.timing?.unpairedB[k],
        match.wipes?.unpairedB[k],
      ),
    );
  });
  return assemble(
    runs,
    a.fillRule === 'evenodd' && b.fillRule === 'evenodd' ? 'evenodd' : 'nonzero',
    size,
    Math.max(0, ...solids.map(({ source }) => source.deviation)),
  );
}

/** Splits both contours of a pair at the points of either. */
export function pairSource(a: Outline, b: Outline, pair: PairMatch, size: number, even?: number): RunSource {
  const runA = runContour(a, pair.a, pair.joiningA, pair.reversedA, pair.byOrigin);
  const runB = runContour(b, pair.b, pair.joiningB, pair.reversedB, pair.byOrigin);
  const bridged = runA.bridges.length + runB.bridges.length > 0;
  const split =
    even !== undefined && !bridged
      ? splitEvenly(pair, runA, runB, even)
      : { ...splitPair(pair, runA, runB, size), deviation: 0 };
  const closed = runA.contour.closed && runB.contour.closed;
  return {
    travel: new RunTravel(split.from, split.to, closed, size),
    closed,
    role: 'pair',
    a: pair.a,
    b: pair.b,
    reversed: pair.reversedA !== pair.reversedB,
    bridgesA: split.bridgesA,
    bridgesB: split.bridgesB,
    shares: split.shares,
    deviation: split.deviation,
  };
}

/** A touch-up moves the nearest point of the shift, at most this share of the length away. */
const SAME_PLACE = 1e-3;

/** The touch-ups of a pair, as moves of the coordinates of its run. A move without a point nearby is left out. */
function correctionsOf(
  a: Outline,
  pair: PairMatch,
  source: RunSource,
  touchUps: readonly TouchUp[] = [],
): Correction[] {
  const { shares, travel } = source;
  if (!shares || touchUps.length === 0) return [];
  const run = runContour(a, pair.a, pair.joiningA, pair.reversedA, pair.byOrigin);
  const count = travel.from.length;
  return touchUps.flatMap(({ progress, moves }) => {
    const out = new Float64Array(count);
    let any = false;
    for (const { contourA, shareA, by, before, after } of moves) {
      if (contourA !== pair.a) continue;
      const share = shareOnRun(run, a.contours[pair.a], shareA, pair.joiningA) - pair.startA;
      const ahead = run.contour.closed && share < -SAME_PLACE ? share + 1 : Math.max(0, share);
      let k = 0;
      shares.forEach((other, at) => {
        if (Math.abs(other - ahead) < Math.abs(shares[k] - ahead)) k = at;
      });
      if (!(Math.abs(shares[k] - ahead) < SAME_PLACE)) continue;
      any = true;
      const [first, second] = pair.reversedA ? [after, before] : [before, after];
      const last = count - 2;
      const ends = source.closed && (k === 0 || 6 * k === last) ? [0, last] : [6 * k];
      for (const anchor of ends) {
        for (let axis = 0; axis < 2; axis++) {
          out[anchor + axis] = by[axis];
          if (anchor > 0) out[anchor - 2 + axis] += by[axis] + first[axis];
          if (anchor < last) out[anchor + 2 + axis] += by[axis] + second[axis];
        }
      }
    }
    return any ? [{ progress, moves: out }] : [];
  });
}

const isInside = (nesting: readonly Nesting[] | undefined, inner: number, outer: number): boolean =>
  nesting?.[inner].hole === true && nesting[inner].parent === outer;

/** How far the moving solid carries a point inside it off the straight line between its two ends. */
function carriedBy(solid: RunSource, way: Way, hole: RunSource): NonNullable<Way['carried']> {
  const inBetween = new Float64Array(solid.travel.from.length);
  const [fromX, fromY] = middleOf(hole.travel.from, hole.closed);
  const [toX, toY] = middleOf(hole.travel.to, hole.closed);
  const weightsA = meanValueCoordinates(anchorPolygon(solid.travel.from), fromX, fromY);
  const weightsB = meanValueCoordinates(anchorPolygon(solid.travel.to), toX, toY);
  return (progress, out) => {
    solid.travel.inBetween(way, progress, inBetween);
    let x = 0;
    let y = 0;
    for (let i = 0; i < weightsA.length; i++) {
      const w = weightsA[i] + (weightsB[i] - weightsA[i]) * progress;
      x += w * inBetween[6 * i];
      y += w * inBetween[6 * i + 1];
    }
    out[0] = x - (fromX + (toX - fromX) * progress);
    out[1] = y - (fromY + (toY - fromY) * progress);
  };
}

function middleOf(points: Float64Array, closed: boolean): [number, number] {
  const { x, y } = areaCentre({ contours: [{ points, closed }], fillRule: 'nonzero' });
  return [x, y];
}

/** A contour without a partner that is wiped in or away where it is. */
function wiped(
  contour: Contour,
  index: number,
  role: 'appears' | 'vanishes',
  nesting: readonly Nesting[] | undefined,
  timing: readonly [number, number],
  angle: number,
): PlannedRun {
  const oriented = runsBackwards(contour, nesting?.[index].hole ?? false) ? reverseContour(contour) : contour;
  const { full, wipe, edges } = wipedContour(oriented, angle, role);
  const segments = (full.length / 2 - 1) / 3;
  const run = {
    segments,
    closed: contour.closed,
    role,
    ...(role === 'vanishes' ? { a: index } : { b: index }),
    wipe,
    begin: timing[0],
    end: timing[1],
    joints: new Int32Array(0),
    turns: new Float64Array(0),
    bridgesA: edges,
    bridgesB: edges,
    method: 'straight',
    smoothing: 0,
  } as const;
  const hidden = new Float64Array(full.length);
  writeWipe({ ...run, at: 0 }, wipe, full, role === 'appears' ? 0 : 1, hidden);
  for (let i = 0; i < hidden.length; i++) hidden[i] = onGrid(hidden[i]);
  return { ...run, from: role === 'vanishes' ? full : hidden, to: role === 'vanishes' ? hidden : full };
}

/**
 * The points from which unpaired contours grow, or to which they shrink: inside each. But what lies inside another that comes or goes does so with it, about its
 * point, so that all of it grows as one and nothing of it crosses.
 */
function pointsOfUnpaired(
  { contours }: Outline,
  unpaired: readonly number[],
  nesting: readonly Nesting[] | undefined,
  wipes: readonly (number | undefined)[] = [],
): { readonly x: number; readonly y: number }[] {
  const grow = new Set(unpaired.filter((_, k) => wipes[k] === undefined));
  return unpaired.map((i) => {
    let outermost = i;
    for (let at = nesting?.[i].parent ?? -1; at >= 0 && grow.has(at); at = nesting?.[at].parent ?? -1) outermost = at;
    return innerPoint(contours[outermost]);
  });
}

/** A contour without a partner: it grows from a point inside it, or shrinks to it. The solid of a hole carries that point along. */
function unpairedRun(
  contour: Contour,
  index: number,
  role: 'appears' | 'vanishes',
  pairs: readonly { pair: PairMatch; source: RunSource }[],
  nesting: readonly Nesting[] | undefined,
  point: { readonly x: number; readonly y: number },
  timing: readonly [number, number] = [0, 1],
  wipe?: number,
): PlannedRun {
  if (wipe !== undefined) return wiped(contour, index, role, nesting, timing, wipe);
  const solid = pairs.find(
    ({ pair, source }) => source.closed && isInside(nesting, index, role === 'appears' ? pair.b : pair.a),
  );
  const oriented = runsBackwards(contour, nesting?.[index].hole ?? false) ? reverseContour(contour) : contour;
  let { x, y } = point;
  if (solid) {
    const { from, to } = solid.source.travel;
    const weights = meanValueCoordinates(anchorPolygon(role === 'appears' ? to : from), x, y);
    const other = role === 'appears' ? from : to;
    x = 0;
    y = 0;
    for (let i = 0; i < weights.length; i++) {
      x += weights[i] * other[6 * i];
      y += weights[i] * other[6 * i + 1];
    }
  }
  const shrunk = new Float64Array(contour.points.length);
  for (let i = 0; i < shrunk.length; i += 2) {
    shrunk[i] = x;
    shrunk[i + 1] = y;
  }
  const full = oriented.points;
  const travel = new RunTravel(
    role === 'vanishes' ? full : shrunk,
    role === 'appears' ? full : shrunk,
    contour.closed,
    1,
  );
  const source: RunSource = {
    travel,
    closed: contour.closed,
    role,
    ...(role === 'vanishes' ? { a: index } : { b: index }),
    bridgesA: [],
    bridgesB: [],
    deviation: 0,
  };
  return { ...planRun(source, { method: 'straight', smoothing: 0 }), begin: timing[0], end: timing[1] };
}
