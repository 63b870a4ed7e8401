import { type PairMatch, runContour, writtenShare } from '../match';
import { evaluate, inBetweenPathData, type Method, measureHealth, VERDICTS, type Verdict } from '../morph';
import { measureArcLength, nearestOnContour, type Outline, placeOfShare } from '../outline';
import type { ContourPairing, PlaceTie, TakenWay } from '../piece';
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
  /** What to decide so that the shift goes this way. */
  readonly choice: {
    readonly method: Method;
    readonly softness: number;
    readonly starts: readonly Omit<PlaceTie, 'id'>[];
    readonly taken: TakenWay;
  };
}

/** At most this many are offered. */
const OFFERED = 6;
/** Half-way pictures nearer to each other than this share of the size are one. */
const SAME_PICTURE = 0.03;

/**
 * The ways to do a shift, ranked, for its largest pair of parts: what the program would choose by itself comes first, the healthy ones go before
 * the others. They are the same whichever of them was taken.
 */
export function rankPoseShift(input: ShiftInput): PoseAlternative[] {
  const main = mainPair(pairedParts(input));
  if (!main) return [];
  const seen: Outline[] = [];
  return freeWays(main, input.match)
    .flatMap(({ plan, match }): PoseAlternative[] => {
      const outline = halfWayOutline(plan);
      // What looks the same half-way is the same to the eye.
      if (seen.some((other) => apart(outline, other) < SAME_PICTURE * plan.size)) return [];
      seen.push(outline);
      const halfWay = inBetweenPathData(plan, evaluate(plan, 0.5), 1);
      const { verdict, sentence } = measureHealth(plan);
      const largest = match.pairs[0];
      return [
        {
          halfWay,
          fillRule: plan.fillRule,
          verdict,
          sentence,
          choice: {
            method: largest?.method ?? 'straight',
            softness: largest?.softness ?? 0,
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

/** How far points along two outlines are from the other outline at most, roughly, px. */
function apart(p: Outline, q: Outline): number {
  const oneWay = (from: Outline, to: Outline): number => {
    let most = 0;
    for (const contour of from.contours)
      for (let i = 0; i < contour.points.length; i += 6) {
        const [x, y] = [contour.points[i], contour.points[i + 1]];
        most = Math.max(most, Math.min(...to.contours.map((c) => nearestOnContour(c, x, y)?.distance ?? Infinity)));
      }
    return most;
  };
  return Math.max(oneWay(p, q), oneWay(q, p));
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
