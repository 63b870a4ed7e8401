import {
  type Match,
  type Matcher,
  type MatchOptions,
  type Pairing,
  type PairMatch,
  type PairSpec,
  pairingsOf,
  prepareMatcher,
  type Reason,
  reasonsFor,
  type Turns,
  turnTiming,
  wipesOf,
} from '../match';
import { type Outline, outlineSize } from '../outline';
import { type Alternative, byScore, type PairChoice } from './alternative';
import { fullestFirst, soundFirst } from './by-health';
import { measureHealth } from './health';
import type { Health } from './health-figures';
import { Judge } from './judge';
import { withOvershoot } from './overshoot';
import { METHODS, type Method } from './plan';
import { pairSource, planRuns } from './plan-shift';
import { assemble, planRun, type RunSource } from './planned-run';
import { cheapestWay, isTangled } from './tangles';
import { withUnpairedPointsNear } from './unpaired-points';
import { Untangler } from './untangle';

/** So many ways are judged for each pair before a way is taken that is not good. */
const JUDGED_FOR_HEALTH = 12;
/** What a method must win by: the plainer way is taken where both are as good. */
const METHOD_BIAS: Readonly<Record<Method, number>> = { straight: 0, blended: 0.02, turning: 0.06 };
/** Rounding the middle is for shifts that fold otherwise. */
const SOFT_BIAS = 0.6;
const SOFT_LEVELS = [4, 6, 8, 10, 12, 14, 16, 18] as const;
/** How many of the best matches are tried with each level. */
const SOFT_FITS = 3;
/** Something scored worse than this may be better softened, even where nothing folds. */
const SOFTEN_ABOVE = 3;
/** So many alternatives are handed over at most. */
const MOST_ALTERNATIVES = 8;
/** Up to so many contours of both outlines together all that could help is tried where nothing is healthy. */
const MOST_FOR_ALL = 40;
/** So many of the best pairings are done with all pairs alike, where none is healthy as it is. */
const MOST_ALIKE = 3;
/** Of so many it is asked how healthy they are, where the first is not. */
const MOST_VERDICTS = 24;
/** What a match by another opinion of what belongs together must win by. */
const OTHER_BIAS = 0.1;
/** What each contour that is left unpaired weighs when pairings are compared, and how much what an assignment costs beyond the best. */
const UNPAIRED_BIAS = 0.25;
const EXTRA_WEIGHT = 0.4;

export interface RankOptions extends MatchOptions {
  /** Only this way of travelling. */
  readonly method?: Method;
  /** Rounded this much on the way, 0 to 18; absent: where everything else folds or is unhealthy. */
  readonly softness?: number;
  /** How many ways are judged for each pair even where the first is good; for a list to choose from. Default 1. */
  readonly atLeast?: number;
  /** Is the best pairing handed over also with all its pairs done alike, by each method and in each order of what comes and goes? Last, and unjudged. */
  readonly varied?: boolean;
  /** Where nothing sound is among the first ways, is the best of them handed over at once? Otherwise more and more ways are looked at. */
  readonly firstWaysOnly?: boolean;
}

/** An alternative scored less than this needs no last resort. */
const GOOD_ENOUGH = 1;
/** Ways for contours to come and go, and what each must win by. */
interface Stage {
  readonly turns: Exclude<Turns, 'auto'>;
  readonly bias: number;
}
const STAGES: readonly Stage[] = [
  { turns: 'together', bias: 0 },
  { turns: 'overlap', bias: 0.025 },
  { turns: 'after', bias: 0.05 },
];
/** Ways to do all pairs alike, where none of the first is healthy. */
const KINDS: readonly ((pair: PairMatch) => boolean)[] = [
  () => true,
  ...METHODS.map((method) => (pair: PairMatch) => pair.method === method && !pair.softness),
  ...[6, 12, 18].map(
    (level) =>
      ({ softness = 0 }: PairMatch) =>
        softness >= level,
  ),
];

/** So many of the best alternatives are untangled. */
const UNTANGLED = 2;

/** What a pairing costs whatever its pairs look like. */
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

class Ranker {
  private readonly size: number;
  private readonly choices = new Map<string, PairChoice[]>();
  private atLeast: number;
  /** Is all tried that could help, as nothing that was found at first is healthy? */
  private wider = false;
  private readonly untangler: Untangler;
  private readonly pairings: readonly Pairing[];

