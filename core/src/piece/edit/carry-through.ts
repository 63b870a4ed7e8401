import { type Match, mapShare, matchOutlines, type PairMatch, runContour, shareOnRun, writtenShare } from '../../match';
import {
  measureArcLength,
  type Outline,
  type Place,
  placeOfShare,
  shareOfPlace,
  transformOutline,
} from '../../outline';
import type { Id, MatchChoices, Piece, PlaceTie, Shift } from '../records';
import { DECISION_NAMES, DECISIONS, inWords, isDecided, outlineOfPart, placementMatrix } from '../records';

/** What goes on through poses that now stand between the two of a shift. */
export interface CarriedThrough {
  /** New choices by the ids of the shifts that took the place of the one that is gone. */
  readonly matches: ReadonlyMap<Id, MatchChoices>;
  /** What could not be carried, for the user. */
  readonly lost: readonly string[];
}

/**
 * Carries start points and ties of a shift that is gone over to the shifts that go the same way with other poses between. Each place is
 * followed from pose to pose by the automatic match, so that it ends where it was set. What belongs to the in-between itself (touch-ups, added
 * points, cuts, contour pairs, direction, method and the like) has no place there any more and is named.
 *
 * @returns undefined when no chain of shifts took its place
 */
export function carryThrough(after: Piece, gone: Shift, known: Pick<Piece, 'poses'>): CarriedThrough | undefined {
  const chain = chainInstead(after, gone, known);
  if (!chain) return undefined;
  const some = gone.match.starts.length + gone.match.ties.length > 0;
  const steps = (some ? chain.slice(0, -1) : []).map(
    ({ from, to }) => new Step(poseOutline(after, from), poseOutline(after, to)),
  );
  const kept = chain.map(() => ({ starts: [] as PlaceTie[], ties: [] as PlaceTie[] }));
  const lost: string[] = [];
  const carry = (tie: PlaceTie, list: 'starts' | 'ties'): void => {
    const places: (Place | undefined)[] = [tie.a];
    for (const step of steps) {
      const last = places[places.length - 1];
      places.push(last && step.follow(last));
    }
    places.push(tie.b);
    if (places.some((place) => place === undefined)) {
      lost.push(list === 'starts' ? 'A start point' : 'A tie');
      return;
    }
    chain.forEach((_, k) => {
      const [a, b] = [places[k] as Place, places[k + 1] as Place];
      kept[k][list].push({ id: k === 0 ? tie.id : `${tie.id}-${k}`, a, b });
    });
  };
  for (const start of gone.match.starts) carry(start, 'starts');
  for (const tie of gone.match.ties) carry(tie, 'ties');
  lost.push(...withoutPlace(gone));
  const matches = new Map(some ? chain.map(({ id, match }, k) => [id, { ...match, ...kept[k] }]) : []);
  return { matches, lost };
}

/** The shifts from the one pose to the other, with poses between that were not there before. */
function chainInstead(after: Piece, gone: Shift, known: Pick<Piece, 'poses'>): Shift[] | undefined {
  for (const { rail } of Object.values(after.figures)) {
    const shifts = rail.map((id) => after.shifts[id]);
    for (let first = 0; first < shifts.length; first++) {
      if (shifts[first].from !== gone.from) continue;
      for (let last = first; last < shifts.length; last++) {
        const { to } = shifts[last];
        if (to === gone.to) return last > first ? shifts.slice(first, last + 1) : undefined;
        if (known.poses[to]) break;
      }
    }
  }
  return undefined;
}

/** In words what a shift's choices hold that belongs to its own in-between. */
function withoutPlace({ match, method }: Shift): string[] {
  const named = DECISION_NAMES.filter((name) => DECISIONS[name].through === 'named');
  const settings = DECISION_NAMES.filter((name) => DECISIONS[name].through === 'setting');
  const steered = method !== 'auto' || settings.some((name) => isDecided(match, name));
  return [
    ...named.flatMap((name) => inWords((match[name] as readonly unknown[]).length, DECISIONS[name])),
    ...(steered ? ['The chosen direction, method or smoothing'] : []),
  ];
}

/** All contours of a pose where they stand on the canvas. */
function poseOutline(piece: Piece, poseId: Id): Outline {
  const pose = piece.poses[poseId];
  const contours = pose.parts.flatMap((id) => outlineOfPart(piece.parts[id]).contours);
  return transformOutline({ contours, fillRule: 'nonzero' }, placementMatrix(pose.placement));
}

/** Follows places from one pose to the next. */
class Step {
  private readonly match: Match;

  constructor(
    private readonly a: Outline,
    private readonly b: Outline,
  ) {
    this.match = matchOutlines(a, b);
  }

  follow(place: Place): Place | undefined {
    const key = 'anchor' in place ? place.anchor : place.after;
    const index = this.a.contours.findIndex(({ anchorIds }) => anchorIds?.includes(key));
    const pair = this.match.pairs.find(({ a }) => a === index);
    const share = index < 0 ? undefined : shareOfPlace(measureArcLength(this.a.contours[index]), place);
    if (!pair || share === undefined) return undefined;
    return placeOfShare(measureArcLength(this.b.contours[pair.b]), this.across(pair, share));
  }

  /** The share of the second contour, as it is written, that a share of the first goes to. */
  private across(pair: PairMatch, share: number): number {
    const { startA, startB, map, byOrigin } = pair;
    const runA = runContour(this.a, pair.a, undefined, pair.reversedA, byOrigin);
    const runB = runContour(this.b, pair.b, undefined, pair.reversedB, byOrigin);
    const along = shareOnRun(runA, this.a.contours[pair.a], share, undefined) - startA;
    const there = mapShare(map.a, map.b, runA.contour.closed && along < 0 ? along + 1 : Math.max(0, along)) + startB;
    return writtenShare(runB, runB.contour.closed ? there - Math.floor(there) : Math.min(1, there));
  }
}
