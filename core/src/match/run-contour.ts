import { cubicPoint } from '../curve';
import {
  type Contour,
  contourArea,
  measureArcLength,
  nearestOnContour,
  type Outline,
  placeAtShare,
  reverseContour,
  segmentAt,
  shareOfCurvePlace,
  withoutIdleAnchors,
} from '../outline';
import { cutSolid } from './cut-contour';
import { joinBySlits, type RunContour } from './joined-contour';
import type { Joining } from './match';

/** What is matched and moved on one side of a pair. */
export interface Run extends RunContour {
  /** Share of the written contour's length at which the run starts when it is not reversed; used for contours without joining. */
  readonly start: number;
  readonly reversed: boolean;
}

/**
 * The contour of an outline as a pair runs along it: without idle anchors (unless `whole`), joined or cut, and reversed if asked. The same
 * input always gives the same run, so that shares of its length mean the same when matching and when planning.
 */
export function runContour(
  outline: Outline,
  index: number,
  joining: Joining | undefined,
  reversed: boolean,
  whole: boolean,
): Run {
  const written = outline.contours[index];
  let run: RunContour;
  let start = 0;
  if (joining?.slits && joining.slits.length > 0) {
    const contours = [...outline.contours];
    const slits = joining.slits.map((slit) => {
      contours[slit.hole] = holeAgainst(written, outline.contours[slit.hole]);
      if (contours[slit.hole] === outline.contours[slit.hole]) return slit;
      return { ...slit, holeAt: slit.holeAt > 0 ? 1 - slit.holeAt : 0 };
    });
    run = joinBySlits(contours, index, slits);
  } else if (joining?.chord) run = closedByChord(written);
  else if (joining?.cut || whole) run = { contour: written, bridges: [] };
  else {
    const idle = withoutIdleAnchors(written);
    run = { contour: idle.contour, bridges: [] };
    start = idle.start;
  }
  if (joining?.cut) {
    const { lines, part, holes = [] } = joining.cut;
    const rings = holes.map((i) => ({ contour: holeAgainst(written, outline.contours[i]), bridges: [] }));
    const parts = cutSolid([run, ...rings], lines);
    [run] = parts[Math.min(part, parts.length - 1)];
  }
  if (!reversed) return { ...run, start, reversed };
  const last = (run.contour.points.length / 2 - 1) / 3 - 1;
  return { contour: reverseContour(run.contour), bridges: run.bridges.map((k) => last - k), start, reversed };
}

/** A hole as it goes round the other way than its solid. */
export const holeAgainst = (solid: Contour, hole: Contour): Contour =>
  contourArea(hole) >= 0 === contourArea(solid) >= 0 ? reverseContour(hole) : hole;

/** Where a share of the written contour lies along the run of it. */
export function runShare(run: Run, share: number): number {
  if (!run.contour.closed) return run.reversed ? 1 - share : share;
  const ahead = share - run.start - Math.floor(share - run.start);
  return run.reversed && ahead > 0 ? 1 - ahead : ahead;
}

/** As `runShare`, for runs that were joined, cut or closed too: there at the place of the run nearest to the written one. */
export function shareOnRun(run: Run, written: Contour, share: number, joining: Joining | undefined): number {
  if (!joining) return runShare(run, share);
  const at = placeAtShare(measureArcLength(written), share);
  const point = cubicPoint(written.points, segmentAt(at.segment), at.t, new Float64Array(2));
  const nearest = nearestOnContour(run.contour, point[0], point[1]);
  const found = nearest ? shareOfCurvePlace(measureArcLength(run.contour), nearest) : 0;
  return found >= 1 ? 0 : found;
}

/** An open contour with the chord from its end to its start as one more segment, a bridge. */
function closedByChord({ points }: Contour): RunContour {
  const last = points.length - 2;
  const [x0, y0, x1, y1] = [points[last], points[last + 1], points[0], points[1]];
  // Do its ends meet already?
  if (x0 === x1 && y0 === y1) return { contour: { points, closed: true }, bridges: [] };
  const closed = new Float64Array(points.length + 6);
  closed.set(points);
  for (let k = 1; k <= 3; k++) {
    closed[last + 2 * k] = x0 + ((x1 - x0) * k) / 3;
    closed[last + 2 * k + 1] = y0 + ((y1 - y0) * k) / 3;
  }
  return { contour: { points: closed, closed: true }, bridges: [last / 6] };
}

/** Where a share along a run lies on the written contour; the other way round than `runShare`. */
export function writtenShare(run: Run, share: number): number {
  if (!run.contour.closed) return run.reversed ? 1 - share : share;
  const ahead = (run.reversed && share > 0 ? 1 - share : share) + run.start;
  return ahead - Math.floor(ahead);
}

/** Which way a closed contour is run so that solids go clockwise on screen and holes the other way. */
export const runsBackwards = (contour: Contour, hole: boolean): boolean => {
  const area = contourArea(contour);
  return contour.closed && area !== 0 && area > 0 === hole;
};
