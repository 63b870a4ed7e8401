import { type PairMatch, runContour, writtenShare } from '../../match';
import { evaluate, inBetweenPathData, type Method, measureHealth, VERDICTS, type Verdict } from '../../morph';
import { flattenContour, measureArcLength, type Outline, placeOfShare } from '../../outline';
import type { ContourPairing, PlaceTie, TakenWay } from '../../piece';
import type { PlacedPart } from './placed-parts';
import { mainPair, pairedParts } from './planned-pairs';
import type { ShiftInput } from './shift-input';
import { freeWays, halfWayOutline, lookOf } from './taken-way';

/** Another way to do a shift, as it is offered. */
export interface PoseAlternative {
  /** Path data of the half-way picture of the part that it is about, canvas px. */
  readonly halfWay: string;
  readonly fillRule: 'nonzero' | 'evenodd';
  readonly verdict: Verdict;
  readonly sentence: string;
  /** Does what goes alone go before what comes alone comes? */
  readonly inOrder: boolean;
  /** What to decide so that the shift goes this way. */
  readonly choice: {
    readonly method: Method;
    readonly smoothing: number;
    readonly starts: readonly Omit<PlaceTie, 'id'>[];
    readonly taken: TakenWay;
  };
}

/** At most this many are offered. */
const OFFERED = 6;
/** Half-way pictures nearer to each other than this share of the size are one. */
const SAME_PICTURE = 0.03;
/** And so much of it may flattened curves stray. */
const FLATNESS = 0.002;
/** Of so many that look different it is asked how healthy they are. */
const MEASURED = 9;

/**
 * The ways to do a shift, ranked, for its largest pair of parts: the healthy ones go before the others, and of these what the program would choose by
 * itself comes first. They are the same whichever of them was taken.
 */
export function rankPoseShift(input: ShiftInput): PoseAlternative[] {
  const main = mainPair(pairedParts(input));
  if (!main) return [];
  const seen: Float64Array[][] = [];
  return freeWays(main, input.match)
    .flatMap(({ plan, match }): PoseAlternative[] => {
      const outline = halfWayOutline(plan);
      // What looks the same half-way is the same to the eye.
      const lines = linesOf(outline, plan.size);
      if (seen.length >= MEASURED || seen.some((other) => apart(lines, other) < SAME_PICTURE * plan.size)) return [];
      seen.push(lines);
      const halfWay = inBetweenPathData(plan, evaluate(plan, 0.5), 1);
      const { verdict, sentence } = measureHealth(plan);
      const largest = match.pairs[0];
      return [
        {
          halfWay,
          fillRule: plan.fillRule,
          verdict,
          sentence,
          inOrder: match.reasons.some(({ code }) => code === 'unpaired-in-order'),
          choice: {
            method: largest?.method ?? 'straight',
            smoothing: largest?.smoothing ?? 0,
            starts: match.pairs.flatMap((pair) => startOf(main, pair)),
            taken: {
              look: lookOf(outline),
              pairs:
                match.pairs.length > 1 || match.unpairedB.length + match.unpairedA.length > 0
                  ? pairingOf(main, match)
                  : [],
            },
          },
        },
      ];
    })
    .sort((p, q) => VERDICTS.indexOf(p.verdict) - VERDICTS.indexOf(q.verdict))
    .slice(0, OFFERED);
}

/** The lines that an outline is flattened to, contour by contour, px; a closed one ends where it begins. */
const linesOf = (outline: Outline, size: number): Float64Array[] =>
  outline.contours.map((contour) => {
    const line = flattenContour(contour, FLATNESS * size);
    return contour.closed ? Float64Array.from([...line, line[0], line[1]]) : line;
  });

/** How far corners of two flattened outlines are from the other outline at most, px. */
function apart(p: readonly Float64Array[], q: readonly Float64Array[]): number {
  const oneWay = (from: readonly Float64Array[], to: readonly Float64Array[]): number => {
    let most = 0;
    for (const line of from)
      for (let i = 0; i < line.length; i += 2) most = Math.max(most, distanceTo(to, line[i], line[i + 1], most));
    return most;
  };
  return Math.max(oneWay(p, q), oneWay(q, p));
}

/** The distance of a point to lines; as soon as it is known to be less than `enough`, some such distance. */
function distanceTo(lines: readonly Float64Array[], x: number, y: number, enough: number): number {
  let least = Infinity;
  for (const line of lines)
    for (let i = 0; i + 3 < line.length; i += 2) {
      const [ax, ay, dx, dy] = [line[i], line[i + 1], line[i + 2] - line[i], line[i + 3] - line[i + 1]];
      const length = dx * dx + dy * dy;
      const t = length > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / length)) : 0;
      least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
      if (least < enough) return least;
    }
  return least;
}

/** The start points of a pair as places; joined and cut contours start where they are joined. */
function startOf({ a, b }: { a: PlacedPart; b: PlacedPart }, pair: PairMatch): Omit<PlaceTie, 'id'>[] {
  if (pair.joiningA || pair.joiningB) return [];
  const place = (part: PlacedPart, index: number, reversed: boolean, start: number) => {
    const run = runContour(part.outline, index, undefined, reversed, pair.byOrigin);
    return placeOfShare(measureArcLength(part.outline.contours[index]), writtenShare(run, start));
  };
  const pa = place(a, pair.a, pair.reversedA, pair.startA);
  const pb = place(b, pair.b, pair.reversedB, pair.startB);
  return pa && pb && a.outline.contours[pair.a].closed ? [{ a: pa, b: pb }] : [];
}

function pairingOf(
  { a, b }: { a: PlacedPart; b: PlacedPart },
  match: { pairs: readonly PairMatch[]; unpairedB: readonly number[]; unpairedA: readonly number[] },
): ContourPairing[] {
  const plain = match.pairs.filter((pair) => !pair.joiningA && !pair.joiningB);
  return plain.map((pair) => ({ a: a.part.contours[pair.a].id, b: b.part.contours[pair.b].id }));
}
