import { combineOutlines, outlineOfStroke, type PathEngine } from '../../ops';
import { type Outline, orientOutline } from '../../outline';
import type { SvgReading, SvgShape } from '../../svg';
import { addFigure, insertPoses, type NewPose, type PieceDraft } from '../edit';
import { centreOfPart } from '../place';
import type { IdSource, Piece } from '../records';
import { emptyPiece } from '../records';
import { poseFromSvg } from './from-svg';

export const ARRIVAL_FORMS = ['poses', 'figures', 'parts', 'united'] as const;
/** poses: one after another on one figure; figures: a figure each; parts: of one pose; united: one outline. */
export type ArrivalForm = (typeof ARRIVAL_FORMS)[number];

/** A file as it was read; `left` names shapes (by index) that are not wanted. */
export interface ArrivingFile {
  readonly name: string;
  readonly reading: SvgReading;
  readonly left?: readonly number[];
}

/** What a set of files comes to by default: several files are poses, one file is one pose. */
export const defaultForm = (files: number): ArrivalForm => (files > 1 ? 'poses' : 'parts');

/**
 * Makes poses of files. Several files give one pose each; a single file gives one for each of its outermost groups and loose shapes when it
 * is to become poses or figures. 'parts' and 'united' give a single pose.
 *
 * @throws CoreError 'path-operation' when outlines cannot be united
 */
export function posesOfArrival(
  files: readonly ArrivingFile[],
  form: ArrivalForm,
  engine: PathEngine | null,
  newId: IdSource,
): NewPose[] {
  // What placing them needs is measured here, off the page.
  return makePoses(files, form, engine, newId).map((made) => ({ ...made, centres: made.parts.map(centreOfPart) }));
}

/** A new piece of files that were read: one figure, and what the files come to by default. @throws CoreError 'path-operation' */
export function pieceOfArrival(
  files: readonly ArrivingFile[],
  { id, name }: { readonly id: string; readonly name: string },
  newId: IdSource,
): Piece {
  const draft = structuredClone(emptyPiece(id, name)) as PieceDraft;
  const figureId = newId('f');
  addFigure(draft, figureId, files.length === 1 ? files[0].name : 'Figure 1');
  insertPoses(draft, figureId, posesOfArrival(files, defaultForm(files.length), null, newId), newId);
  return draft as Piece;
}

function makePoses(
  files: readonly ArrivingFile[],
  form: ArrivalForm,
  engine: PathEngine | null,
  newId: IdSource,
): NewPose[] {
  const kept = files
    .map(({ name, reading, left = [] }) => ({
      name,
      reading: { ...reading, shapes: reading.shapes.filter((_, i) => !left.includes(i)) },
    }))
    .filter(({ reading }) => reading.shapes.length > 0);
  if (kept.length === 0) return [];
  const all = kept.flatMap(({ reading }) => reading.shapes);
  if (form === 'united' && engine)
    return [poseFromSvg({ ...kept[0].reading, shapes: [unitedShape(all, engine)] }, kept[0].name, newId)];
  if (form === 'parts' || form === 'united')
    return [poseFromSvg({ ...kept[0].reading, shapes: all }, kept[0].name, newId)];
  const units = kept.length > 1 ? kept : unitsOf(kept[0]);
  return units.map(({ name, reading }) => poseFromSvg(reading, name, newId));
}

/** The outermost groups and loose shapes of a file, in painting order. */
function unitsOf({ name, reading }: { name: string; reading: SvgReading }): { name: string; reading: SvgReading }[] {
  const units: { key: string | null; name: string; shapes: SvgShape[] }[] = [];
  reading.shapes.forEach((shape, i) => {
    const key = shape.groups[0] ?? null;
    const last = units[units.length - 1];
    if (key !== null && last?.key === key) last.shapes.push(shape);
    else units.push({ key, name: key ?? (shape.name || `${name} ${i + 1}`), shapes: [shape] });
  });
  return units.map(({ name: unit, shapes }) => ({ name: unit, reading: { ...reading, shapes } }));
}

/** All shapes as one solid in the paint of the first; strokes count as the areas that they cover. */
function unitedShape(shapes: readonly SvgShape[], engine: PathEngine): SvgShape {
  const outlines = shapes.flatMap((shape): Outline[] => [
    ...(shape.fill ? [shape.outline] : []),
    ...(shape.stroke ? [outlineOfStroke(engine, shape.outline, shape.stroke)] : []),
  ]);
  const first = shapes.find(({ fill }) => fill) ?? shapes[0];
  const { outline } = combineOutlines(engine, 'unite', outlines);
  return {
    ...first,
    outline: orientOutline(outline).outline,
    fill: first.fill ?? first.stroke?.paint ?? '#000000',
    stroke: null,
    clips: [],
  };
}
