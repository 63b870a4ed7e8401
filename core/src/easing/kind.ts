/** What the program knows of one kind of easing. Time and progress run from 0 to 1; progress may lie beyond on the way. */
export interface EasingKind<E> {
  /** What files make of it: a curve that they have too, swings that need several, or values that jump. */
  readonly files: 'curves' | 'springs' | 'steps';
  /** Progress at a time inside (0, 1). */
  value(easing: E, time: number): number;
  /** How fast progress changes there, per unit of time. */
  slope(easing: E, time: number): number;
  /**
   * The curve itself where it consists of cubics: 3n + 1 points (time, progress), time never running back. Left out: the curve is fitted within
   * a stated error.
   */
  segments?(easing: E): readonly number[];
  /** The easing of the way back: run backwards in time, it passes the same places. */
  reversed(easing: E): E;
}
