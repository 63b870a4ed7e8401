import type { GradientSample } from '../../lane';

/** A paint at a moment. */
export interface PaintSample {
  /** r, g, b, alpha in 0..1; alpha 0 draws nothing. Not used where there is a gradient. */
  readonly colour: Float64Array;
  readonly gradient: GradientSample | null;
}
