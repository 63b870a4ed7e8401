import { type Outline, outlineSize } from '../outline';
import { ENGINE_VERSION, type PlanContour, type ShiftPlan } from './plan';

const NO_JOINTS = new Int32Array(0);
const NO_TURNS = new Float64Array(0);
const NO_BRIDGES: PlanContour['bridgesA'] = [];
const NO_OVERSHOOT: ShiftPlan['overshoot'] = { below: 0, above: 0 };

/** An outline that stands still, as a plan whose both ends are the outline itself: each contour's points in its own order, not rounded. */
export function stillPlan(outline: Outline): ShiftPlan {
  const points = pointsOf(outline);
  const contours: PlanContour[] = [];
  let at = 0;
  for (const [i, contour] of outline.contours.entries()) {
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
      bridgesA: NO_BRIDGES,
      bridgesB: NO_BRIDGES,
      method: 'straight',
      smoothing: 0,
    });
    at += contour.points.length;
  }
  let size: number | undefined;
  return {
    engine: ENGINE_VERSION,
    fillRule: outline.fillRule,
    contours,
    from: points,
    to: points,
    overshoot: NO_OVERSHOOT,
    // Few of what stands still is ever measured.
    get size() {
      size ??= outlineSize(outline);
      return size;
    },
    endError: 0,
  };
}

/** The points of all contours in a row. Those of a single contour are its own: neither outlines nor plans are ever written to. */
function pointsOf({ contours }: Outline): Float64Array {
  if (contours.length === 1) return contours[0].points;
  const points = new Float64Array(contours.reduce((sum, contour) => sum + contour.points.length, 0));
  let at = 0;
  for (const contour of contours) {
    points.set(contour.points, at);
    at += contour.points.length;
  }
  return points;
}
