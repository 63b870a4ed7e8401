import { type Match, matchOutlines, type PlacePair, type Reason } from '../../match';
import {
  planShift,
  type RankOptions,
  rankAlternatives,
  runEnds,
  type ShiftPlan,
  sharedPlaces,
  withoutEndJoints,
} from '../../morph';
import { contourLength } from '../../outline';
import { rankOptions } from './match-input';
import { type PlacedPart, placedParts } from './placed-parts';
import { pairsOf, type ShiftInput } from './shift-input';
import { takenWay } from './taken-way';

/**
 * How thorough planning is: `quick` takes the cheapest match without looking at in-betweens, for an answer while something is dragged; `first` looks no
 * further where nothing sound is among the first ways.
 */
export type Thoroughness = 'quick' | 'first' | 'full';

/** Two parts that become each other, as one of several that are planned together. */
interface PlannedPair extends PartPair {
  readonly options: RankOptions;
  readonly followed: readonly PlacePair[];
  readonly plan: ShiftPlan;
  readonly match: Match;
}
/** Two parts that become each other. */
export interface PartPair {
  readonly a: PlacedPart;
  readonly b: PlacedPart;
}

/** The parts of both poses that become each other. */
export function pairedParts(input: ShiftInput): PartPair[] {
  const from = placedParts(input.from);
  const to = placedParts(input.to);
  return pairsOf(input).map(([i, j]) => ({ a: from[i], b: to[j] }));
}

/** The pair with the most points, for which alternatives are offered; undefined where there is none. */
export function mainPair(pairs: readonly PartPair[]): PartPair | undefined {
  const points = (part: PlacedPart): number => part.outline.contours.reduce((n, c) => n + c.points.length, 0);
  const weights = pairs.map(({ a, b }) => points(a) + points(b));
  return pairs[weights.indexOf(Math.max(...weights))];
}

/**
 * Plans the paired parts of a shift, with those of shifts inStep it in mind. Where edges of two parts lie on each other at both ends, one
 * follows the other, and both go straight, so that their edges stay on each other. A method that was chosen goes
 * before this.
 *
 * @returns the plans of the shift's own pairs
 */
export function planPairs(
  input: ShiftInput,
  own: readonly PartPair[],
  used: Set<unknown>,
  thoroughness: Thoroughness,
  onProgress?: (share: number) => void,
): { plan: ShiftPlan; match: Match }[] {
  const inStep = input.inStep ?? [];
  const of = (shift: Omit<ShiftInput, 'inStep'>, pairs: readonly PartPair[], seen: Set<unknown>) => {
    const main = mainPair(pairs);
    return pairs.map((pair) => ({ pair, of: shift, seen, isMain: pair === main }));
  };
  const from = (below: boolean) =>
    inStep
      .filter((other) => other.below === below)
      .flatMap(({ shift }) => of(shift, pairedParts(shift), new Set<unknown>()));
  const under = from(true);
  const all = [...under, ...of(input, own, used), ...from(false)];
  const first = under.length;
  const group = all.map(({ pair: { a, b }, of, seen, isMain }, k): PlannedPair => {
    const options = rankOptions(of.match, of.method, a, b, seen);
    const advance = (share: number): void => onProgress?.((k + share) / all.length);
    const looksFor = isMain && thoroughness !== 'quick' && of.match.taken !== null;
    const taken = looksFor ? takenWay({ a, b }, of.match, options, advance) : undefined;
    const found = taken ?? matchedPlan(a, b, options, thoroughness, advance);
    const planned = looksFor && !taken ? withReason(found, GONE) : found;
    onProgress?.((k + 1) / all.length);
    return { a, b, options, followed: [], ...planned };
  });
  for (let j = 1; j < group.length; j++) {
    for (let i = 0; i < j; i++) {
      if (!goesStraight(group[i].options) || !goesStraight(group[j].options)) continue;
      // The one that has less outline leads: a line goes before the area under it.
      const [lead, next] = outlineLength(group[j]) < outlineLength(group[i]) ? [j, i] : [i, j];
      const { a, b } = group[next];
      const { plan, a: ownA, b: ownB } = group[lead];
      const ends = runEnds(plan, [ownA.outline, ownB.outline], a.outline, b.outline);
      if (ends.length === 0 && sharedPlaces(plan, a.outline, b.outline).length === 0) continue;
      const leading = following(group[lead], ends, thoroughness);
      const places = sharedPlaces(leading.plan, a.outline, b.outline);
      if (places.length === 0) continue;
      group[lead] = leading;
      group[next] = following(group[next], places, thoroughness);
    }
  }
  for (let j = 1; j < group.length; j++) {
    for (let i = 0; i < j; i++) {
      if (group[i].followed.length + group[j].followed.length === 0) continue;
      const [p, q] = withoutEndJoints(group[i].plan, group[j].plan);
      group[i] = { ...group[i], plan: p };
      group[j] = { ...group[j], plan: q };
    }
  }
  return group.slice(first, first + own.length);
}

