import type { Outline } from '../outline';
import { cubicText, numberText } from '../svg';
import type { ShiftPlan } from './plan';

/** The frame of a plan as an outline; copies the numbers. Contours shrunk to a point stay in it. */
export function frameOutline(plan: ShiftPlan, frame: Float64Array): Outline {
  return {
    contours: plan.contours.map(({ at, pieces, closed }) => ({ points: frame.slice(at, at + 6 * pieces + 2), closed })),
    fillRule: plan.fillRule,
  };
}

/** Path data of a frame: always one M, the same number of C and the same Z, so that any two frames of a plan interpolate command by command. */
export function framePathData(plan: ShiftPlan, frame: Float64Array, digits: number): string {
  let d = '';
  for (const { at, pieces, closed } of plan.contours) {
    d += `M${numberText(frame[at], digits)} ${numberText(frame[at + 1], digits)}`;
    for (let k = 0; k < pieces; k++) d += cubicText(frame, at + 6 * k, digits);
    if (closed) d += 'Z';
  }
  return d;
}
