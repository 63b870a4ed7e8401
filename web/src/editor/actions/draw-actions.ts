import {
  AS_DRAWN,
  addFigure,
  adjustShape,
  type Id,
  insertPoses,
  newPose,
  type Part,
  type PartAtStop,
  type Piece,
  type PieceDraft,
  plainStroke,
  SHAPE_KINDS,
  type ShapeSource,
  shapePart,
  stopsOf,
  transformedPart,
} from '@core';
import {
  type AppStore,
  changePiece,
  type Drawn,
  type DrawsAs,
  documentActions,
  drawingActions,
  type RootState,
  sessionActions,
} from '../../state';
import { freshId } from '../../workers';
import { type EditTarget, editTargets } from '../scene/scene';

const INK = '#23201b';

/** The paint of a new outline: open ones are stroked, closed ones filled, as the last one was. */
export const newPaint = (closed: boolean): Pick<Part, 'fill' | 'stroke'> =>
  closed ? { fill: INK, stroke: null } : { fill: null, stroke: plainStroke(INK, 8) };

/** A name that no other figure has. */
export function freeName(names: readonly string[], stem: string): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? stem : `${stem} ${n}`;
    if (!names.includes(name)) return name;
  }
}

/** What drawing makes now: the wish, as far as something is chosen to which it can be added. */
export function drawsNow(wish: DrawsAs, targets: readonly EditTarget[]): DrawsAs {
  if (targets.length !== 1) return 'figure';
  return wish === 'contour' && targets[0].targets.length === 0 ? 'part' : wish;
}

/** Puts a drawn part (in canvas px) into the piece, as the drawing says, and chooses it; what else it could become is kept until the next change. */
export function addDrawnPart(store: AppStore, part: Part, seconds: number): void {
  const state = store.getState();
  const { piece } = state.document;
  if (!piece) return;
  const targets = editTargets(state, seconds);
  const as = drawsNow(state.drawing.once ?? state.drawing.drawsAs, targets);
  const into = followable(piece, targets);
  putDrawnPart(store, part, as, targets);
  tellDrawn(store, part, as, into);
}

/** The pose that something new could follow: the one that is worked on, else the last of the topmost figure; null in an empty piece. */
export function followable(piece: Piece, targets: readonly EditTarget[]): Drawn['into'] {
  if (targets.length === 1) return { figureId: targets[0].figure.id, stop: targets[0].stop };
  const last = piece.figures[piece.figureOrder[piece.figureOrder.length - 1]];
  return last ? { figureId: last.id, stop: Math.max(0, stopsOf(piece, last).length - 1) } : null;
}

function tellDrawn(store: AppStore, part: Part, as: DrawsAs, into: Drawn['into']): void {
  const { past } = store.getState().document;
  const entry = past[past.length - 1];
  store.dispatch(sessionActions.arrived(null));
  store.dispatch(drawingActions.changed({ once: null, drawn: entry ? { part, as, entry: entry.id, into } : null }));
}

/** What was just drawn, as long as it can become the next pose by one press. */
export function offeredDrawn({ document, drawing }: RootState): Drawn | undefined {
  const { drawn } = drawing;
  const last = document.past[document.past.length - 1];
  return drawn?.into && drawn.as !== 'pose' && drawn.entry === last?.id ? drawn : undefined;
}

/** Takes the shape tool with the kind of shape that is so many after the one at hand, and says which. */
export function takeShapeKind(store: AppStore, by: number): void {
  const at = SHAPE_KINDS.indexOf(store.getState().drawing.shapeKind);
  const kind = SHAPE_KINDS[(at + by + SHAPE_KINDS.length) % SHAPE_KINDS.length];
  store.dispatch(drawingActions.shapeChosen(kind));
  store.dispatch(sessionActions.said(`${SHAPE_NAMES[kind]}. Enter puts it down, A takes the next kind.`));
}

/** Lets what was just drawn become something else, as one step of the history. */
export function redrawAs(store: AppStore, as: DrawsAs, seconds: number): void {
  const { drawn } = store.getState().drawing;
  if (!drawn?.into) return;
  store.dispatch(documentActions.undone());
  store.dispatch(sessionActions.selected({ kind: 'stop', ...drawn.into }));
  putDrawnPart(store, drawn.part, as, editTargets(store.getState(), seconds));
  tellDrawn(store, drawn.part, as, drawn.into);
}

function putDrawnPart(store: AppStore, part: Part, as: DrawsAs, targets: readonly EditTarget[]): void {
  const { piece } = store.getState().document;
  if (!piece) return;
  if (as === 'contour') {
    addContours(store, targets[0], part);
    return;
  }
  if (as === 'part') {
    const [target] = targets;
    const own = transformedPart(part, target.inverse);
    store.dispatch(
      changePiece(`Draw ${part.name}`, (draft) => {
        draft.parts[own.id] = own as (typeof draft.parts)[Id];
        draft.poses[target.pose.id].parts.push(own.id);
        draft.poses[target.pose.id].placement.rule = null;
      }),
    );
    store.dispatch(drawingActions.partsChosen([own.id]));
    return;
  }
  const pose = { ...newPose(freshId('q'), part.name, [part.id]), placement: AS_DRAWN };
  const names = Object.values(piece.figures).map(({ name }) => name);
  const figureId = as === 'pose' ? targets[0].figure.id : freshId('f');
  const stop = as === 'pose' ? targets[0].stop + 1 : 0;
  store.dispatch(
    changePiece(`Draw ${part.name}`, (draft) => {
      if (as === 'figure') addFigure(draft, figureId, freeName(names, part.name));
      insertPoses(draft, figureId, [{ pose, parts: [part] }], freshId, as === 'pose' ? stop : undefined);
    }),
  );
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop }));
  if (part.source) store.dispatch(drawingActions.changed({ details: 'outline' }));
}

/** Adds the contours of a drawn part to the part that is worked on: inside it they are holes, because the rule becomes even-odd. */
function addContours(store: AppStore, target: EditTarget, drawn: Part): void {
  const into = target.targets[target.targets.length - 1];
  const own = transformedPart({ ...drawn, source: undefined }, target.inverse);
  store.dispatch(
    changePiece(`Add a contour to ${into.name}`, (draft) => {
      const part = draft.parts[into.id];
      part.contours.push(...(own.contours as (typeof part.contours)[number][]));
      if (part.fill) part.fillRule = 'evenodd';
      delete part.source;
    }),
  );
  store.dispatch(drawingActions.partsChosen([into.id]));
}

const SHAPE_NAMES: Record<ShapeSource['kind'], string> = {
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  polygon: 'Polygon',
  star: 'Star',
  ring: 'Ring',
  capsule: 'Capsule',
  line: 'Line',
  arc: 'Arc',
  blob: 'Blob',
};
export const shapeKindName = (kind: ShapeSource['kind']): string => SHAPE_NAMES[kind];

/** A part of an adjustable shape in canvas px. */
export const drawnShape = (source: ShapeSource): Part =>
  shapePart(source, SHAPE_NAMES[source.kind], newPaint(source.kind !== 'line' && source.kind !== 'arc'), freshId);

/** Sets the parameters of an adjustable part from what it is shown with; those that have lanes are set there. */
export function changeShape(store: AppStore, at: PartAtStop, shown: ShapeSource, next: ShapeSource): void {
  store.dispatch(
    changePiece(`Adjust ${SHAPE_NAMES[next.kind]}`, (draft: PieceDraft) =>
      adjustShape(draft, at, shown, next, freshId),
    ),
  );
}
