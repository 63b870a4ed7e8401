import type { ShiftPlan } from './plan';

/** How many numbers a frame of the plan has: what `out` of `evaluate` must hold. */
export const frameLength = (plan: ShiftPlan): number => plan.from.length;

/**
 * Progress as the plan follows it: unchanged in 0..1, and outside compressed smoothly towards the plan's overshoot, so that an elastic
 * easing slows down instead of stopping dead.
 */
export function followProgress(progress: number, overshoot: number): number {
  if (progress >= 0 && progress <= 1) return progress;
  if (!(overshoot > 0)) return progress > 1 ? 1 : 0;
  const beyond = progress > 1 ? progress - 1 : progress;
  const followed = beyond / (1 + Math.abs(beyond) / overshoot);
  return progress > 1 ? 1 + followed : followed;
}

/**
 * Writes the in-between at `progress` (0 = first outline, 1 = second; beyond for overshooting easings) as flat x, y in px. Contours that are
 * born or die stay at their end outside 0..1. Allocates nothing when `out` is given; `out` must not be one of the plan's arrays.
 */
export function evaluate(
  plan: ShiftPlan,
  progress: number,
  out: Float64Array = new Float64Array(plan.from.length),
): Float64Array {
  const { from, to } = plan;
  if (progress >= 0 && progress <= 1) {
    // One loop over everything: the contours' roles matter outside 0..1 only.
    for (let i = 0; i < from.length; i++) out[i] = from[i] + (to[i] - from[i]) * progress;
    if (progress === 1) out.set(to);
    return out;
  }
  const followed = followProgress(progress, plan.overshoot);
  for (let c = 0; c < plan.contours.length; c++) {
    const contour = plan.contours[c];
    const p = contour.role === 'pair' ? followed : progress > 1 ? 1 : 0;
    const end = contour.at + 6 * contour.pieces + 2;
    for (let i = contour.at; i < end; i++) out[i] = from[i] + (to[i] - from[i]) * p;
  }
  return out;
}
