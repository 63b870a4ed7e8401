import { type Outline, outlineSize } from '../outline';
import { ENGINE_VERSION, type PlanContour, type ShiftPlan } from './plan';

const NO_JOINTS = new Int32Array(0);
const NO_TURNS = new Float64Array(0);

/** An outline that stands still, as a plan whose both ends are the outline itself: each contour's points in its own order, not rounded. */
export function stillPlan(outline: Outline): ShiftPlan {
  const points = new Float64Array(outline.contours.reduce((sum, contour) => sum + contour.points.length, 0));
  const contours: PlanContour[] = [];
  let at = 0;
  for (const [i, contour] of outline.contours.entries()) {
    points.set(contour.points, at);
    contours.push({
      at,
      segments: (contour.points.length / 2 - 1) / 3,
      closed: contour.closed,
      role: 'pair',
      a: i,
      b: i,
      begin: 0,
      end: 1,
      joints: NO_JOINTS,
      turns: NO_TURNS,
      bridgesA: [],
      bridgesB: [],
      method: 'straight',
      softness: 0,
    });
    at += contour.points.length;
  }
  return {
    engine: ENGINE_VERSION,
    fillRule: outline.fillRule,
    contours,
    from: points,
    to: points,
    overshoot: { below: 0, above: 0 },
    size: outlineSize(outline),
    endError: 0,
  };
}
