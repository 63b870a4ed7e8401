import { evaluate } from './evaluate';
import { LEAST_LOOP_REL } from './judge';
import type { ShiftPlan } from './plan';
import { MOST_OVERSHOOT } from './planned-run';
import { InBetweenProbe } from './probe';

const STEPS = 6;

/**
 * The plan with as much overshoot on each side, up to 0.3, as its in-betweens can bear without folds beyond those of the ends. Progress beyond is
 * compressed towards that limit by `followProgress`.
 */
export function withOvershoot(plan: ShiftPlan): ShiftPlan {
  const probe = new InBetweenProbe(plan, 0.0015 * plan.size || 1);
  const inBetween = new Float64Array(plan.from.length);
  // Followed without compression while looking.
  const open: ShiftPlan = { ...plan, overshoot: { below: Infinity, above: Infinity } };
  const folds = (progress: number): number => {
    probe.take(evaluate(open, progress, inBetween));
    return probe.countCrossings(LEAST_LOOP_REL * plan.size).folds;
  };
  const limit = (sign: 1 | -1): number => {
    const end = sign > 0 ? 1 : 0;
    const base = folds(end);
    let safe = 0;
    for (let k = 1; k <= STEPS; k++) {
      const beyond = (MOST_OVERSHOOT * k) / STEPS;
      if (folds(end + sign * beyond) > base) break;
      safe = beyond;
    }
    return safe;
  };
  return { ...plan, overshoot: { below: limit(-1), above: limit(1) } };
}
