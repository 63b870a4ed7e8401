import {
  AS_DRAWN,
  addFigure,
  type Easing,
  emptyPiece,
  type IdSource,
  insertPoses,
  newPose,
  type Part,
  type Piece,
  type PieceDraft,
  readPathData,
  recordOfContour,
  setClosedRail,
} from '@core';

/** Demo poses are drawn on a table of 200 × 200 units, shown this large in the middle of the canvas. */
const TABLE_SCALE = 2.8;
const TABLE_MARGIN = 40;

export interface DrawnPart {
  readonly name: string;
  readonly d: string;
  readonly fill: string;
}

export interface DrawnPose {
  readonly name: string;
  readonly hold: number;
  readonly parts: readonly DrawnPart[];
  /** The shift that leaves this pose. */
  readonly leave: { readonly duration: number; readonly easing: Easing };
}

/** Ids that are the same every time: demo pieces can be told apart from the user's own. */
export function countingIds(stem: string): IdSource {
  let count = 0;
  return (prefix) => `${stem}-${prefix}${++count}`;
}

/** A piece with one figure whose closed rail passes the drawn poses. */
export function drawnPiece(
  id: string,
  name: string,
  figureName: string,
  background: string,
  poses: readonly DrawnPose[],
): Piece {
  const newId = countingIds(id);
  const empty = emptyPiece(id, name);
  const draft = structuredClone({ ...empty, canvas: { ...empty.canvas, background } }) as PieceDraft;
  const figureId = newId('f');
  addFigure(draft, figureId, figureName);
  const added = poses.map((drawn) => {
    const parts = drawn.parts.map(
      (part): Part => ({
        id: newId('p'),
        name: part.name,
        contours: readPathData(part.d).contours.map((contour) => recordOfContour(contour, newId)),
        fillRule: 'nonzero',
        fill: part.fill,
        stroke: null,
      }),
    );
    const pose = newPose(
      newId('q'),
      drawn.name,
      parts.map((part) => part.id),
    );
    return {
      pose: {
        ...pose,
        hold: drawn.hold,
        placement: { ...AS_DRAWN, x: TABLE_MARGIN, y: TABLE_MARGIN, scaleX: TABLE_SCALE, scaleY: TABLE_SCALE },
      },
      parts,
    };
  });
  insertPoses(draft, figureId, added, newId);
  setClosedRail(draft, figureId, true, newId);
  draft.figures[figureId].rail.forEach((shiftId, i) => {
    draft.shifts[shiftId].duration = poses[i].leave.duration;
    draft.shifts[shiftId].easing = { ...poses[i].leave.easing } as PieceDraft['shifts'][string]['easing'];
  });
  return draft as Piece;
}
