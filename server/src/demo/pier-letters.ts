import {
  AS_DRAWN,
  addFigure,
  DEFAULT_EASING,
  emptyPiece,
  insertPoses,
  layoutText,
  newPose,
  type Piece,
  type PieceDraft,
  setClosedRail,
  setText,
  type TextRecord,
} from '@core';
import { countingIds } from './drawn-piece';
import { shippedFont } from './shipped-font';

const ID = 'demo-pier-letters';
const BASELINE = 300;
const SIZE = 280;
/** Each column turns one letter into another: other contours, other counters. */
const COLUMNS = [
  { name: 'N to S', letters: ['N', 'S'], x: 60, fill: '#17324d', late: 0 },
  { name: 'B to 8', letters: ['B', '8'], x: 350, fill: '#c0452b', late: 0.12 },
  { name: 'i to o', letters: ['i', 'o'], x: 640, fill: '#1c7c8c', late: 0.24 },
] as const;

/** Type: letters with different numbers of contours become each other, one pier after the next. They are still text. */
export function pierLetters(): Piece {
  const newId = countingIds(ID);
  const font = shippedFont();
  const empty = emptyPiece(ID, 'Pier Letters');
  const draft = structuredClone({
    ...empty,
    canvas: { ...empty.canvas, width: 960, height: 400, background: '#f6efe2' },
  }) as PieceDraft;
  for (const { name, letters, x, fill, late } of COLUMNS) {
    const figureId = newId('f');
    addFigure(draft, figureId, name);
    for (const letter of letters) {
      const pose = {
        ...newPose(newId('q'), letter, []),
        placement: AS_DRAWN,
        hold: letter === letters[0] ? 0.8 + late : 1.2 - late,
      };
      insertPoses(draft, figureId, [{ pose, parts: [] }], newId);
      const text: TextRecord = {
        id: newId('t'),
        content: letter,
        font: 'archivo-black',
        size: SIZE,
        tracking: 0,
        kerning: true,
        lineSpacing: 1.2,
        align: 'middle',
        x: x + 130,
        y: BASELINE,
      };
      setText(draft, pose.id, text, layoutText(font, text).glyphs, { fill, stroke: null }, newId);
    }
    setClosedRail(draft, figureId, true, newId);
    for (const id of draft.figures[figureId].rail) {
      draft.shifts[id].duration = 0.7;
      draft.shifts[id].easing = { ...DEFAULT_EASING } as PieceDraft['shifts'][string]['easing'];
    }
  }
  return draft as Piece;
}
