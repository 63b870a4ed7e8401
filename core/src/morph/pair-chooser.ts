import type { Matcher, PairMatch, PairSpec } from '../match';
import { byScore, type PairChoice } from './alternative';
import { Judge } from './judge';
import { METHODS, type Method } from './plan';
import { pairSource } from './plan-shift';
import { assemble, planRun, type RunSource } from './planned-run';

/** How much better a method must score to be chosen over the plainer one. */
const METHOD_BIAS: Readonly<Record<Method, number>> = { straight: 0, blended: 0.02, turning: 0.06 };
/** Rounding the in-between is for shifts that would fold without it. */
const SOFT_BIAS = 0.6;
const SOFT_LEVELS = [4, 6, 8, 10, 12, 14, 16, 18] as const;
/** How many of the best matches are tried at each level of rounding. */
const SOFT_FITS = 3;
/** A way that scores worse than this is also tried rounded, even if nothing folds. */
const SOFTEN_ABOVE = 3;
/** How much better a match must score when it comes from another idea of which points correspond. */
const OTHER_BIAS = 0.1;

/** How far the search goes. */
export interface Reach {
  /** The least number of ways judged for each pair, even if the first is good. */
  readonly atLeast: number;
  /** Try everything that could help? True when nothing found so far is healthy. */
  readonly wider: boolean;
}

/** What a designer has set for all pairs. */
export interface PairWishes {
  readonly method?: Method;
  readonly smoothing?: number;
  readonly even?: number;
}

/** Judges the ways to morph single pairs, as far as one reach goes. It remembers its answers. */
export class PairChooser {
  private readonly choices = new Map<string, PairChoice[]>();

  constructor(
    private readonly matcher: Matcher,
    private readonly options: PairWishes,
    /** The larger outline's size, px. */
    private readonly size: number,
    readonly reach: Reach,
  ) {}

  /** The ways to morph one pair, each judged by itself, best first. */
  choose(specs: readonly PairSpec[]): PairChoice[] {
    const key = JSON.stringify(specs);
    let found = this.choices.get(key);
    if (!found) {
      found = this.judgePair(specs);
      this.choices.set(key, found);
    }
    return found;
  }

  private judgePair(specs: readonly PairSpec[]): PairChoice[] {
    // When many ways are wanted, none is dropped after a first look.
    const looked = this.reach.atLeast === 1 ? this.matcher.promising(specs) : specs;
    const own = looked.flatMap((spec) => this.matcher.fits(spec));
    const least = Math.min(...own.map(({ cost }) => cost));
    const others = this.reach.wider ? looked.flatMap((spec) => this.matcher.others(spec)) : [];
    const fits = [...own, ...others.map((fit) => ({ ...fit, cost: least + OTHER_BIAS }))];
    const methods = this.options.method ? [this.options.method] : METHODS;
    const smoothing = this.options.smoothing;
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
      const plan = assemble([planRun(source, { method, smoothing: soft })], 'nonzero', this.size);
      const eye = new Judge(plan);
      const { penalty, folds } = eye.firstLook();
      judged.push({
        pair: { ...pair, method, smoothing: soft },
        source,
        score: prior + penalty,
        folds,
        judge: eye,
        twice: false,
      });
    };
    const settle = (): void => {
      // The winner is judged in full, until a fully judged one stays the winner.
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
        if (judged.length >= this.reach.atLeast && prior >= judged[0].score) break;
        judge(pair, method, prior, smoothing ?? 0);
        judged.sort(byScore);
      }
    };
    do {
      proceed();
      settle();
    } while (next < queue.length && queue[next].prior < judged[0].score);
    if ((this.reach.wider || judged[0].folds || judged[0].score > SOFTEN_ABOVE) && smoothing === undefined) {
      const tried = new Set<PairMatch>();
      const left = { own: SOFT_FITS, others: SOFT_FITS };
      for (const { pair, prior } of queue) {
        const of = own.includes(pair) ? 'own' : 'others';
        if (tried.has(pair) || left[of]-- <= 0) continue;
        tried.add(pair);
        if (!sourceOf(pair).closed) continue;
        for (const level of SOFT_LEVELS) {
          judge(pair, 'straight', prior + SOFT_BIAS + 0.02 * level, level);
          if (!this.reach.wider && !judged[judged.length - 1].folds) break;
        }
      }
      settle();
    }
    return judged.map(({ pair, source, score, folds }) => ({ pair, source, score, folds }));
  }
}
