import type { Outline } from '../outline';
import { cubicText, numberText } from '../svg';
import { type Box, emptyBox, includePoint } from '../vec';
import type { ShiftPlan } from './plan';

/** The in-between of a plan as an outline; copies the numbers. Contours shrunk to a point stay in it. */
export function inBetweenOutline(plan: ShiftPlan, inBetween: Float64Array): Outline {
  return {
    contours: plan.contours.map(({ at, segments, closed }) => ({
      points: inBetween.slice(at, at + 6 * segments + 2),
      closed,
    })),
    fillRule: plan.fillRule,
  };
}

/** The box of both ends' numbers, handles included, px. */
export function planBox(plan: ShiftPlan): Box {
  const box = emptyBox();
  for (const end of [plan.from, plan.to]) for (let i = 0; i < end.length; i += 2) includePoint(box, end[i], end[i + 1]);
  return box;
}

/** Path data of an in-between: always one M, the same number of C and the same Z, so that any two in-betweens of a plan interpolate command by command. */
export function inBetweenPathData(plan: ShiftPlan, inBetween: Float64Array, digits: number): string {
  let d = '';
  for (const { at, segments, closed } of plan.contours) {
    d += `M${numberText(inBetween[at], digits)} ${numberText(inBetween[at + 1], digits)}`;
    for (let k = 0; k < segments; k++) d += cubicText(inBetween, at + 6 * k, digits);
    if (closed) d += 'Z';
  }
  return d;
}
