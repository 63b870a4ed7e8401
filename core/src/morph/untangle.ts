import type { MatchOptions, Pairing, PairMatch, Reason } from '../match';
import { type Alternative, byScore, type PairChoice } from './alternative';
import { Judge } from './judge';
import { meetings } from './meetings';
import { withUnpairedPointsNear } from './unpaired-points';

/** An alternative is untangled in so many steps at most. */
const MOST_STEPS = 4;
/** Shares of the way in which a contour that meets others comes or goes, and what they must win by. */
const BRIEF = [0.35, 0.25] as const;
const BRIEF_BIAS = 0.08;

/** What an alternative of several contours was made of, and what it cost before it was looked at. */
interface MadeOf {
  readonly pairing: Pairing;
  readonly choices: readonly PairChoice[];
  readonly base: number;
}

/** Makes contours that cross each other on the way cross less. */
export class Untangler {
  private readonly made = new WeakMap<Alternative, MadeOf>();

  /** `judged` judges a pairing, and lets what it found be remembered here. */
  constructor(
    private readonly options: MatchOptions,
    private readonly judged: (pairing: Pairing, choices: readonly PairChoice[]) => Alternative,
  ) {}

  /** What an alternative was made of: only such ones can be untangled. */
  remember(alternative: Alternative, made: MadeOf): void {
    this.made.set(alternative, made);
  }

  /**
   * An alternative whose contours cross each other on the way, made to cross less. What comes and goes alone does so more briefly, and pairs that meet others are
   * parted, so that the one goes and the other comes. Step by step, as long as each is better than the one before.
   */
  untangled(from: Alternative): Alternative[] {
    const out: Alternative[] = [];
    let best = from;
    for (let step = 0; step < MOST_STEPS; step++) {
      const met = meetings(best.plan);
      if (met.size === 0) break;
      const involved = new Set([...met.keys()].flatMap((pair) => pair.split(' ').map(Number)));
      const tried = [...this.briefer(best, involved), ...this.parted(best, involved)];
      tried.sort(byScore);
      if (tried.length === 0 || tried[0].score >= best.score) break;
      best = tried[0];
      out.push(best);
    }
    return out;
  }

  /** Contours that come or go alone and meet others do so in a shorter time. */
  private briefer(best: Alternative, involved: ReadonlySet<number>): Alternative[] {
    if ((this.options.unpairedOrder ?? 'auto') !== 'auto') return [];
    const made = this.made.get(best);
    const { plan, match } = best;
    const alone = plan.contours.flatMap(({ role, wipe }, c) =>
      involved.has(c) && role !== 'pair' && wipe === undefined ? [c] : [],
    );
    if (!made || alone.length === 0) return [];
    return BRIEF.flatMap((brief) => {
      let changed = false;
      const contours = plan.contours.map((contour, c) => {
        if (!alone.includes(c)) return contour;
        const begin = contour.role === 'appears' ? Math.max(contour.begin, 1 - brief) : contour.begin;
        const end = contour.role === 'vanishes' ? Math.min(contour.end, brief) : contour.end;
        changed ||= begin !== contour.begin || end !== contour.end;
        return { ...contour, begin, end };
      });
      if (!changed) return [];
      const spans = (role: string) =>
        contours.flatMap((each) => (each.role === role ? [[each.begin, each.end] as const] : []));
      const timing = { unpairedB: spans('appears'), unpairedA: spans('vanishes') };
      const next = withUnpairedPointsNear({ ...plan, contours });
      const score = made.base + BRIEF_BIAS + new Judge(next).firstLook().penalty;
      const reasons = [...match.reasons.filter(({ code }) => code !== 'unpaired-in-order'), BRIEFLY];
      const other = { ...best, plan: next, match: { ...match, timing, reasons }, score };
      this.made.set(other, made);
      return [other];
    });
  }

  /** Pairs that meet others are no pairs any more. */
  private parted(best: Alternative, involved: ReadonlySet<number>): Alternative[] {
    const made = this.made.get(best);
    if (!made || this.options.pairs) return [];
    const { pairing, choices } = made;
    return choices.flatMap(({ pair }, k) => {
      if (!involved.has(k) || choices.length < 2 || pair.joiningA || pair.joiningB || this.isMeant(pair)) return [];
      const without: Pairing = {
        slots: pairing.slots.filter((_, i) => i !== k),
        unpairedA: [...pairing.unpairedA, pair.a],
        unpairedB: [...pairing.unpairedB, pair.b],
        extra: pairing.extra,
      };
      const parted = this.judged(
        without,
        choices.filter((_, i) => i !== k),
      );
      return [parted, ...this.briefer(parted, new Set(parted.plan.contours.keys()))];
    });
  }

  /** Did somebody say something of these two contours, or were points of the one copied from the other? Then they belong together. */
  private isMeant({ a, byOrigin }: PairMatch): boolean {
    const { starts = [], ties = [], followed = [], directions = [], points = [], touchUps = [] } = this.options;
    return (
      byOrigin ||
      [...starts, ...ties, ...followed, ...directions, ...points].some(({ contourA }) => contourA === a) ||
      touchUps.some(({ moves }) => moves.some(({ contourA }) => contourA === a))
    );
  }
}

const BRIEFLY: Reason = {
  code: 'unpaired-in-order',
  text: 'What comes or goes alone does so briefly where it would meet others, so that nothing touches.',
};
