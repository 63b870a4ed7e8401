/** A sentence that explains an automatic decision, with a stable code for tests and translation. */
export interface Reason {
  readonly code:
    | 'direction-aligned'
    | 'direction-reversed'
    | 'direction-own'
    | 'start-found'
    | 'contour-born'
    | 'contour-dies'
    | 'opened'
    | 'direction-by-cost';
  readonly text: string;
}

/**
 * A monotone map between shares of two contours' lengths as knots, ascending in both; the first knot is (0, 0), the last (1, 1).
 * Shares count from the start places, along the directions of the pair.
 */
export interface ShareMap {
  readonly a: Float64Array;
  readonly b: Float64Array;
}

/** Which place of one contour becomes which place of the other. */
export interface PairMatch {
  /** Index of the contour in the first and in the second outline. */
  readonly a: number;
  readonly b: number;
  /** Are the contours run against the direction in which they are written? */
  readonly reversedA: boolean;
  readonly reversedB: boolean;
  /** Shares of the length, along the directions above, at which the two start. 0 for open contours. */
  readonly startA: number;
  readonly startB: number;
  readonly map: ShareMap;
  /** What the match costs: 0 for identical outlines, about 1 and more for strangers. */
  readonly cost: number;
}

/** The decisions about one shift between two outlines. */
export interface Match {
  readonly pairs: readonly PairMatch[];
  /** Contours of the second outline that have no partner. */
  readonly births: readonly number[];
  /** Contours of the first outline that have no partner. */
  readonly deaths: readonly number[];
  readonly reasons: readonly Reason[];
}

export const DIRECTION_CHOICES = ['auto', 'same', 'reversed'] as const;
/** auto: the program decides; same: both as they are written; reversed: the second is run backwards. */
export type DirectionChoice = (typeof DIRECTION_CHOICES)[number];

export interface MatchOptions {
  readonly direction?: DirectionChoice;
}
