import {
  type Match,
  type Matcher,
  type MatchOptions,
  type Pairing,
  type PairMatch,
  pairingsOf,
  prepareMatcher,
  type Reason,
  reasonsFor,
  type UnpairedOrder,
  unpairedTiming,
  wipesOf,
} from '../match';
import { type Outline, outlineSize } from '../outline';
import { type Alternative, byScore, type PairChoice } from './alternative';
import { fullestFirst, soundFirst } from './by-health';
import { measureHealth } from './health';
import type { Health } from './health-figures';
import { Judge } from './judge';
import { withOvershoot } from './overshoot';
import { PairChooser, type Reach } from './pair-chooser';
import { METHODS, type Method } from './plan';
import { pairSource, planRuns } from './plan-shift';
import type { RunSource } from './planned-run';
import { cheapestWay, isTangled } from './tangles';
import { withUnpairedPointsNear } from './unpaired-points';
import { Untangler } from './untangle';

/** How many ways are judged for each pair before one that is not good is accepted. */
const JUDGED_FOR_HEALTH = 12;
/** The most alternatives that are returned. */
const MOST_ALTERNATIVES = 8;
/** Everything that could help is tried only up to this many contours, both outlines together. */
const MOST_FOR_ALL = 40;
/** If no pairing is healthy, this many of the best are tried with all their pairs morphed in the same way. */
const MOST_ALIKE = 3;
/** How many alternatives get a health check when the first one is not healthy. */
const MOST_VERDICTS = 24;
/** Weights for comparing pairings: for each unpaired contour, and for the extra cost of an assignment over the best one. */
const UNPAIRED_BIAS = 0.25;
const EXTRA_WEIGHT = 0.4;

export interface RankOptions extends MatchOptions {
  /** The only method to use. */
  readonly method?: Method;
  /** How much the in-between is rounded, 0 to 18. Absent: only if everything else folds or is unhealthy. */
  readonly smoothing?: number;
  /** The least number of ways judged for each pair, for a list to choose from. Default 1. */
  readonly atLeast?: number;
  /** Return the best pairing also with all its pairs alike, once per method and order of coming and going? They come last and are not judged. */
  readonly varied?: boolean;
  /** Stop after the first ways, even if none is sound? Otherwise the search widens step by step. */
  readonly firstWaysOnly?: boolean;
}

/** An alternative that scores below this needs no last resort. */
const GOOD_ENOUGH = 1;
/** One way for contours to come and go, and how much better it must score to be chosen. */
interface Stage {
  readonly order: Exclude<UnpairedOrder, 'auto'>;
  readonly bias: number;
}
const STAGES: readonly Stage[] = [
  { order: 'together', bias: 0 },
  { order: 'overlap', bias: 0.025 },
  { order: 'after', bias: 0.05 },
];
/** Ways to morph all pairs alike, tried when none of the first alternatives is healthy. */
const KINDS: readonly ((pair: PairMatch) => boolean)[] = [
  () => true,
  ...METHODS.map((method) => (pair: PairMatch) => pair.method === method && !pair.smoothing),
  ...[6, 12, 18].map(
    (level) =>
      ({ smoothing = 0 }: PairMatch) =>
        smoothing >= level,
  ),
];

/** How many of the best alternatives are untangled. */
const UNTANGLED = 2;

/** The cost of a pairing before its pairs are looked at. */
const leastScore = ({ unpairedA, unpairedB, extra }: Pairing): number =>
  UNPAIRED_BIAS * (unpairedA.length + unpairedB.length) + EXTRA_WEIGHT * extra;

/**
 * Finds the best ways from outline `a` to outline `b` (px, y down) by looking at their in-betweens: pairings, start points, methods, and where
 * all of them fold, rounding on the way. Candidates are judged in the order of what they promise, until the next could not win any more.
 *
 * @param onProgress is told now and then which share (0 to 1) of the pairings has been judged
 * @returns the alternatives that were judged, the best first; at least one
 * @throws CoreError 'option'
 */
export function rankAlternatives(
  a: Outline,
  b: Outline,
  options: RankOptions = {},
  onProgress?: (share: number) => void,
): Alternative[] {
  const matcher = prepareMatcher(a, b, options);
  const ranker = new Ranker(matcher, options);
  return ranker.rank(onProgress);
}

/** Ranks the alternatives of one pair of outlines. What it is asked, and in which order, changes no answer. */
export class Ranker {
  private readonly size: number;
  private readonly untangler: Untangler;
  private readonly pairings: readonly Pairing[];

