import {
  checkPiece,
  emptyPiece,
  type Id,
  insertPoses,
  type NewPose,
  newFigure,
  type Part,
  type Piece,
  type PieceDraft,
  type Pose,
  placementMatrix,
  poseBox,
  removeFigure,
  removeStop,
  type TextRecord,
  transformedPart,
  writeStillSvg,
} from '@core';
import { type AppStore, changePiece, chosenFigure, drawingActions, selectedPose, sessionActions } from '../../state';
import { freshId } from '../../workers/fresh-id';
import { editTargets } from '../drawing/scene';

/** Copies of parts; their anchors remember the ones that they were copied from. */
const copyOfParts = (parts: readonly Part[]): Part[] =>
  parts.map((part) => ({
    ...part,
    id: freshId('p'),
    contours: part.contours.map((contour) => ({
      ...contour,
      id: freshId('c'),
      anchors: contour.anchors.map((anchor) => ({ ...anchor, id: freshId('a'), origin: anchor.origin ?? anchor.id })),
    })),
  }));

/** A copy of a pose, and of the texts in it: a text belongs to one pose. Of texts that are not known the letters become points. */
function copyOfPose(
  pose: Pose,
  parts: readonly Part[],
  texts: Piece['texts'] = {},
): NewPose & { readonly texts: readonly TextRecord[] } {
  const copiedTexts = new Map<Id, TextRecord>();
  const copyOfText = (id: Id): TextRecord | undefined => {
    const known = copiedTexts.get(id) ?? (texts[id] && { ...texts[id], id: freshId('t') });
    if (known) copiedTexts.set(id, known);
    return known;
  };
  const copies = copyOfParts(parts).map(({ source, ...part }): Part => {
    if (source?.kind !== 'glyph') return source ? { ...part, source } : part;
    const text = copyOfText(source.text);
    return text ? { ...part, source: { ...source, text: text.id } } : part;
  });
  return {
    texts: [...copiedTexts.values()],
    pose: {
      ...pose,
      id: freshId('q'),
      name: `${pose.name} copy`.slice(0, 200),
      placement: { ...pose.placement },
      parts: copies.map(({ id }) => id),
    },
    parts: copies,
  };
}

const partsOf = (piece: Piece, pose: Pose): Part[] => pose.parts.map((id) => piece.parts[id]);

/** Puts a copy of the selected pose after it. */
export function duplicateSelectedPose(store: AppStore): void {
  const { document, session } = store.getState();
  const found = document.piece && selectedPose(document.piece, session.selection);
  if (!document.piece || !found) return;
  const { texts, ...copy } = copyOfPose(found.pose, partsOf(document.piece, found.pose), document.piece.texts);
  store.dispatch(
    changePiece('Duplicate pose', (draft) => {
      for (const text of texts) draft.texts[text.id] = text as PieceDraft['texts'][Id];
      insertPoses(draft, found.figure.id, [copy], freshId, found.stop + 1);
    }),
  );
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId: found.figure.id, stop: found.stop + 1 }));
}

/** Takes the selected pose off the rail. */
export function removeSelectedPose(store: AppStore): void {
  const { document, session } = store.getState();
  const found = document.piece && selectedPose(document.piece, session.selection);
  if (!found) return;
  store.dispatch(sessionActions.selected(null));
  store.dispatch(
    changePiece(`Remove ${found.pose.name}`, (draft) => {
      // A figure without any pose is nothing.
      if (found.figure.poses.length <= 1) removeFigure(draft, found.figure.id);
      else removeStop(draft, found.figure.id, found.stop, freshId);
    }),
  );
}

/** What is copied, for this program (with ids and origins) and for others (as SVG). */
export interface Copied {
  readonly svg: string;
  readonly json: string;
}

