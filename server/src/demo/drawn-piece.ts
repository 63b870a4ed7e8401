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
  type Stroke,
  setClosedRail,
} from '@core';

/** Demo poses are drawn on a table of 200 × 200 units, shown this large in the middle of the canvas. */
const TABLE_SCALE = 2.8;
const TABLE_MARGIN = 40;

export interface DrawnPart {
  readonly name: string;
  readonly d: string;
  /** None where it is left out. */
  readonly fill?: string;
  readonly stroke?: Stroke;
}

export interface DrawnPose {
  readonly name: string;
  readonly hold: number;
  readonly parts: readonly DrawnPart[];
  /** The shift that leaves this pose; left out: as a new one, or none. */
  readonly leave?: { readonly duration: number; readonly easing: Easing };
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
  const draft = emptyDemo(id, name, { background });
  addDrawnFigure(draft, figureName, poses, newId, { closed: true });
  return draft as Piece;
}

/** An empty demo piece, to be filled. */
export function emptyDemo(id: string, name: string, canvas: Partial<Piece['canvas']>): PieceDraft {
  const empty = emptyPiece(id, name);
  return structuredClone({ ...empty, canvas: { ...empty.canvas, ...canvas } }) as PieceDraft;
}

export interface FigureOptions {
  /** Does its rail come back to the first pose? */
  readonly closed?: boolean;
  /** Is it drawn in px of the canvas, and not on the table? */
  readonly inPx?: boolean;
}

/** Adds a figure of drawn poses on top of the others; its shifts go as the poses say. Returns its id. */
export function addDrawnFigure(
  draft: PieceDraft,
  name: string,
  poses: readonly DrawnPose[],
  newId: IdSource,
  { closed = false, inPx = false }: FigureOptions = {},
): string {
  const figureId = newId('f');
  addFigure(draft, figureId, name);
  const added = poses.map((drawn) => {
    const parts = drawn.parts.map(
      (part): Part => ({
        id: newId('p'),
        name: part.name,
        contours: readPathData(part.d).contours.map((contour) => recordOfContour(contour, newId)),
        fillRule: 'nonzero',
        fill: part.fill ?? null,
        stroke: part.stroke ?? null,
      }),
    );
    const pose = newPose(
      newId('q'),
      drawn.name,
      parts.map((part) => part.id),
    );
    const table = { x: TABLE_MARGIN, y: TABLE_MARGIN, scaleX: TABLE_SCALE, scaleY: TABLE_SCALE };
    return { pose: { ...pose, hold: drawn.hold, placement: { ...AS_DRAWN, ...(inPx ? {} : table) } }, parts };
  });
  insertPoses(draft, figureId, added, newId);
  if (closed) setClosedRail(draft, figureId, true, newId);
  draft.figures[figureId].rail.forEach((shiftId, i) => {
    const { leave } = poses[i];
    if (!leave) return;
    draft.shifts[shiftId].duration = leave.duration;
    draft.shifts[shiftId].easing = { ...leave.easing } as PieceDraft['shifts'][string]['easing'];
  });
  return figureId;
}