/** Length of the outlines of a pair, px. */
const outlineLength = ({ a, b }: PartPair): number =>
  [...a.outline.contours, ...b.outline.contours].reduce((sum, contour) => sum + contourLength(contour), 0);

/** Nothing but a straight way was asked for. */
const goesStraight = ({ method, smoothing }: RankOptions): boolean =>
  (method === undefined || method === 'straight') && !smoothing;

const SHARED: Reason = {
  code: 'shared-edge',
  text: 'An edge that lies on another outline at both ends stays on it, so points travel straight.',
};

const GONE: Reason = {
  code: 'choice-lost',
  text: 'The alternative that was taken is not among the ways any more: the outlines have changed. Its method, start points and pairs hold.',
};

/** The pair planned anew on straight ways, through further places that it is to follow. */
function following(pair: PlannedPair, places: readonly PlacePair[], thoroughness: Thoroughness): PlannedPair {
  const straight = pair.plan.contours.every(({ method, smoothing }) => method === 'straight' && !smoothing);
  if (places.length === 0 && straight) return withReason(pair, SHARED);
  const followed = [...pair.followed, ...places];
  const said = pair.options.pairs ?? [];
  const pairs = [...said];
  for (const { contourA, contourB } of followed)
    if (!pairs.some(([i, j]) => i === contourA || j === contourB)) pairs.push([contourA, contourB]);
  const options: RankOptions = { ...pair.options, pairs, followed, method: 'straight', smoothing: 0 };
  const planned = matchedPlan(pair.a, pair.b, options, thoroughness);
  // What the program decided for the sake of the edge is not the user's choice.
  const reasons = planned.match.reasons.filter(
    ({ code }) =>
      (code !== 'method-own' || pair.options.method) &&
      (code !== 'softened' || pair.options.smoothing !== undefined) &&
      (code !== 'pairs-own' || said.length > 0) &&
      code !== 'origins',
  );
  return withReason({ ...pair, followed, plan: planned.plan, match: { ...planned.match, reasons } }, SHARED);
}

const withReason = <T extends { readonly match: Match }>(pair: T, reason: Reason): T =>
  pair.match.reasons.some(({ code }) => code === reason.code)
    ? pair
    : { ...pair, match: { ...pair.match, reasons: [...pair.match.reasons, reason] } };

function matchedPlan(
  a: PlacedPart,
  b: PlacedPart,
  options: RankOptions,
  thoroughness: Thoroughness,
  onProgress?: (share: number) => void,
): { plan: ShiftPlan; match: Match } {
  if (thoroughness !== 'quick') {
    const firstWaysOnly = thoroughness === 'first';
    return rankAlternatives(a.outline, b.outline, { ...options, firstWaysOnly }, onProgress)[0];
  }
  const match = matchOutlines(a.outline, b.outline, options);
  const softened = { ...match, pairs: match.pairs.map((pair) => ({ ...pair, smoothing: options.smoothing })) };
  return { plan: planShift(a.outline, b.outline, softened, options.method), match };
}
