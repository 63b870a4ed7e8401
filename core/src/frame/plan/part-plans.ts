import { type Match, type Reason, unpairedTiming } from '../../match';
import { type Health, measureHealth, planShift, type ShiftPlan, VERDICTS } from '../../morph';
import type { Outline } from '../../outline';
import { planByNumbers } from './by-numbers';
import { BY_POINTS, planByPoints } from './by-points';
import { lostChoices, wipeAngle } from './match-input';
import { type PlacedPart, placedParts } from './placed-parts';
import { planPairs, type Thoroughness } from './planned-pairs';
import { pairsOf, type ShiftInput } from './shift-input';

/** The way of one drawn part of a shift. */
export interface PartPlan {
  /** Ids of the parts that become each other; one of them is absent for an unpaired part. */
  readonly a?: string;
  readonly b?: string;
  readonly plan: ShiftPlan;
}

/** How the parts of two poses become each other, in painting order, and what was decided. Outlines only: paint is laid on them later. */
export interface PlannedParts {
  readonly parts: readonly PartPlan[];
  readonly reasons: readonly Reason[];
}

/** The change from one pose to another: its parts, what was decided and how healthy it is. */
export interface PoseShiftPlan extends PlannedParts {
  readonly health: Health;
}

/**
 * Plans a shift between two poses: matches the outlines of their paired parts and measures its health. The heavy call of the program;
 * `onProgress` is told now and then which share (0 to 1) of it is done.
 */
export function planPoseShift(input: ShiftInput, onProgress?: (share: number) => void): PoseShiftPlan {
  const planned = planParts(input, 'full', onProgress);
  return { ...planned, health: worstHealth(planned.parts.map(({ plan }) => measureHealth(plan))) };
}

/**
 * The parts of the same plan where a sound one is among the first ways, in much less time at worst.
 * @returns null where it is not, and `planPoseShift` would look further
 */
export function planSoundShift(input: ShiftInput): PlannedParts | null {
  const planned = planParts(input, 'first');
  return planned.parts.every(({ plan }) => measureHealth(plan).sound) ? planned : null;
}

/** A first answer while something is dragged: the cheapest match, neither looked at nor measured. */
export const previewPoseShift = (input: ShiftInput): PlannedParts => planParts(input, 'quick');

function planParts(input: ShiftInput, thoroughness: Thoroughness, onProgress?: (share: number) => void): PlannedParts {
  const byPoints = planByPoints(input);
  if (byPoints) return { parts: byPoints, reasons: [BY_POINTS] };
  const from = placedParts(input.from);
  const to = placedParts(input.to);
  const used = new Set<unknown>();
  const pairs = pairsOf(input);
  const paired = pairs.map(([i, j]) => ({ a: from[i], b: to[j] }));
  const matched = planPairs(input, paired, used, thoroughness, onProgress);
  if (input.method === 'numbers')
    paired.forEach(({ a, b }, k) => {
      const plan = planByNumbers(a.part, b.part, input.from.placement, input.to.placement);
      if (plan) matched[k] = { plan, match: { ...matched[k].match, reasons: [BY_NUMBERS] } };
    });
  const drawn: { order: number; part: PartPlan; reasons: readonly Reason[] }[] = [];
  const order = (i: number, n: number): number => (i + 0.5) / n;
  const add = (
    a: PlacedPart | undefined,
    b: PlacedPart | undefined,
    at: number,
    { plan, match }: { plan: ShiftPlan; match: Match } = unpairedPlan(input, a, b, used),
  ): void => {
    const part = { ...(a && { a: a.part.id }), ...(b && { b: b.part.id }), plan };
    drawn.push({ order: at, part, reasons: match.reasons });
  };
  pairs.forEach(([i, j], k) => {
    add(from[i], to[j], (order(i, from.length) + order(j, to.length)) / 2, matched[k]);
  });
  const [pairedA, pairedB] = [new Set(pairs.map(([i]) => i)), new Set(pairs.map(([, j]) => j))];
  from.forEach((part, i) => {
    if (!pairedA.has(i)) add(part, undefined, order(i, from.length));
  });
  to.forEach((part, j) => {
    if (!pairedB.has(j)) add(undefined, part, order(j, to.length));
  });
  drawn.sort((p, q) => p.order - q.order);
  const lost = lostChoices(input.match, used).map((text): Reason => ({ code: 'choice-lost', text }));
  const texts = new Set<string>();
  return {
    parts: drawn.map(({ part }) => part),
    reasons: [
      ...lost,
      ...drawn.flatMap(({ reasons }) => reasons),
      ...aloneReasons(
        from.filter((_, i) => !pairedA.has(i)),
        input,
        'goes',
      ),
      ...aloneReasons(
        to.filter((_, j) => !pairedB.has(j)),
        input,
        'comes',
      ),
    ].filter(({ text }) => !texts.has(text) && texts.add(text)),
  };
}