  constructor(
    private readonly matcher: Matcher,
    private readonly options: RankOptions,
  ) {
    this.size = Math.max(outlineSize(matcher.a), outlineSize(matcher.b));
    this.pairings = pairingsOf(matcher);
    this.untangler = new Untangler(options, (pairing, choices) => this.judged(pairing, choices));
  }

  rank(onProgress?: (share: number) => void): Alternative[] {
    const { a, b } = this.matcher;
    if (isTangled(a) || isTangled(b)) return [cheapestWay(a, b, this.options)];
    let chooser = this.chooser({ atLeast: this.options.atLeast ?? 1, wider: false });
    const ways = this.ways(chooser, (next) => (chooser = next), onProgress);
    const pairing = this.options.varied ? this.pairingLike(ways[0]) : undefined;
    return pairing ? [...ways, ...this.unjudged(pairing, chooser)] : ways;
  }

  /** A chooser that searches the ways for single pairs as far as `reach` says. */
  chooser(reach: Reach): PairChooser {
    return new PairChooser(this.matcher, this.options, this.size, reach);
  }

  /** The alternatives to return. `onReach` hears when the search goes beyond the first chooser. */
  private ways(
    first: PairChooser,
    onReach: (chooser: PairChooser) => void,
    onProgress?: (share: number) => void,
  ): Alternative[] {
    let found = this.judge(first, onProgress);
    const best = { ...found[0], plan: withOvershoot(found[0].plan) };
    const told = this.healthOf(best);
    if (told.verdict === 'good') return [best, ...found.slice(1, MOST_ALTERNATIVES)];
    // Nothing is wrong, but a remark could be made. An alternative without any remark goes first if it is nearly as good otherwise.
    if (told.sound) {
      const [fullest, ...others] = fullestFirst(found.slice(0, MOST_ALTERNATIVES), (each) => this.healthOf(each));
      return [{ ...fullest, plan: withOvershoot(fullest.plan) }, ...others];
    }
    if (this.options.firstWaysOnly) return [best, ...found.slice(1, MOST_ALTERNATIVES)];
    // The search widens before an unhealthy way is accepted.
    const { a, b } = this.matcher;
    const few = a.contours.length + b.contours.length <= MOST_FOR_ALL;
    const byHealth = (ways: readonly Alternative[], most: number): [Alternative, boolean][] =>
      soundFirst(ways.slice(0, most), MOST_ALTERNATIVES, (each) => this.healthOf(each));
    let healthiest = byHealth(found, MOST_ALTERNATIVES);
    const { atLeast } = first.reach;
    for (const wider of few ? [false, true] : [false]) {
      const [[healthy, sound]] = healthiest;
      if (sound && healthy.score < GOOD_ENOUGH) break;
      if (!wider && atLeast >= JUDGED_FOR_HEALTH) continue;
      const chooser = this.chooser({ atLeast: Math.max(atLeast, JUDGED_FOR_HEALTH), wider });
      onReach(chooser);
      const more = this.judge(chooser);
      const before = found.filter((each) => !more.some((other) => byScore(each, other) === 0));
      found = [...before, ...more].sort(byScore);
      healthiest = byHealth(found, wider ? MOST_VERDICTS : MOST_ALTERNATIVES);
    }
    const [[healthy], ...others] = healthiest.slice(0, MOST_ALTERNATIVES);
    return [{ ...healthy, plan: withOvershoot(healthy.plan) }, ...others.map(([alternative]) => alternative)];
  }

  /** How healthy an alternative is without touch-ups. With them, touching up could make another alternative win. */
  private healthOf({ plan, match }: Alternative): Health {
    if (!match.touchUps || match.touchUps.length === 0) return measureHealth(plan);
    const { a, b } = this.matcher;
    const source = (pair: PairMatch): RunSource => pairSource(a, b, pair, this.size, match.even);
    return measureHealth(planRuns(a, b, { ...match, touchUps: undefined }, this.size, source));
  }

