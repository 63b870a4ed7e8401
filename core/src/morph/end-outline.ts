import type { Contour, Outline } from '../outline';
import type { PlanContour, ShiftPlan } from './plan';

/** Two points nearer than this are one, px: plans are rounded to 1/4096 px. */
const SAME_PX = 1 / 1024;

/**
 * An end of a plan as the outline that it is, without what was added on the way. Slits and cuts are taken out and the edges on their two sides
 * joined again, contours that are a point there are left out.
 */
export function endOutline(plan: ShiftPlan, end: 'first' | 'second'): Outline {
  const contours: Contour[] = [];
  const numbers = end === 'first' ? plan.from : plan.to;
  const chains = new Map<number, number[][]>();
  for (const contour of plan.contours) {
    if (contour.role === (end === 'first' ? 'appears' : 'vanishes')) continue;
    const bridges = end === 'first' ? contour.bridgesA : contour.bridgesB;
    const points = numbers.subarray(contour.at, contour.at + 6 * contour.segments + 2);
    if (bridges.length === 0) {
      contours.push({ points: points.slice(), closed: contour.closed });
      continue;
    }
    const source = (end === 'first' ? contour.a : contour.b) ?? -1;
    const list = chains.get(source) ?? [];
    list.push(...runsBetween(contour, points, bridges));
    chains.set(source, list);
  }
  for (const list of chains.values()) contours.push(...closedFrom(list));
  return { contours, fillRule: plan.fillRule };
}

/** The runs of segments between bridges, each as 3n + 1 points. */
function runsBetween(contour: PlanContour, points: Float64Array, bridges: readonly number[]): number[][] {
  const runs: number[][] = [];
  let open = false;
  for (let k = 0; k < contour.segments; k++) {
    if (bridges.includes(k)) {
      open = false;
      continue;
    }
    if (!open) runs.push([points[6 * k], points[6 * k + 1]]);
    open = true;
    runs[runs.length - 1].push(...points.subarray(6 * k + 2, 6 * k + 8));
  }
  return runs;
}

/** Joins runs end to start until each closes; one that does not is an open line, closed by its chord on the way. */
function closedFrom(runs: readonly number[][]): Contour[] {
  const left = [...runs];
  const out: Contour[] = [];
  const meets = (p: readonly number[], q: readonly number[]): boolean =>
    Math.hypot(p[p.length - 2] - q[0], p[p.length - 1] - q[1]) <= SAME_PX;
  for (let run = left.shift(); run; run = left.shift()) {
    for (;;) {
      if (meets(run, run)) break;
      const current: readonly number[] = run;
      const next = left.findIndex((other) => meets(current, other));
      const previous = next < 0 ? left.findIndex((other) => meets(other, current)) : -1;
      if (next >= 0) run = [...run, ...left.splice(next, 1)[0].slice(2)];
      else if (previous >= 0) run = [...left.splice(previous, 1)[0], ...run.slice(2)];
      else break;
    }
    out.push({ points: Float64Array.from(run), closed: meets(run, run) });
  }
  return out;
}
