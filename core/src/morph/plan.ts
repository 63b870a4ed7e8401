import type { FillRule } from '../outline';

/** Raised whenever the same input may give another plan; kept plans of older versions are then made anew. */
export const ENGINE_VERSION = 1;

export const METHODS = ['straight'] as const;
/** How positions travel: straight — every point on a straight line. */
export type Method = (typeof METHODS)[number];

/** One contour of a plan: where its numbers lie and where it came from. */
export interface PlanContour {
  /** Index of the first number in the flat arrays; the contour has 2·(3·pieces + 1) of them. */
  readonly at: number;
  readonly pieces: number;
  readonly closed: boolean;
  readonly role: 'pair' | 'birth' | 'death';
  /** Index of the contour in the first and second outline, where there is one. */
  readonly a?: number;
  readonly b?: number;
}

/**
 * Everything computed beforehand for one shift between two outlines. The structure is the same at every progress; only numbers move.
 * Coordinates in px, y down, rounded to 1/4096 px.
 */
export interface ShiftPlan {
  readonly engine: number;
  readonly method: Method;
  readonly fillRule: FillRule;
  readonly contours: readonly PlanContour[];
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** How far below 0 and beyond 1 progress is followed. */
  readonly overshoot: number;
  /** The longer side of the larger end's box, px. */
  readonly size: number;
}
