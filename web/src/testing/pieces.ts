import {
  addFigure,
  emptyPiece,
  insertPoses,
  newPose,
  type Piece,
  type PieceDraft,
  readPathData,
  recordOfContour,
} from '@core';

/** A piece with one figure whose poses are the given path data; ids count up. */
export function pieceOf(ds: readonly string[]): Piece {
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
  addFigure(draft, 'f', 'Figure');
  const poses = ds.map((d, i) => {
    const id = newId('p');
    const contours = readPathData(d).contours.map((contour) => recordOfContour(contour, newId));
    return {
      pose: newPose(newId('q'), `Pose ${i + 1}`, [id]),
      parts: [{ id, name: 'Part', contours, fillRule: 'nonzero' as const, fill: '#204060', stroke: null }],
    };
  });
  insertPoses(draft, 'f', poses, newId);
  return draft as Piece;
}
