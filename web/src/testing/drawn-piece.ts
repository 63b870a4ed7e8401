import {
  AS_DRAWN,
  addFigure,
  emptyPiece,
  insertPoses,
  newPose,
  type Part,
  type Piece,
  type PieceDraft,
  plainStroke,
  readPathData,
  recordOfContour,
} from '@core';

let ids = 0;
export const newId = (prefix: string): string => `${prefix}${++ids}`;

export interface DrawnFigure {
  readonly d: string;
  readonly fill?: string | null;
  readonly stroke?: number;
}

/** A piece whose figures f0, f1, … have one pose with one part each, drawn in canvas px. */
export function drawnPiece(...figures: readonly DrawnFigure[]): Piece {
  const draft = structuredClone(emptyPiece('p', 'P')) as PieceDraft;
  figures.forEach(({ d, fill = '#204060', stroke }, i) => {
    const part: Part = {
      id: newId('p'),
      name: `Part ${i + 1}`,
      contours: readPathData(d).contours.map((contour) => recordOfContour(contour, newId)),
      fillRule: 'nonzero',
      fill,
      stroke: stroke ? plainStroke('#c04020', stroke) : null,
    };
    const pose = { ...newPose(newId('q'), `Pose ${i + 1}`, [part.id]), placement: AS_DRAWN };
    addFigure(draft, `f${i}`, `Figure ${i + 1}`);
    insertPoses(draft, `f${i}`, [{ pose, parts: [part] }], newId);
  });
  return draft as Piece;
}
