import {
  type Id,
  insertPoses,
  isClosedRail,
  type Piece,
  type PieceDraft,
  poseBox,
  putValuesAtStop,
  setClosedRail,
  setLaneAtStop,
  stopsOf,
  valuesAtStop,
} from '@core';
import { type AppStore, changePiece, chosenFigure, drawingActions, sessionActions, type ToolId } from '../../state';
import { freshId } from '../../workers';
import { motionAtStop } from '../scene/scene';
import { copyOfPose } from './pose-actions';

/** By how much a pose that comes back bigger has grown. */
const BIGGER = 1.25;

/** What the chosen figure's chain can be continued by. */
export interface ChainEnd {
  readonly figureId: Id;
  /** The stop after which something is added: the last one, before a closed rail's return. */
  readonly last: number;
  /** The pose that is worked on, or else the last. */
  readonly poseId: Id;
  readonly closed: boolean;
}

/** The end of the chosen figure's chain; undefined where there is no pose yet. */
export function chainEnd(store: AppStore): ChainEnd | undefined {
  const { document, session } = store.getState();
  const { piece } = document;
  const figure = piece ? chosenFigure(piece, session.selection) : undefined;
  if (!piece || !figure) return undefined;
  const stops = stopsOf(piece, figure);
  if (stops.length === 0) return undefined;
  const closed = isClosedRail(piece, figure);
  const last = stops.length - (closed ? 2 : 1);
  const { selection } = session;
  const chosen = selection?.kind === 'stop' && selection.figureId === figure.id ? stops[selection.stop] : undefined;
  return { figureId: figure.id, last, poseId: chosen ?? stops[last], closed };
}

/** Takes a tool of which the next thing that is made becomes the next pose of the chosen figure; in an empty piece its first. */
export function takeToolForPose(store: AppStore, tool: ToolId): void {
  const end = chainEnd(store);
  if (end) store.dispatch(sessionActions.selected({ kind: 'stop', figureId: end.figureId, stop: end.last }));
  store.dispatch(drawingActions.toolChosen(tool));
  if (end) store.dispatch(drawingActions.changed({ once: 'pose' }));
}

/** Puts a copy of a pose at the end of the chosen figure's chain; `grown` scales it, as motion. */
export function addCopyOf(store: AppStore, poseId: Id, grown = 1): void {
  const { piece } = store.getState().document;
  const end = chainEnd(store);
  const pose = piece?.poses[poseId];
  if (!piece || !end || !pose) return;
  const copy = copyOfPose(
    pose,
    pose.parts.map((id) => piece.parts[id]),
    piece.texts,
  );
  const stop = end.last + 1;
  const figure = piece.figures[end.figureId];
  const from = stopsOf(piece, figure).indexOf(poseId);
  const scale = from >= 0 ? motionAtStop(piece, figure, from)?.scale : undefined;
  const owner = Object.values(piece.figures).find(({ poses }) => poses.includes(poseId));
  const values = owner && valuesAtStop(piece, owner.id, Math.max(0, stopsOf(piece, owner).indexOf(poseId)));
  const box = poseBox(piece, pose);
  store.dispatch(
    changePiece(`Add ${copy.pose.name}`, (draft) => {
      for (const text of copy.texts) draft.texts[text.id] = text as PieceDraft['texts'][Id];
      insertPoses(draft, end.figureId, [{ pose: copy.pose, parts: copy.parts }], freshId);
      if (values) putValuesAtStop(draft, end.figureId, stop, values, freshId);
      if (grown === 1) return;
      const target = draft.figures[end.figureId];
      if (!target.pivot && !target.middle && box.maxX >= box.minX)
        target.middle = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
      const value = [(scale?.[0] ?? 1) * grown, (scale?.[1] ?? 1) * grown];
      setLaneAtStop(draft, end.figureId, 'scale', stop, value, freshId);
    }),
  );
  store.dispatch(sessionActions.arrived(null));
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId: end.figureId, stop }));
}

/** Leads the chain back to its first pose: the loop closes without a jump. */
export function backToFirst(store: AppStore): void {
  const end = chainEnd(store);
  if (!end || end.closed || end.last < 1) return;
  store.dispatch(changePiece('Back to the first', (draft) => setClosedRail(draft, end.figureId, true, freshId)));
}

/** The first pose comes back at the end of the chain, bigger. */
export function backToFirstBigger(store: AppStore): void {
  const { piece } = store.getState().document;
  const end = chainEnd(store);
  if (piece && end) addCopyOf(store, stopsOf(piece, piece.figures[end.figureId])[0], BIGGER);
}

/** Poses of other figures that could be copied into the chosen one: where each figure begins. */
export const posesOfOthers = (piece: Piece, figureId: Id | undefined) =>
  piece.figureOrder.flatMap((id) => {
    const [first] = stopsOf(piece, piece.figures[id]);
    return id !== figureId && first ? [{ figure: piece.figures[id], pose: piece.poses[first] }] : [];
  });