  constructor(
    private readonly matcher: Matcher,
    private readonly options: RankOptions,
  ) {
    this.size = Math.max(outlineSize(matcher.a), outlineSize(matcher.b));
    this.atLeast = options.atLeast ?? 1;
    this.pairings = pairingsOf(matcher);
    this.untangler = new Untangler(options, (pairing, choices) => this.judged(pairing, choices));
  }

  rank(onProgress?: (share: number) => void): Alternative[] {
    const { a, b } = this.matcher;
    if (isTangled(a) || isTangled(b)) return [cheapestWay(a, b, this.options)];
    const ways = this.ways(onProgress);
    const pairing = this.options.varied ? this.pairingLike(ways[0]) : undefined;
    return pairing ? [...ways, ...this.unjudged(pairing)] : ways;
  }

  private ways(onProgress?: (share: number) => void): Alternative[] {
    const { pairings } = this;
    let found = this.judge(pairings, onProgress);
    const first = { ...found[0], plan: withOvershoot(found[0].plan) };
    const told = this.healthOf(first);
    if (told.verdict === 'good') return [first, ...found.slice(1, MOST_ALTERNATIVES)];
    // Nothing is wrong with it, but a designer may mind something: one that is nearly as good in all else, and of which nothing is to be said, goes before it.
    if (told.sound) {
      const [fullest, ...others] = fullestFirst(found.slice(0, MOST_ALTERNATIVES), (each) => this.healthOf(each));
      return [{ ...fullest, plan: withOvershoot(fullest.plan) }, ...others];
    }
    if (this.options.firstWaysOnly) return [first, ...found.slice(1, MOST_ALTERNATIVES)];
    // More and more ways are looked at before an unhealthy one is taken.
    const { a, b } = this.matcher;
    const few = a.contours.length + b.contours.length <= MOST_FOR_ALL;
    const byHealth = (ways: readonly Alternative[], most: number): [Alternative, boolean][] =>
      soundFirst(ways.slice(0, most), MOST_ALTERNATIVES, (each) => this.healthOf(each));
    let healthiest = byHealth(found, MOST_ALTERNATIVES);
    for (const wider of few ? [false, true] : [false]) {
      const [[best, sound]] = healthiest;
      if (sound && best.score < GOOD_ENOUGH) break;
      if (!wider && this.atLeast >= JUDGED_FOR_HEALTH) continue;
      this.wider = wider;
      this.atLeast = Math.max(this.atLeast, JUDGED_FOR_HEALTH);
      this.choices.clear();
      const more = this.judge(pairings);
      const before = found.filter((each) => !more.some((other) => byScore(each, other) === 0));
      found = [...before, ...more].sort(byScore);
      healthiest = byHealth(found, wider ? MOST_VERDICTS : MOST_ALTERNATIVES);
    }
    const [[best], ...others] = healthiest.slice(0, MOST_ALTERNATIVES);
    return [{ ...best, plan: withOvershoot(best.plan) }, ...others.map(([alternative]) => alternative)];
  }

  /** How healthy an alternative is by itself: what a hand moved on the way is left aside, or touching up would lead to another way. */
  private healthOf({ plan, match }: Alternative): Health {
    if (!match.touchUps || match.touchUps.length === 0) return measureHealth(plan);
    const { a, b } = this.matcher;
    const source = (pair: PairMatch): RunSource => pairSource(a, b, pair, this.size, match.even);
    return measureHealth(planRuns(a, b, { ...match, touchUps: undefined }, this.size, source));
  }

