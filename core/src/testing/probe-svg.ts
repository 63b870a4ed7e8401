import { posesOfArrival } from '../piece/arrive/arrive';
import { storableReading } from '../piece/arrive/storable';
import { addFigure, insertPoses, type PieceDraft } from '../piece/edit/edit';
import { emptyPiece } from '../piece/records/defaults';
import type { Piece } from '../piece/records/records';
import { checkPiece, findingOfChange } from '../piece/rules/check-piece';
import { readSvg } from '../svg';
import { countedIds } from './pieces';
import { badNumberOf } from './probe-piece';

/** A drawing with a gradient, a clip path, transforms and a dashed stroke, to be spoiled. */
export const GRADIENT_DRAWING =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><defs><linearGradient id="a"><stop offset="0" stop-color="red"/><stop offset="1" stop-color="blue" stop-opacity=".5"/></linearGradient><clipPath id="c"><circle cx="9" cy="9" r="5"/></clipPath></defs><g transform="translate(2 3) rotate(30)" stroke="green" stroke-dasharray="2 1"><rect x="2" y="3" width="9" height="7" rx="2" fill="url(#a)"/><path clip-path="url(#c)" d="M2 3A5 4 20 0 1 9 9L3 9Z"/></g></svg>';

/**
 * Takes a drawing into a piece as the program does: it can be stored, 21 frames of it are finite, and it comes back equal. Answers with what is wrong, undefined
 * when nothing is.
 *
 * @throws CoreError where the drawing is refused
 */
export function faultOfArrival(svg: string): string | undefined {
  const newId = countedIds();
  const files = [{ name: 'Drawing', reading: storableReading(readSvg(svg)) }];
  const empty = emptyPiece('test', 'Test');
  const draft = structuredClone(empty) as PieceDraft;
  addFigure(draft, 'f', 'Figure');
  insertPoses(draft, 'f', posesOfArrival(files, 'parts', null, newId), newId);
  const piece = draft as Piece;
  const finding = findingOfChange(empty, piece);
  if (finding) return `cannot be stored: ${JSON.stringify(finding)}`;
  const bad = badNumberOf(piece);
  if (bad) return `not finite: ${bad}`;
  const text = JSON.stringify(piece);
  return JSON.stringify(checkPiece(JSON.parse(text))) === text ? undefined : 'changed on the way';
}
