import type { PlacePair, TouchUp } from '../match';
import type { RankOptions } from '../morph';
import { type ArcLengthTable, measureArcLength, type Outline, type Place, shareOfPlace } from '../outline';
import type { MatchChoices, PartShape } from '../piece';
import type { Matrix } from '../vec';
import type { PlacedPart } from './placed-parts';

/** A place as contour index and share of its length; undefined where the outline does not have it. */
export class PlaceFinder {
  private readonly tables: (ArcLengthTable | undefined)[] = [];

  constructor(private readonly outline: Outline) {}

  find(place: Place): { contour: number; share: number } | undefined {
    const key = 'anchor' in place ? place.anchor : place.after;
    for (let i = 0; i < this.outline.contours.length; i++) {
      const contour = this.outline.contours[i];
      if (!contour.anchorIds?.includes(key)) continue;
      this.tables[i] ??= measureArcLength(contour);
      const share = shareOfPlace(this.tables[i] as ArcLengthTable, place);
      if (share !== undefined) return { contour: i, share };
    }
    return undefined;
  }
}

/**
 * What was decided about a shift as options for the match of two of its parts: places as shares, contours as indices. `used` collects what was
 * found, so that the caller can name what no pair of parts had.
 */
export function rankOptions(
  choices: MatchChoices,
  method: RankOptions['method'] | 'auto',
  a: PlacedPart,
  b: PlacedPart,
  used: Set<unknown>,
): RankOptions {
  const findA = new PlaceFinder(a.outline);
  const findB = new PlaceFinder(b.outline);
  const placePairs = (list: MatchChoices['ties']): PlacePair[] =>
    list.flatMap((tie) => {
      const pa = findA.find(tie.a);
      const pb = findB.find(tie.b);
      if (!pa || !pb) return [];
      used.add(tie);
      return [{ contourA: pa.contour, shareA: pa.share, contourB: pb.contour, shareB: pb.share }];
    });
  const indexOf = (part: PartShape, id: string | null): number | undefined => {
    if (id === null) return -1;
    const i = part.contours.findIndex((contour) => contour.id === id);
    return i >= 0 ? i : undefined;
  };
  const pairs = choices.pairs.flatMap((pair): (readonly [number, number])[] => {
    const i = indexOf(a.part, pair.a);
    const j = indexOf(b.part, pair.b);
    if (i === undefined || j === undefined || (i < 0 && j < 0)) return [];
    used.add(pair);
    return [[i, j]];
  });
  const directions = choices.directions.flatMap((own) => {
    const contourA = indexOf(a.part, own.contour);
    if (contourA === undefined) return [];
    used.add(own);
    return [{ contourA, direction: own.direction }];
  });
  const wipes = (['a', 'b'] as const).flatMap((side) =>
    (side === 'a' ? a : b).part.contours.flatMap(({ id }, contour) => {
      const angle = wipeAngle(choices, id, used);
      return angle === undefined ? [] : [{ side, contour, angle }];
    }),
  );
  const [m0, m1, m2, m3] = a.matrix;
  const turned = ([x, y]: readonly [number, number]): [number, number] => [m0 * x + m2 * y, m1 * x + m3 * y];
  const touchUps = choices.touchUps.flatMap(({ progress, points }): TouchUp[] => {
    const moves = points.flatMap((point) => {
      const at = findA.find(point.place);
      if (!at) return [];
      used.add(point);
      return [
        {
          contourA: at.contour,
          shareA: at.share,
          by: turned(point.by),
          before: turned(point.before),
          after: turned(point.after),
        },
      ];
    });
    return moves.length > 0 ? [{ progress, moves }] : [];
  });
  const points = choices.points.flatMap((place) => {
    const at = findA.find(place);
    if (!at) return [];
    used.add(place);
    return [{ contourA: at.contour, shareA: at.share }];
  });
  const line = (matrix: Matrix, [x0, y0, x1, y1]: readonly [number, number, number, number]) => {
    const [p0, p1, p2, p3, ex, ey] = matrix;
    const at = (x: number, y: number): [number, number] => [p0 * x + p2 * y + ex, p1 * x + p3 * y + ey];
    return [...at(x0, y0), ...at(x1, y1)] as const;
  };
  const cutsOn = (side: 'from' | 'to', matrix: Matrix) =>
    choices.cuts.filter((cut) => cut.side === side).map((cut) => line(matrix, cut.line));
  const cuts = choices.cuts.length > 0 ? { a: cutsOn('from', a.matrix), b: cutsOn('to', b.matrix) } : undefined;
  return {
    direction: choices.direction,
    directions: directions.length > 0 ? directions : undefined,
    starts: placePairs(choices.starts),
    ties: placePairs(choices.ties),
    pairs,
    wipes: wipes.length > 0 ? wipes : undefined,
    opening: choices.opening,
    turns: choices.turns,
    points,
    touchUps: touchUps.length > 0 ? touchUps : undefined,
    even: choices.even ?? undefined,
    cuts,
    method: method === 'auto' ? undefined : method,
    softness: choices.softness ?? undefined,
  };
}

/** The direction (rad) in which a contour is to be wiped, if it is; the choice then counts as used. */
export function wipeAngle(choices: MatchChoices, contourId: string, used: Set<unknown>): number | undefined {
  const wipe = choices.wipes.find(({ contour }) => contour === contourId);
  if (!wipe) return undefined;
  used.add(wipe);
  return (wipe.angle * Math.PI) / 180;
}

/** How many choices no pair of parts could use. */
export function lostChoices(choices: MatchChoices, used: ReadonlySet<unknown>): string[] {
  const lost = (list: readonly unknown[], one: string, many: string): string[] => {
    const n = list.filter((item) => !used.has(item)).length;
    return n === 0 ? [] : [n === 1 ? one : `${n} ${many}`];
  };
  return [
    ...lost(choices.directions, 'The direction of a contour', 'directions of contours'),
    ...lost(choices.starts, 'A start point', 'start points'),
    ...lost(choices.ties, 'A tie', 'ties'),
    ...lost(choices.pairs, 'A pair of contours', 'pairs of contours'),
    ...lost(choices.wipes, 'A wiped contour', 'wiped contours'),
    ...lost(choices.points, 'An added point', 'added points'),
    ...lost(
      choices.touchUps.flatMap(({ points }) => points),
      'A point of a touch-up',
      'points of touch-ups',
    ),
  ].map((what) => `${what} could not be used: the outlines no longer have the place.`);
}