const BY_NUMBERS: Reason = {
  code: 'by-numbers',
  text: 'An adjustable shape goes by its numbers: sizes, radii and angles change, and it stays what it is.',
};

/** In words, what becomes of the parts of a pose that have no partner: a part is what has a paint of its own. */
function aloneReasons(parts: readonly PlacedPart[], { match }: ShiftInput, way: 'goes' | 'comes'): Reason[] {
  const isWiped = ({ part }: PlacedPart): boolean =>
    part.contours.some(({ id }) => match.wipes.some(({ contour }) => contour === id));
  const wiped = parts.filter(isWiped).length;
  const [pose, other] = way === 'goes' ? ['first', 'second'] : ['second', 'first'];
  const say = (count: number, one: string, many: string): Reason[] => {
    if (count === 0) return [];
    const what = count === 1 ? `One part of the ${pose} pose` : `${count} parts of the ${pose} pose`;
    const text = `${what} ${count === 1 ? 'has' : 'have'} no partner in the ${other} and ${count === 1 ? one : many}.`;
    return [{ code: 'part-alone', text }];
  };
  const rest = parts.length - wiped;
  return way === 'goes'
    ? [
        ...say(rest, 'shrinks away to a point', 'shrink away to points'),
        ...say(wiped, 'is wiped away', 'are wiped away'),
      ]
    : [...say(rest, 'grows from a point', 'grow from points'), ...say(wiped, 'is wiped in', 'are wiped in')];
}

function unpairedPlan(
  { match: choices }: ShiftInput,
  a: PlacedPart | undefined,
  b: PlacedPart | undefined,
  used: Set<unknown>,
): { plan: ShiftPlan; match: Match } {
  const outlineA = a?.outline ?? { contours: [], fillRule: 'nonzero' };
  const outlineB = b?.outline ?? { contours: [], fillRule: 'nonzero' };
  const angles = (part: PlacedPart | undefined) =>
    part?.part.contours.map(({ id }) => wipeAngle(choices, id, used)) ?? [];
  const left = unpairedMatch(outlineA, outlineB);
  const match: Match = {
    ...left,
    wipes: { unpairedB: angles(b), unpairedA: angles(a) },
    ...(choices.unpairedOrder !== 'auto' && {
      timing: unpairedTiming(choices.unpairedOrder, left.unpairedB.length, left.unpairedA.length),
    }),
  };
  return { plan: planShift(outlineA, outlineB, match), match };
}

const unpairedMatch = (a: Outline, b: Outline): Match => ({
  pairs: [],
  unpairedA: a.contours.map((_, i) => i),
  unpairedB: b.contours.map((_, i) => i),
  reasons: [],
});
const HEALTHY: Health = {
  sound: true,
  verdict: 'good',
  sentence: 'Nothing changes shape.',
  folds: 0,
  crossings: 0,
  areaDip: 1,
  evenDip: 1,
  swell: 1,
  perimeter: 1,
  excursion: 0,
  restlessness: 1,
  largestStep: 0,
  inverted: 0,
  kink: 0,
  endError: 0,
  moments: [],
};

function worstHealth(all: readonly Health[]): Health {
  return all.reduce<Health>(
    (worst, health, i) =>
      i === 0 || VERDICTS.indexOf(health.verdict) > VERDICTS.indexOf(worst.verdict) ? health : worst,
    HEALTHY,
  );
}
