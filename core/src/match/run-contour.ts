import { type Contour, contourArea, type Outline, reverseContour, withoutIdleAnchors } from '../outline';
import { cutContour } from './cut-contour';
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
    const clockwise = contourArea(written) >= 0;
    // Holes go round the other way than their solid.
    const contours = [...outline.contours];
    const slits = joining.slits.map((slit) => {
      const hole = outline.contours[slit.hole];
      if (contourArea(hole) >= 0 !== clockwise) return slit;
      contours[slit.hole] = reverseContour(hole);
      return { ...slit, holeAt: slit.holeAt > 0 ? 1 - slit.holeAt : 0 };
    });
    run = joinBySlits(contours, index, slits);
  } else if (joining?.cut || whole) run = { contour: written, bridges: [] };
  else {
    const idle = withoutIdleAnchors(written);
    run = { contour: idle.contour, bridges: [] };
    start = idle.start;
  }
  if (joining?.cut) {
    const parts = cutContour(run, joining.cut.lines);
    run = parts[Math.min(joining.cut.part, parts.length - 1)];
  }
  if (!reversed) return { ...run, start, reversed };
  const last = (run.contour.points.length / 2 - 1) / 3 - 1;
  return { contour: reverseContour(run.contour), bridges: run.bridges.map((k) => last - k), start, reversed };
}

/** Where a share of the written contour lies along the run of it. */
export function runShare(run: Run, share: number): number {
  if (!run.contour.closed) return run.reversed ? 1 - share : share;
  const ahead = share - run.start - Math.floor(share - run.start);
  return run.reversed && ahead > 0 ? 1 - ahead : ahead;
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
