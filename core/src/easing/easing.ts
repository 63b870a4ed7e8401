import { type CubicBezierEasing, cubicBezier } from './cubic-bezier';
import { type CurveEasing, curve } from './curve';
import { type BackEasing, type BounceEasing, back, bounce, type ElasticEasing, elastic } from './families';
import { fitSegments } from './fit-segments';
import { type HoldEasing, hold } from './hold';
import type { EasingKind } from './kind';
import { type LinearEasing, linear } from './linear';
import { type SpringEasing, spring } from './spring';
import { type StepsEasing, steps } from './steps';

/** How progress runs over the time of a shift. */
export type Easing =
  | LinearEasing
  | CubicBezierEasing
  | StepsEasing
  | HoldEasing
  | SpringEasing
  | ElasticEasing
  | BounceEasing
  | BackEasing
  | CurveEasing;

/** All kinds: a new one is a file and a row here. */
const KINDS: { readonly [K in Easing['kind']]: EasingKind<Extract<Easing, { kind: K }>> } = {
  linear,
  'cubic-bezier': cubicBezier,
  steps,
  hold,
  spring,
  elastic,
  bounce,
  back,
  curve,
};
const kindOf = <E extends Easing>(easing: E): EasingKind<E> => KINDS[easing.kind] as unknown as EasingKind<E>;

/** What files make of an easing. */
export const easingInFiles = (easing: Easing): EasingKind<Easing>['files'] => kindOf(easing).files;

/** Progress at `time`, the share of the duration in [0, 1] (clamped). At 0 and 1 it is 0 and 1 exactly. */
export function ease(easing: Easing, time: number): number {
  if (!(time > 0)) return 0;
  if (time >= 1) return 1;
  return kindOf(easing).value(easing, time);
}

/** How fast progress changes at `time`, per unit of time; taken just inside the ends, where a kind may have no slope. */
export const easeSlope = (easing: Easing, time: number): number =>
  kindOf(easing).slope(easing, Math.min(1 - END_ROOM, Math.max(END_ROOM, time)));
const END_ROOM = 1e-9;

/** The easing of the way back: 1 − the progress at the time that is left. */
export const reverseEasing = (easing: Easing): Easing => kindOf(easing).reversed(easing);

/** Largest error of progress where a kind has no cubics of its own. */
const FIT_ERROR = 1e-3;

/** The easing as cubics: 3n + 1 points (time, progress) from (0, 0) to (1, 1); exact where the kind consists of cubics, else within 0.001. */
export function easingSegments(easing: Easing): Float64Array {
  const { value, segments } = kindOf(easing);
  return Float64Array.from(
    segments?.(easing) ??
      fitSegments(
        (time) => value(easing, time),
        (time) => easeSlope(easing, time),
        FIT_ERROR,
      ),
  );
}