  /** The alternatives of all pairings worth a look, best score first; at least one. */
  judge(chooser: PairChooser, onProgress?: (share: number) => void): Alternative[] {
    const { pairings } = this;
    const { atLeast, wider } = chooser.reach;
    const found: Alternative[] = [];
    const byPairing = new Map<Pairing, Alternative>();
    const simple = this.matcher.a.contours.length <= 1 && this.matcher.b.contours.length <= 1;
    for (const [n, pairing] of pairings.entries()) {
      if (n > 0) onProgress?.(n / pairings.length);
      // Last resorts are tried only when the rest is not good enough.
      if (pairing.lastResort && found.some(({ score }) => score < GOOD_ENOUGH)) continue;
      // Its base cost alone exceeds a full score that is already known: it cannot win.
      if (!simple && atLeast === 1 && found.some(({ score }) => score < leastScore(pairing))) continue;
      const choices = pairing.slots.map((specs) => chooser.choose(specs));
      if (simple) {
        for (const choice of choices[0]?.slice(0, wider ? MOST_VERDICTS : MOST_ALTERNATIVES) ?? [])
          found.push(this.alternative(pairing, [choice], choice.score));
        if (choices.length === 0) found.push(this.judged(pairing, []));
        continue;
      }
      const judged = this.judged(
        pairing,
        choices.map(([best]) => best),
      );
      byPairing.set(pairing, judged);
      found.push(judged);
    }
    if (wider)
      for (const [pairing, judged] of [...byPairing].sort(([, p], [, q]) => byScore(p, q)).slice(0, MOST_ALIKE))
        found.push(...this.alike(pairing, chooser), ...this.untangler.untangled(judged));
    found.sort(byScore);
    if (!simple && found.length > 0) {
      found.push(...this.variations(found[0], chooser));
      found.sort(byScore);
      for (const tangled of found.slice(0, UNTANGLED)) found.push(...this.untangler.untangled(tangled));
    }
    return found.sort(byScore);
  }

  /** The pairing that an alternative came from; undefined if there was no choice, or if it was a last resort. */
  private pairingLike({ match }: Alternative): Pairing | undefined {
    return this.pairings.find(
      ({ slots, unpairedB, unpairedA }) =>
        unpairedB.length === match.unpairedB.length &&
        unpairedA.length === match.unpairedA.length &&
        slots.length === match.pairs.length &&
        slots.every((specs, k) => specs.some((spec) => spec.a === match.pairs[k].a && spec.b === match.pairs[k].b)),
    );
  }

  /** The best alternative with another way chosen for one of its pairs. */
  private variations(best: Alternative, chooser: PairChooser): Alternative[] {
    const pairing = this.pairingLike(best);
    if (!pairing) return [];
    const choices = pairing.slots.map((specs) => chooser.choose(specs));
    const out: Alternative[] = [];
    choices.forEach((list, k) => {
      for (const other of list.slice(1, 3)) {
        if (out.length >= MOST_ALTERNATIVES && !chooser.reach.wider) return;
        out.push(
          this.judged(
            pairing,
            choices.map(([first], i) => (i === k ? other : first)),
          ),
        );
      }
    });
    return out;
  }

  /** A pairing with all its pairs alike, once per way and order of coming and going. */
  private *alike(pairing: Pairing, chooser: PairChooser): Generator<Alternative> {
    const lists = pairing.slots.map((specs) => chooser.choose(specs));
    const tried = new Set<string>();
    for (const kind of KINDS) {
      const choices = lists.map((list) => list.find(({ pair }) => kind(pair)) ?? list[0]);
      const key = choices.map((choice, k) => lists[k].indexOf(choice)).join(' ');
      if (tried.has(key)) continue;
      tried.add(key);
      const inPlace = this.alternative(pairing, choices, 0);
      const base = this.baseOf(pairing, choices);
      for (const stage of this.stages(pairing)) yield this.staged(inPlace, stage, base);
    }
  }

  /** All pairs alike, once per method and order of coming and going. They are not judged. */
  private *unjudged(pairing: Pairing, chooser: PairChooser): Generator<Alternative> {
    const lists = pairing.slots.map((specs) => chooser.choose(specs));
    for (const method of this.options.method ? [this.options.method] : METHODS) {
      const choices = lists.map(
        (list) => list.find(({ pair }) => pair.method === method && !pair.smoothing) ?? list[0],
      );
      const inPlace = this.alternative(pairing, choices, Infinity);
      for (const { order } of this.stages(pairing))
        yield inOrder(inPlace, order, (this.options.unpairedOrder ?? 'auto') !== 'auto');
    }
  }

  private judged(pairing: Pairing, choices: readonly PairChoice[]): Alternative {
    const base = this.baseOf(pairing, choices);
    const inPlace = this.alternative(pairing, choices, 0);
    let best: Alternative | undefined;
    for (const stage of this.stages(pairing)) {
      if (best && best.score <= base + stage.bias) break;
      const staged = this.staged(inPlace, stage, base);
      if (!best || staged.score < best.score) best = staged;
    }
    this.untangler.remember(best as Alternative, { pairing, choices, base });
    return best as Alternative;
  }

