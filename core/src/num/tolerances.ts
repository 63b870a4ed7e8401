/**
 * The tolerances of the core, named by the quantity they bound. Lengths are relative to the size of the outline at hand
 * (the longer side of its box), areas to the square of that size, unless the name says otherwise.
 */

/** Below this share of the size two positions count as one. */
export const LENGTH_EPS_REL = 1e-9;
/** Relative error allowed for arc lengths. */
export const ARC_LENGTH_EPS_REL = 1e-8;
/** A joint that turns by less than this is smooth. */
export const SMOOTH_JOINT_RAD = (0.5 * Math.PI) / 180;
/** A joint that turns by more than this is a corner for matching. */
export const CORNER_RAD = (20 * Math.PI) / 180;
/** Curve parameters closer than this are one parameter. */
export const PARAMETER_EPS = 1e-12;
/** Numbers in plans are rounded to this fraction of a pixel, so that every JavaScript engine keeps the same plan. */
export const PLAN_GRID_PX = 1 / 4096;
/** Break points of two outlines nearer than this share of the length are merged. */
export const BREAK_MERGE_SHARE = 0.004;
/** A plan may deviate from a dense one by this share of the size before another break point is added. */
export const PLAN_DEVIATION_REL = 0.0005;
/** Flattening error for questions of containment, relative to the size. */
export const FLATTEN_EPS_REL = 5e-4;
/** Coordinates beyond this many px are refused: far outside any picture, and squares of them lose all precision. */
export const COORDINATE_LIMIT = 1e7;
/** Times nearer than this are one, s: far less than a frame, far more than what adding times up may stray. */
export const SAME_TIME_S = 1e-6;
