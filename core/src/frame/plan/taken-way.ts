import { type Match, type Reason, withWantedPoints } from '../../match';
import {
  type Alternative,
  evaluate,
  inBetweenOutline,
  planShift,
  type RankOptions,
  rankAlternatives,
  type ShiftPlan,
  withOvershoot,
  withUnpairedPointsNear,
} from '../../morph';
import { nearestOnContour, type Outline, outlineBox } from '../../outline';
import type { MatchChoices } from '../../piece';
import { boxSize } from '../../vec';
import { rankOptions } from './match-input';
import type { PlacedPart } from './placed-parts';

/** Two parts that become each other. */
interface Parts {
  readonly a: PlacedPart;
  readonly b: PlacedPart;
}

/** So many ways are judged for each pair of contours, to have some to choose from. */
const JUDGED = 12;
/** Points of a half-way picture that are kept. */
const LOOKED_AT = 32;
const DIGITS = 4;
/** A half-way picture that is further than this from the one that was taken, as a share of its size, is another: the outlines were changed too much. */
const SAME_LOOK = 0.05;

/**
 * All ways to do the shift of two parts from which one can be taken: what the program chooses by itself first, then the others in their order. Start points,
 * method and rounding that were chosen are left aside; direction, ties, pairs and all else hold.
 */
export function freeWays({ a, b }: Parts, match: MatchChoices, onProgress?: (share: number) => void): Alternative[] {
  const choices: MatchChoices = { ...match, starts: [], smoothing: null, touchUps: [], even: null, taken: null };
  const options = rankOptions(choices, 'auto', a, b, new Set());
  const [own] = rankAlternatives(a.outline, b.outline, options);
  return [own, ...rankAlternatives(a.outline, b.outline, { ...options, atLeast: JUDGED, varied: true }, onProgress)];
}

/** The half-way picture of a plan, px. */
export const halfWayOutline = (plan: ShiftPlan): Outline => inBetweenOutline(plan, evaluate(plan, 0.5));

/** Points of an outline by which it is known again: x and y in turn, as shares of its size from its middle. */
export function lookOf(outline: Outline): number[] {
  const { middle, size } = frameOf(outline);
  const points = outline.contours.flatMap((contour) => {
    const at: (readonly [number, number])[] = [];
    for (let i = 0; i < contour.points.length; i += 6) at.push([contour.points[i], contour.points[i + 1]]);
    return at;
  });
  const count = Math.min(LOOKED_AT, points.length);
  return Array.from({ length: count }, (_, k) => points[Math.floor((k * points.length) / count)]).flatMap((point) =>
    point.map((v, axis) => +((v - middle[axis]) / size).toFixed(DIGITS)),
  );
}

/** How far the points of a look are from an outline at most, as a share of its size. */
function apart(look: readonly number[], outline: Outline): number {
  const { middle, size } = frameOf(outline);
  let most = 0;
  for (let i = 0; i + 1 < look.length; i += 2) {
    const [x, y] = [middle[0] + look[i] * size, middle[1] + look[i + 1] * size];
    const near = outline.contours.map((contour) => nearestOnContour(contour, x, y)?.distance ?? Infinity);
    most = Math.max(most, Math.min(...near) / size);
  }
  return most;
}

function frameOf(outline: Outline): { readonly middle: readonly [number, number]; readonly size: number } {
  const box = outlineBox(outline);
  return { middle: [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2], size: boxSize(box) || 1 };
}

const TAKEN: Reason = { code: 'way-taken', text: 'It goes as the alternative that was taken.' };

/**
 * The way that was taken for two parts, found again by its method and half-way picture, with the even points and touch-ups that were decided since.
 *
 * @param options what is decided about the two, as the engine is told
 * @param onProgress is told now and then which share (0 to 1) of the ways has been looked at
 * @returns undefined where none was taken, or none looks like it any more
 */
export function takenWay(
  parts: Parts,
  match: MatchChoices,
  options: RankOptions,
  onProgress?: (share: number) => void,
): { plan: ShiftPlan; match: Match } | undefined {
  const { taken } = match;
  if (!taken) return undefined;
  let found: Alternative | undefined;
  let nearest = SAME_LOOK;
  for (const way of freeWays(parts, match, onProgress)) {
    const [{ method, smoothing } = { method: undefined, smoothing: undefined }] = way.match.pairs;
    // Where outlines have changed, another method may come nearer.
    if (method !== options.method || smoothing !== options.smoothing) continue;
    const distance = apart(taken.look, halfWayOutline(way.plan));
    if (distance >= nearest) continue;
    nearest = distance;
    found = way;
  }
  return found && corrected(parts, found, options);
}

/** A way with its reasons, and with even points and touch-ups where there are any. */
function corrected({ a, b }: Parts, way: Alternative, options: RankOptions): { plan: ShiftPlan; match: Match } {
  const reasons = [TAKEN, ...way.match.reasons];
  const { even, touchUps } = options;
  // Only the first that is found knows how far it can overshoot.
  if (even === undefined && !touchUps) return { plan: withOvershoot(way.plan), match: { ...way.match, reasons } };
  const pairs = way.match.pairs.map((pair) => withWantedPoints(a.outline, pair, options));
  const match: Match = { ...way.match, pairs, even, touchUps, reasons };
  return { plan: withOvershoot(withUnpairedPointsNear(planShift(a.outline, b.outline, match))), match };
}
