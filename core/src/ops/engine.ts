import type { Outline } from '../outline';
import type { Cap, Join } from '../paint';

export const COMBINE_KINDS = ['unite', 'subtract', 'intersect', 'exclude'] as const;
export type CombineKind = (typeof COMBINE_KINDS)[number];

/** How a line is drawn; px. */
export interface PenShape {
  readonly width: number;
  readonly cap: Cap;
  readonly join: Join;
  readonly miter: number;
}

/** How a line is drawn when it becomes an area, in dashes or whole; px. */
export interface StrokeShape extends PenShape {
  readonly dash: readonly number[];
  readonly dashOffset: number;
}

/**
 * What does the boolean work: a package behind an adapter. It is handed outlines that lie within ±300 px about the origin and may compute in
 * single precision; what comes back is checked and mended here. null: it could not.
 */
export interface PathEngine {
  combine(kind: CombineKind, subject: Outline, other: Outline): Outline | null;
  stroke(outline: Outline, pen: PenShape): Outline | null;
}
