import {
  addFigure,
  emptyPiece,
  insertPoses,
  type NewPose,
  newPose,
  type Piece,
  type PieceDraft,
  poseFromSvg,
  recordOfContour,
} from '../piece';
import { readPathData, readSvg } from '../svg';

/** Ids that count up, for tests. */
export function countedIds(): (prefix: string) => string {
  let n = 0;
  return (prefix) => `${prefix}${++n}`;
}

/** A pose with one filled part from path data. */
export function drawnPose(d: string, newId: (prefix: string) => string, name = 'Pose', fill = '#204060'): NewPose {
  const id = newId('p');
  const part = {
    id,
    name: 'Part',
    contours: readPathData(d).contours.map((contour) => recordOfContour(contour, newId)),
    fillRule: 'nonzero' as const,
    fill,
    stroke: null,
  };
  return { pose: newPose(newId('q'), name, [id]), parts: [part] };
}

/** A piece with one figure whose poses are the given path data. */
export function pieceOf(ds: readonly string[], newId = countedIds()): Piece {
  const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
  addFigure(draft, 'f', 'Figure');
  insertPoses(
    draft,
    'f',
    ds.map((d, i) => drawnPose(d, newId, `Pose ${i + 1}`)),
    newId,
  );
  return draft as Piece;
}

export const poseOfSvg = (svg: string, newId = countedIds()): NewPose => poseFromSvg(readSvg(svg), 'Pose', newId);