  /** The alternatives of all pairings that were worth a look, the best score first; at least one. */
  private judge(pairings: readonly Pairing[], onProgress?: (share: number) => void): Alternative[] {
    const found: Alternative[] = [];
    const byPairing = new Map<Pairing, Alternative>();
    const simple = this.matcher.a.contours.length <= 1 && this.matcher.b.contours.length <= 1;
    for (const [n, pairing] of pairings.entries()) {
      if (n > 0) onProgress?.(n / pairings.length);
      // What is tried only where the rest is not good enough.
      if (pairing.lastResort && found.some(({ score }) => score < GOOD_ENOUGH)) continue;
      // Dearer before it is looked at than another that was: it cannot win.
      if (!simple && this.atLeast === 1 && found.some(({ score }) => score < leastScore(pairing))) continue;
      const choices = pairing.slots.map((specs) => this.choose(specs));
      if (simple) {
        for (const choice of choices[0]?.slice(0, this.wider ? MOST_VERDICTS : MOST_ALTERNATIVES) ?? [])
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
    if (this.wider)
      for (const [pairing, judged] of [...byPairing].sort(([, p], [, q]) => byScore(p, q)).slice(0, MOST_ALIKE))
        found.push(...this.alike(pairing), ...this.untangler.untangled(judged));
    found.sort(byScore);
    if (!simple && found.length > 0) {
      found.push(...this.variations(found[0]));
      found.sort(byScore);
      for (const tangled of found.slice(0, UNTANGLED)) found.push(...this.untangler.untangled(tangled));
    }
    return found.sort(byScore);
  }

  /** The pairing of an alternative; undefined where it has none of several, or one of a last resort. */
  private pairingLike({ match }: Alternative): Pairing | undefined {
    return this.pairings.find(
      ({ slots, unpairedB, unpairedA }) =>
        unpairedB.length === match.unpairedB.length &&
        unpairedA.length === match.unpairedA.length &&
        slots.length === match.pairs.length &&
        slots.every((specs, k) => specs.some((spec) => spec.a === match.pairs[k].a && spec.b === match.pairs[k].b)),
    );
  }

  /** Other choices for single pairs of the best pairing. */
  private variations(best: Alternative): Alternative[] {
    const pairing = this.pairingLike(best);
    if (!pairing) return [];
    const choices = pairing.slots.map((specs) => this.choose(specs));
    const out: Alternative[] = [];
    choices.forEach((list, k) => {
      for (const other of list.slice(1, 3)) {
        if (out.length >= MOST_ALTERNATIVES && !this.wider) return;
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

  /** All pairs of a pairing done alike, in each way and with each order of what comes and goes. */
  private *alike(pairing: Pairing): Generator<Alternative> {
    const lists = pairing.slots.map((specs) => this.choose(specs));
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

  /** All pairs done alike by each method, in each order of what comes and goes; nobody has looked at them. */
  private *unjudged(pairing: Pairing): Generator<Alternative> {
    const lists = pairing.slots.map((specs) => this.choose(specs));
    for (const method of this.options.method ? [this.options.method] : METHODS) {
      const choices = lists.map((list) => list.find(({ pair }) => pair.method === method && !pair.softness) ?? list[0]);
      const inPlace = this.alternative(pairing, choices, Infinity);
      for (const { turns } of this.stages(pairing))
        yield inTurns(inPlace, turns, (this.options.turns ?? 'auto') !== 'auto');
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

  /** What an alternative costs before it is looked at. */
  private baseOf(pairing: Pairing, choices: readonly PairChoice[]): number {
    const own = choices.reduce((sum, choice) => sum + choice.score, 0) / Math.max(1, choices.length);
    return 0.25 * own + leastScore(pairing);
  }

  /** The ways for unpaired contours to come and go that are open: together first, then one after the other, when less is there to be met. */
  private stages({ unpairedA, unpairedB }: Pairing): readonly Stage[] {
    const { turns = 'auto' } = this.options;
    if (unpairedA.length + unpairedB.length === 0) return STAGES.slice(0, 1);
    return turns === 'auto' ? STAGES : STAGES.filter((stage) => stage.turns === turns);
  }

  private staged(inPlace: Alternative, { turns, bias }: Stage, base: number): Alternative {
    const staged = inTurns(inPlace, turns, (this.options.turns ?? 'auto') !== 'auto');
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
    if (pairs.some(({ softness }) => softness))
      out.push({
        code: 'softened',
        text:
          this.options.softness !== undefined
            ? 'The middle is rounded: your choice.'
            : 'The middle is rounded, because everything else folds or looks worse.',
      });
    return out;
  }

  /** The ways to do one pair, judged alone, the best first. */
  private choose(specs: readonly PairSpec[]): PairChoice[] {
    const key = JSON.stringify(specs);
    let found = this.choices.get(key);
    if (!found) {
      found = this.judgePair(specs);
      this.choices.set(key, found);
    }
    return found;
  }

  private judgePair(specs: readonly PairSpec[]): PairChoice[] {
    // Where many ways are to be judged, none is dropped at a first look.
    const looked = this.atLeast === 1 ? this.matcher.promising(specs) : specs;
    const own = looked.flatMap((spec) => this.matcher.fits(spec));
    const least = Math.min(...own.map(({ cost }) => cost));
    const others = this.wider ? looked.flatMap((spec) => this.matcher.others(spec)) : [];
    const fits = [...own, ...others.map((fit) => ({ ...fit, cost: least + OTHER_BIAS }))];
    const methods = this.options.method ? [this.options.method] : METHODS;
    const softness = this.options.softness;
    const queue = fits
      .flatMap((pair) =>
        methods.map((method) => ({
          pair,
          method,
          prior: pair.cost - least + (methods.length > 1 ? METHOD_BIAS[method] : 0),
        })),
      )
      .sort((p, q) => p.prior - q.prior);
    const sources = new Map<PairMatch, RunSource>();
    const sourceOf = (pair: PairMatch): RunSource => {
      let source = sources.get(pair);
      if (!source) {
        source = pairSource(this.matcher.a, this.matcher.b, pair, this.size, this.options.even);
        sources.set(pair, source);
      }
      return source;
    };
    const judged: (PairChoice & { readonly judge: Judge; twice: boolean })[] = [];
    const judge = (pair: PairMatch, method: Method, prior: number, soft: number): void => {
      const source = sourceOf(pair);
      const plan = assemble([planRun(source, { method, softness: soft })], 'nonzero', this.size);
      const eye = new Judge(plan);
      const { penalty, folds } = eye.firstLook();
      judged.push({
        pair: { ...pair, method, softness: soft },
        source,
        score: prior + penalty,
        folds,
        judge: eye,
        twice: false,
      });
    };
    const settle = (): void => {
      // The winner is looked at again, until it stays the winner.
      for (;;) {
        judged.sort(byScore);
        const [first] = judged;
        if (!first || first.twice) return;
        const again = first.judge.secondLook();
        judged[0] = {
          ...first,
          twice: true,
          score: first.score + again.penalty / 2,
          folds: first.folds || again.folds,
        };
      }
    };
    let next = 0;
    const proceed = (): void => {
      for (; next < queue.length; next++) {
        const { pair, method, prior } = queue[next];
        if (judged.length >= this.atLeast && prior >= judged[0].score) break;
        judge(pair, method, prior, softness ?? 0);
        judged.sort(byScore);
      }
    };
    do {
      proceed();
      settle();
    } while (next < queue.length && queue[next].prior < judged[0].score);
    if ((this.wider || judged[0].folds || judged[0].score > SOFTEN_ABOVE) && softness === undefined) {
      const tried = new Set<PairMatch>();
      const left = { own: SOFT_FITS, others: SOFT_FITS };
      for (const { pair, prior } of queue) {
        const of = own.includes(pair) ? 'own' : 'others';
        if (tried.has(pair) || left[of]-- <= 0) continue;
        tried.add(pair);
        if (!sourceOf(pair).closed) continue;
        for (const level of SOFT_LEVELS) {
          judge(pair, 'straight', prior + SOFT_BIAS + 0.02 * level, level);
          if (!this.wider && !judged[judged.length - 1].folds) break;
        }
      }
      settle();
    }
    return judged.map(({ pair, source, score, folds }) => ({ pair, source, score, folds }));
  }
}

/** The alternative with contours that come and go doing so in turns, near something that is there. */
function inTurns(alternative: Alternative, turns: Exclude<Turns, 'auto'>, own: boolean): Alternative {
  const { plan, match } = alternative;
  const timing = turnTiming(turns, match.unpairedB.length, match.unpairedA.length);
  const reason = turnsReason(match, turns, own);
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

function turnsReason({ unpairedB, unpairedA }: Match, turns: Exclude<Turns, 'auto'>, own: boolean): Reason | undefined {
  if (unpairedB.length + unpairedA.length === 0) return undefined;
  if (own) return { code: 'turns-own', text: 'When unpaired contours go and come is your choice.' };
  if (turns === 'together') return undefined;
  const how =
    unpairedA.length === 0
      ? 'What comes alone comes late'
      : unpairedB.length === 0
        ? 'What goes alone is gone early'
        : `What goes alone is ${turns === 'overlap' ? 'half gone' : 'gone'} before something comes`;
  return { code: 'takes-turns', text: `${how}, so that nothing touches.` };
}

const WORD: Readonly<Record<Method, string>> = {
  straight: 'straight',
  turning: 'by turning edges',
  blended: 'half straight, half turning',
};
