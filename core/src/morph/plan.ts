import type { FillRule } from '../outline';

/** Raised whenever the same input may give another plan; kept plans of older versions are then made anew. */
export const ENGINE_VERSION = 13;

export const METHODS = ['straight', 'turning', 'blended'] as const;
/** How positions travel: straight — every point on a straight line; turning — edges turn and stretch; blended — half of each. */
export type Method = (typeof METHODS)[number];

/** In-betweens of a contour at some moments, joined by cubics: what a contour needs that does not go straight. */
export interface PlanKeys {
  /** Progress of each key, ascending, the first 0, the last 1. */
  readonly times: Float64Array;
  /** For each key all numbers of the contour, and their slopes per unit of progress, px. */
  readonly values: Float64Array;
  readonly slopes: Float64Array;
}

/** How a contour that is unpaired is uncovered or covered. */
export type PlanWipe =
  | {
      /** By a straight edge: shown is what lies at x·px + y·py ≤ first + (last − first)·progress. Segments come in twos, a curve and the edge. */
      readonly kind: 'edge';
      /** Unit direction in which the edge uncovers. */
      readonly x: number;
      readonly y: number;
      readonly first: number;
      readonly last: number;
      /** For each two segments: 1 where the curve runs ahead of the edge and stands first, 0 where it comes back and stands second. */
      readonly rising: Uint8Array;
    }
  | {
      /** Along its length from its start. */
      readonly kind: 'length';
      /** Share of the length at each anchor. */
      readonly shares: Float64Array;
      /** Is it taken back instead of drawn? */
      readonly erases: boolean;
    };

/** One contour of a plan: where its numbers lie, how they travel and where it came from. */
export interface PlanContour {
  /** Index of the first number in the flat arrays; the contour has 2·(3·segments + 1) of them. */
  readonly at: number;
  readonly segments: number;
  readonly closed: boolean;
  readonly role: 'pair' | 'appears' | 'vanishes';
  /** Index of the contour in the first and second outline, where there is one. */
  readonly a?: number;
  readonly b?: number;
  /** Of a pair: does it run along the one outline as that is written, and against the other? */
  readonly reversed?: boolean;
  /** Absent where every number goes straight from one end to the other. */
  readonly keys?: PlanKeys;
  /** Absent where a contour that is unpaired grows from, or shrinks to, a point. */
  readonly wipe?: PlanWipe;
  /** Progress at which it leaves its first end and reaches its second: 0 and 1 unless it is born late or dies early. */
  readonly begin: number;
  readonly end: number;
  /**
   * Joints that are smooth at both ends, as indices (within the contour's numbers) of the handle before, the anchor and the handle after, three
   * each: there the in-between has one direction.
   */
  readonly joints: Int32Array;
  /**
   * Joints that are smooth at both ends and turn far between them, so that no mean of their handles has a direction. Five numbers each, the
   * three indices, the direction at the first end and how far it turns (rad).
   */
  readonly turns: Float64Array;
  /** Segments that are no edge of the first, and of the second outline: slits and cuts, which no stroke follows. */
  readonly bridgesA: readonly number[];
  readonly bridgesB: readonly number[];
  /** How it travels, and how much it is rounded on the way (0: not at all). */
  readonly method: Method;
  readonly smoothing: number;
}

/**
 * Everything computed beforehand for one shift between two outlines. The structure is the same at every progress; only numbers move.
 * Coordinates in px, y down, rounded to 1/4096 px.
 */
export interface ShiftPlan {
  readonly engine: number;
  readonly fillRule: FillRule;
  readonly contours: readonly PlanContour[];
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** How far below 0 and beyond 1 progress is followed. */
  readonly overshoot: { readonly below: number; readonly above: number };
  /** The longer side of the larger end's box, px. */
  readonly size: number;
  /** How far the first and last in-between are from the outlines, px: 0, unless points were set evenly on request. */
  readonly endError: number;
}

/** How many numbers a contour of a plan has. */
export const contourNumberCount = (contour: PlanContour): number => 6 * contour.segments + 2;