/** The chosen poses, or parts of a pose, for the clipboard; undefined when nothing is chosen. */
export function copiedSvg(store: AppStore, seconds: number): Copied | undefined {
  const state = store.getState();
  const { piece } = state.document;
  const targets = editTargets(state, seconds);
  if (!piece || targets.length === 0) return undefined;
  const boxes = targets.map(({ pose, targets: parts }) =>
    poseBox(
      piece,
      pose,
      parts.map(({ id }) => id),
    ),
  );
  const x = Math.min(...boxes.map(({ minX }) => minX));
  const y = Math.min(...boxes.map(({ minY }) => minY));
  const width = Math.max(...boxes.map(({ maxX }) => maxX)) - x;
  const height = Math.max(...boxes.map(({ maxY }) => maxY)) - y;
  const room = 0.05 * Math.max(width, height, 1);
  const svg = writeStillSvg(
    targets.map(({ pose, targets: parts }) => ({ placement: pose.placement, parts })),
    { x: x - room, y: y - room, width: width + 2 * room, height: height + 2 * room },
  );
  const kind = state.drawing.parts.length > 0 ? 'parts' : 'poses';
  const poses = targets.map(({ pose, targets: parts }) => ({ pose, parts }));
  return { svg, json: JSON.stringify({ kind, poses }) };
}

/** Puts copied poses after the selected one, or copied parts into it. False when the text is nothing that this program has copied. */
export function pasteCopied(store: AppStore, text: string, seconds: number): boolean {
  const state = store.getState();
  const { piece } = state.document;
  const copied = readCopied(text);
  if (!piece || !copied) return false;
  const [target] = editTargets(state, seconds);
  if (copied.kind === 'parts' && target) {
    const [{ pose, parts }] = copied.poses;
    // Parts stand on the canvas where they stood, whatever pose they come into.
    const placed = parts.map((part) => transformedPart(part, placementMatrix(pose.placement)));
    const copies = copyOfParts(placed.map((part) => transformedPart(part, target.inverse)));
    store.dispatch(
      changePiece(copies.length === 1 ? 'Paste a part' : `Paste ${copies.length} parts`, (draft) => {
        for (const part of copies) draft.parts[part.id] = part as PieceDraft['parts'][string];
        draft.poses[target.pose.id].parts.push(...copies.map(({ id }) => id));
        draft.poses[target.pose.id].placement.rule = null;
      }),
    );
    store.dispatch(drawingActions.partsChosen(copies.map(({ id }) => id)));
    return true;
  }
  const figure = chosenFigure(piece, state.session.selection);
  const figureId = figure?.id ?? freshId('f');
  const copies = copied.poses.map(({ pose, parts }) => copyOfPose(pose, parts));
  const found = selectedPose(piece, state.session.selection);
  const at = found ? found.stop + 1 : undefined;
  store.dispatch(
    changePiece(copies.length === 1 ? `Paste ${copies[0].pose.name}` : `Paste ${copies.length} poses`, (draft) => {
      if (!figure) {
        draft.figures[figureId] = newFigure(figureId, 'Figure 1') as PieceDraft['figures'][string];
        draft.figureOrder.push(figureId);
      }
      insertPoses(draft, figureId, copies, freshId, at);
    }),
  );
  if (at !== undefined) store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop: at }));
  return true;
}

/** Clipboards may hold anything: only what makes a sound piece is taken. */
function readCopied(text: string): { kind: 'parts' | 'poses'; poses: NewPose[] } | undefined {
  try {
    const { kind, poses } = JSON.parse(text) as { kind: string; poses: NewPose[] };
    if (kind !== 'parts' && kind !== 'poses') return undefined;
    const trial = structuredClone(emptyPiece('clipboard', 'Clipboard')) as PieceDraft;
    for (const { pose, parts } of poses) {
      const points = parts.map(({ source, ...part }) =>
        source && source.kind !== 'glyph' ? { ...part, source } : part,
      );
      trial.poses[pose.id] = pose as PieceDraft['poses'][string];
      for (const part of points) trial.parts[part.id] = part as PieceDraft['parts'][string];
    }
    const sound = checkPiece(JSON.parse(JSON.stringify(trial)));
    const taken = Object.values(sound.poses).map((pose) => ({ pose, parts: partsOf(sound, pose) }));
    return taken.length > 0 ? { kind, poses: taken } : undefined;
  } catch {
    return undefined;
  }
}

/** The figure that arriving poses go to, if there is one yet. */
export const targetFigure = (store: AppStore) => {
  const { document, session } = store.getState();
  return document.piece ? chosenFigure(document.piece, session.selection) : undefined;
};
