import type { Turns, TurnTiming } from './turns';

/** A sentence that explains an automatic decision, with a stable code for tests and translation. */
export interface Reason {
  readonly code:
    | 'direction-aligned'
    | 'direction-reversed'
    | 'direction-own'
    | 'direction-by-cost'
    | 'start-found'
    | 'start-own'
    | 'ties-own'
    | 'origins'
    | 'shared-edge'
    | 'pairs-own'
    | 'contour-born'
    | 'contour-dies'
    | 'part-alone'
    | 'takes-turns'
    | 'turns-own'
    | 'slit'
    | 'cut'
    | 'opened'
    | 'closed-by-chord'
    | 'wiped'
    | 'method-found'
    | 'method-own'
    | 'softened'
    | 'even'
    | 'touched-up'
    | 'by-numbers'
    | 'by-points'
    | 'way-taken'
    | 'choice-lost';
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

/** Two places that belong together: shares of the lengths of both contours, from their starts as they are run. */
export interface FixedPair {
  readonly a: number;
  readonly b: number;
}

/** A zero-width bridge between a solid and a hole in it, so that both become one contour. */
export interface Slit {
  /** Index of the hole. */
  readonly hole: number;
  /** Where the bridge meets the solid and the hole: shares of their lengths, as they are written. */
  readonly at: number;
  readonly holeAt: number;
}

/** One of the parts into which a solid is divided by straight lines. */
export interface CutPart {
  /** Lines x0, y0, x1, y1 in px; each divides every part that it crosses. */
  readonly lines: readonly (readonly [number, number, number, number])[];
  /** Which part, in order along the first line's normal, then the second's. */
  readonly part: number;
  /** Indices of holes that the lines open; all of them are crossed by one. */
  readonly holes?: readonly number[];
}

/** What is run along on one side of a pair, when it is not simply a contour: the contour with holes joined to it, or a part of it. */
export interface Joining {
  readonly slits?: readonly Slit[];
  /** Is the contour, an open one, closed by its chord? */
  readonly chord?: boolean;
  readonly cut?: CutPart;
}

/** Which place of one contour becomes which place of the other. */
export interface PairMatch {
  /** Index of the contour in the first and in the second outline. */
  readonly a: number;
  readonly b: number;
  readonly joiningA?: Joining;
  readonly joiningB?: Joining;
  /** Are the contours run against the direction in which they are written? */
  readonly reversedA: boolean;
  readonly reversedB: boolean;
  /** Shares of the length, along the directions above, at which the two start. 0 for open contours. */
  readonly startA: number;
  readonly startB: number;
  readonly map: ShareMap;
  /** Places that the map was made to pass through, counted from the starts. */
  readonly fixed: readonly FixedPair[];
  /** Shares of A's length from its start at which a point is wanted beyond those of both outlines. */
  readonly points: readonly number[];
  /** Segments of A and B that belong together by origin, whole: nothing is added between their ends. */
  readonly byOrigin: boolean;
  /** The start point and ties that are set for the pair contradict each other, so that it is matched without them. */
  readonly unmet?: boolean;
  /** What the match costs: 0 for identical outlines, about 1 and more for strangers. */
  readonly cost: number;
  /** How positions travel and how much they are rounded on the way, once that is decided. */
  readonly method?: 'straight' | 'turning' | 'blended';
  readonly softness?: number;
}

/** How far one point of a shift, and its handles, are moved at a moment, px. */
export interface TouchUpMove {
  readonly contourA: number;
  /** Share of the contour's length as it is written; the shift has a point there. */
  readonly shareA: number;
  readonly by: readonly [x: number, y: number];
  /** How much further the handles before and after it move, along A as it is written. */
  readonly before: readonly [x: number, y: number];
  readonly after: readonly [x: number, y: number];
}

/** An outline corrected at some progress inside a shift, through which the in-between then passes. */
export interface TouchUp {
  readonly progress: number;
  readonly moves: readonly TouchUpMove[];
}

/** The decisions about one shift between two outlines. */
export interface Match {
  readonly pairs: readonly PairMatch[];
  /** Contours of the second outline that have no partner. */
  readonly unpairedB: readonly number[];
  /** Contours of the first outline that have no partner. */
  readonly unpairedA: readonly number[];
  /** When each of them grows or shrinks; all the way when absent. */
  readonly timing?: TurnTiming;
  /** Direction (rad, 0 to the right, clockwise) in which each of them is wiped in or away; undefined: it grows or shrinks. */
  readonly wipes?: {
    readonly unpairedB: readonly (number | undefined)[];
    readonly unpairedA: readonly (number | undefined)[];
  };
  /** Points are set evenly instead of where both outlines have theirs: how many on each contour. */
  readonly even?: number;
  readonly touchUps?: readonly TouchUp[];
  readonly reasons: readonly Reason[];
}

export const OPENINGS = ['auto', 'cut', 'chord'] as const;
export type Opening = (typeof OPENINGS)[number];

export const DIRECTION_CHOICES = ['auto', 'same', 'reversed'] as const;
/** auto: the program decides; same: both as they are written; reversed: the second is run backwards. */
export type DirectionChoice = (typeof DIRECTION_CHOICES)[number];

/** Two places, one on each outline, as contour indices and shares of their lengths as they are written. */
export interface PlacePair {
  readonly contourA: number;
  readonly shareA: number;
  readonly contourB: number;
  readonly shareB: number;
}

export interface MatchOptions {
  readonly direction?: DirectionChoice;
  /** The direction for single contours of A; it goes before that of all. */
  readonly directions?: readonly { readonly contourA: number; readonly direction: DirectionChoice }[];
  /** Start points that belong together, at most one for each pair of contours. */
  readonly starts?: readonly PlacePair[];
  /** Places that belong together. */
  readonly ties?: readonly PlacePair[];
  /** Places at which both outlines follow a shift beside them: kept as the links of copied points are, after what was chosen. */
  readonly followed?: readonly PlacePair[];
  /** Contours that belong together, by index; −1: the contour goes, or comes, alone. */
  readonly pairs?: readonly (readonly [number, number])[];
  /** Places of A at which the shift is to have a point. */
  readonly points?: readonly { readonly contourA: number; readonly shareA: number }[];
  readonly even?: number;
  readonly touchUps?: readonly TouchUp[];
  /** Contours that are wiped in or away in a direction (rad, 0 to the right, clockwise) when they have no partner. */
  readonly wipes?: readonly { readonly side: 'a' | 'b'; readonly contour: number; readonly angle: number }[];
  /** When unpaired contours go and come. */
  readonly turns?: Turns;
  /** What happens where an open contour becomes a closed one: that one is cut open, or the open one is closed by its chord. */
  readonly opening?: Opening;
  /** Lines along which solids of one side are cut, as x0, y0, x1, y1 in px. */
  readonly cuts?: { readonly [side in 'a' | 'b']?: readonly (readonly [number, number, number, number])[] };
}
