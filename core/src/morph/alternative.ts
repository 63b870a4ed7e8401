import type { Match, PairMatch } from '../match';
import type { ShiftPlan } from './plan';
import type { RunSource } from './planned-run';

/** One way to do a shift, as it was judged. */
export interface Alternative {
  readonly match: Match;
  /** 0 for the best there could be; what the alternatives are ordered by. */
  readonly score: number;
  /** The plan; the same as planning the match anew. */
  readonly plan: ShiftPlan;
}

/** One way to do a pair, as it was judged alone. */
export interface PairChoice {
  readonly pair: PairMatch;
  readonly source: RunSource;
  readonly score: number;
  readonly folds: boolean;
}

/** Scores nearer than this are equal, and the order of before holds: the last bits say nothing. */
const SAME_SCORE = 1e-9;
/** The order of what was judged, the best first. */
export const byScore = (p: { readonly score: number }, q: { readonly score: number }): number =>
  Math.round(p.score / SAME_SCORE) - Math.round(q.score / SAME_SCORE);