  /** The cost of an alternative before its in-betweens are looked at. */
  private baseOf(pairing: Pairing, choices: readonly PairChoice[]): number {
    const own = choices.reduce((sum, choice) => sum + choice.score, 0) / Math.max(1, choices.length);
    return 0.25 * own + leastScore(pairing);
  }

  /** The open ways for unpaired contours to come and go: together first, then in turn, when fewer contours can collide. */
  private stages({ unpairedA, unpairedB }: Pairing): readonly Stage[] {
    const { unpairedOrder = 'auto' } = this.options;
    if (unpairedA.length + unpairedB.length === 0) return STAGES.slice(0, 1);
    return unpairedOrder === 'auto' ? STAGES : STAGES.filter(({ order }) => order === unpairedOrder);
  }

  private staged(inPlace: Alternative, { order, bias }: Stage, base: number): Alternative {
    const staged = inOrder(inPlace, order, (this.options.unpairedOrder ?? 'auto') !== 'auto');
    return { ...staged, score: base + bias + new Judge(staged.plan).firstLook().penalty };
  }

  private alternative(pairing: Pairing, choices: readonly PairChoice[], score: number): Alternative {
    const pairs = choices.map(({ pair }) => pair);
    const { unpairedB, unpairedA } = pairing;
    const sources = new Map(choices.map(({ pair, source }) => [pair, source]));
    const { a, b } = this.matcher;
    const reasons = [...reasonsFor(this.matcher, pairs, unpairedB, unpairedA), ...this.methodReasons(pairs)];
    const { even, touchUps } = this.options;
    const wipes = wipesOf(this.options, unpairedB, unpairedA);
    const match: Match = { pairs, unpairedB, unpairedA, wipes, even, touchUps, reasons };
    const plan = planRuns(
      a,
      b,
      match,
      this.size,
      (pair) => sources.get(pair) ?? pairSource(a, b, pair, this.size, even),
    );
    return { match, plan, score };
  }

  private methodReasons(pairs: readonly PairMatch[]): Reason[] {
    const out: Reason[] = [];
    if (this.options.method)
      out.push({ code: 'method-own', text: `Points travel ${WORD[this.options.method]}: your choice.` });
    else if (pairs.some(({ method }) => method && method !== 'straight'))
      out.push({
        code: 'method-found',
        text: 'Edges turn on their way, because on straight ways the middle is worse.',
      });
    if (pairs.some(({ smoothing }) => smoothing))
      out.push({
        code: 'softened',
        text:
          this.options.smoothing !== undefined
            ? 'The in-between is smoothed: your choice.'
            : 'The in-between is smoothed, because everything else folds or looks worse.',
      });
    return out;
  }
}

/** The same alternative, with contours coming and going in turn, near something that is visible. */
function inOrder(alternative: Alternative, order: Exclude<UnpairedOrder, 'auto'>, own: boolean): Alternative {
  const { plan, match } = alternative;
  const timing = unpairedTiming(order, match.unpairedB.length, match.unpairedA.length);
  const reason = orderReason(match, order, own);
  let unpairedB = 0;
  let unpairedA = 0;
  const contours = plan.contours.map((contour) => {
    if (contour.role === 'pair' || !timing) return contour;
    const [begin, end] = contour.role === 'appears' ? timing.unpairedB[unpairedB++] : timing.unpairedA[unpairedA++];
    return { ...contour, begin, end };
  });
  return {
    ...alternative,
    plan: withUnpairedPointsNear({ ...plan, contours }),
    match: { ...match, ...(timing && { timing }), reasons: reason ? [...match.reasons, reason] : match.reasons },
  };
}

function orderReason(
  { unpairedB, unpairedA }: Match,
  order: Exclude<UnpairedOrder, 'auto'>,
  own: boolean,
): Reason | undefined {
  if (unpairedB.length + unpairedA.length === 0) return undefined;
  if (own) return { code: 'unpaired-order-own', text: 'When unpaired contours go and come is your choice.' };
  if (order === 'together') return undefined;
  const how =
    unpairedA.length === 0
      ? 'What comes alone comes late'
      : unpairedB.length === 0
        ? 'What goes alone is gone early'
        : `What goes alone is ${order === 'overlap' ? 'half gone' : 'gone'} before something comes`;
  return { code: 'unpaired-in-order', text: `${how}, so that nothing touches.` };
}

const WORD: Readonly<Record<Method, string>> = {
  straight: 'straight',
  turning: 'by turning edges',
  blended: 'half straight, half turning',
};
