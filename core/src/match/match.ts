import type { UnpairedOrder, UnpairedTiming } from './unpaired-order';

/** A sentence that explains an automatic decision. Its code is stable, for tests and translation. */
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
    | 'unpaired-in-order'
    | 'unpaired-order-own'
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

/** Two places that correspond, as shares of both contours' lengths, counted from the starts along the directions of the pair. */
export interface FixedPair {
  readonly a: number;
  readonly b: number;
}

/** A zero-width bridge between a solid and a hole in it, so that both become one contour. */
export interface Slit {
  /** Index of the hole. */
  readonly hole: number;
  /** Where the bridge meets the solid and the hole, as shares of their lengths in the direction they are written. */
  readonly at: number;
  readonly holeAt: number;
}

/** One part of a solid that straight lines divide. */
export interface CutPart {
  /** Lines x0, y0, x1, y1 in px; each divides every part that it crosses. */
  readonly lines: readonly (readonly [number, number, number, number])[];
  /** Which part it is, counted along the first line's normal, then the second's. */
  readonly part: number;
  /** Indices of the holes that the lines open; each is crossed by a line. */
  readonly holes?: readonly number[];
}

/** What one side of a pair uses instead of a plain contour: the contour with holes joined to it, or a part of it. */
export interface Joining {
  readonly slits?: readonly Slit[];
  /** Is this open contour closed by its chord? */
  readonly chord?: boolean;
  readonly cut?: CutPart;
}

/** Which place on one contour becomes which place on the other. */
export interface PairMatch {
  /** Index of the contour in the first and in the second outline. */
  readonly a: number;
  readonly b: number;
  readonly joiningA?: Joining;
  readonly joiningB?: Joining;
  /** Is each contour followed against the direction in which it is written? */
  readonly reversedA: boolean;
  readonly reversedB: boolean;
  /** Shares of the length, along the directions above, at which the two start. 0 for open contours. */
  readonly startA: number;
  readonly startB: number;
  readonly map: ShareMap;
  /** Places that the map must pass through, counted from the starts. */
  readonly fixed: readonly FixedPair[];
  /** Extra points, as shares of A's length from its start, besides those of both outlines. */
  readonly points: readonly number[];
  /** Whole segments of A and B that have the same origin: no points are added inside them. */
  readonly byOrigin: boolean;
  /** True if the start point and the ties of the pair contradict each other. It is then matched without them. */
  readonly unmet?: boolean;
  /** The cost of the match: 0 for identical outlines, about 1 or more for unrelated ones. */
  readonly cost: number;
  /** The method and the rounding of the in-between, once they are decided. */
  readonly method?: 'straight' | 'turning' | 'blended';
  readonly smoothing?: number;
}

/** How far a touch-up moves one point of a shift and its handles, px. */
export interface TouchUpMove {
  readonly contourA: number;
  /** Share of the contour's length, as written. The shift has a point there. */
  readonly shareA: number;
  readonly by: readonly [x: number, y: number];
  /** How much further the handles before and after it move, along A as it is written. */
  readonly before: readonly [x: number, y: number];
  readonly after: readonly [x: number, y: number];
}

/** An outline corrected at some progress inside a shift. The in-between passes through it. */
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
  /** When each of them grows or shrinks; absent: over the whole shift. */
  readonly timing?: UnpairedTiming;
  /** Direction in which each of them is wiped (rad, 0 to the right, clockwise); undefined: it grows or shrinks. */
  readonly wipes?: {
    readonly unpairedB: readonly (number | undefined)[];
    readonly unpairedA: readonly (number | undefined)[];
  };
  /** How many evenly spaced points each contour gets. Absent: points stay where both outlines have them. */
  readonly even?: number;
  readonly touchUps?: readonly TouchUp[];
  readonly reasons: readonly Reason[];
}

export const OPENINGS = ['auto', 'cut', 'chord'] as const;
export type Opening = (typeof OPENINGS)[number];

export const DIRECTION_CHOICES = ['auto', 'same', 'reversed'] as const;
/** auto: the program decides. same: both as written. reversed: the second one backwards. */
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
  /** The direction of single contours of A. It overrides the direction for all. */
  readonly directions?: readonly { readonly contourA: number; readonly direction: DirectionChoice }[];
  /** Start points that correspond, at most one per pair of contours. */
  readonly starts?: readonly PlacePair[];
  /** Places that correspond. */
  readonly ties?: readonly PlacePair[];
  /** Places where both outlines follow a neighbouring shift. They are kept like links of copied points, after what was chosen. */
  readonly followed?: readonly PlacePair[];
  /** Contours that become each other, by index; −1: the contour leaves, or arrives, alone. */
  readonly pairs?: readonly (readonly [number, number])[];
  /** Places on A where the shift gets a point. */
  readonly points?: readonly { readonly contourA: number; readonly shareA: number }[];
  readonly even?: number;
  readonly touchUps?: readonly TouchUp[];
  /** Directions in which contours without a partner are wiped (rad, 0 to the right, clockwise). */
  readonly wipes?: readonly { readonly side: 'a' | 'b'; readonly contour: number; readonly angle: number }[];
  /** When contours without a partner leave and arrive. */
  readonly unpairedOrder?: UnpairedOrder;
  /** How an open contour becomes a closed one: either the closed one is cut open, or the open one is closed by its chord. */
  readonly opening?: Opening;
  /** Lines that cut the solids of one side, as x0, y0, x1, y1 in px. */
  readonly cuts?: { readonly [side in 'a' | 'b']?: readonly (readonly [number, number, number, number])[] };
}
