import { evaluate } from './evaluate';
import type { ShiftPlan } from './plan';
import { InBetweenProbe } from './probe';

/** Moments at which it is looked at who meets whom. */
const MOMENTS = Array.from({ length: 19 }, (_, k) => (k + 1) / 20);
const COARSE_REL = 0.0015;

/** Which contours of a plan cross which on the way, by their indices, the smaller first; at how many of 19 moments. */
export function meetings(plan: ShiftPlan): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  if (plan.contours.length < 2) return found;
  const probe = new InBetweenProbe(plan, COARSE_REL * plan.size || 1);
  const inBetween = new Float64Array(plan.from.length);
  for (const moment of MOMENTS) {
    probe.take(evaluate(plan, moment, inBetween));
    for (const pair of probe.crossingContours()) found.set(pair, (found.get(pair) ?? 0) + 1);
  }
  return found;
}
