import {
  AS_DRAWN,
  addFigure,
  type Id,
  insertPoses,
  joinFigures,
  newPose,
  type Part,
  type PieceDraft,
  setText,
  type TextLayout,
  type TextRecord,
  turnIntoPoints,
} from '@core';
import { type AppStore, changePiece, drawingActions, remember, remembered, sessionActions } from '../../state';
import { type EngineClient, freshId } from '../../workers';
import { editTargets } from '../scene/scene';
import { drawsNow, followable, freeName, newPaint } from './draw-actions';
import { whileBusy } from './outline-actions';

/** Tells what a font could not give. */
function tellNotes(store: AppStore, { notes }: TextLayout): void {
  for (const note of notes) store.dispatch(sessionActions.told({ tone: 'notice', text: `${note}.` }));
}

/** Puts a text at a place of the canvas, as a figure or as the drawing says, and chooses it. */
export async function addText(
  store: AppStore,
  engine: EngineClient,
  x: number,
  y: number,
  seconds: number,
): Promise<void> {
  const { piece, drawing } = { piece: store.getState().document.piece, drawing: store.getState().drawing };
  if (!piece) return;
  const text: TextRecord = {
    id: freshId('t'),
    content: 'Text',
    font: remembered('font'),
    size: Math.round(Math.min(piece.canvas.width, piece.canvas.height) / 4),
    tracking: 0,
    kerning: true,
    lineSpacing: 1.2,
    align: 'start',
    x,
    y,
  };
  await whileBusy(store, 'Setting the text …', async () => {
    const layout = await engine.layoutText(text.font, text);
    const targets = editTargets(store.getState(), seconds);
    const as = drawsNow(drawing.once ?? drawing.drawsAs, targets);
    const asPose = as === 'pose';
    const figureId = asPose ? targets[0].figure.id : freshId('f');
    const stop = asPose ? targets[0].stop + 1 : 0;
    const pose = { ...newPose(freshId('q'), 'Text', []), placement: AS_DRAWN };
    const names = Object.values(piece.figures).map(({ name }) => name);
    store.dispatch(
      changePiece('Type a text', (draft) => {
        if (!asPose) addFigure(draft, figureId, freeName(names, 'Text'));
        insertPoses(draft, figureId, [{ pose, parts: [] }], freshId, asPose ? stop : undefined);
        setText(draft, pose.id, text, layout.glyphs, newPaint(true), freshId);
      }),
    );
    store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop }));
    const before = followable(piece, targets);
    const typed = !asPose && before ? { figureId, into: before } : null;
    store.dispatch(drawingActions.changed({ details: 'outline', typesInto: text.id, typed, drawn: null, once: null }));
    store.dispatch(sessionActions.arrived(null));
  });
}

/** Makes a text that became a figure the next pose of the figure that was there before it. */
export function typedAsPose(store: AppStore): void {
  const { drawing, document } = store.getState();
  const { typed } = drawing;
  if (!typed || !document.piece?.figures[typed.figureId] || !document.piece.figures[typed.into.figureId]) return;
  const { figureId, stop } = typed.into;
  store.dispatch(
    changePiece('Make it the next pose', (draft) => joinFigures(draft, typed.figureId, figureId, stop, freshId)),
  );
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop: stop + 1 }));
}

const NAME_LIMIT = 40;
const nameOf = (letters: string): string => letters.trim().replace(/\s+/g, ' ').slice(0, NAME_LIMIT);

/** A pose and its figure that are named after a text go on being so; a name that somebody gave stays. */
function nameAfterLetters(draft: PieceDraft, poseId: Id, before: string, now: string): void {
  const name = nameOf(now);
  const named = (one: { name: string }): boolean => one.name === nameOf(before) || /^Text( \d+)?$/.test(one.name);
  const figure = Object.values(draft.figures).find(({ poses }) => poses.includes(poseId));
  const pose = draft.poses[poseId];
  if (name === '') return;
  if (named(pose)) pose.name = name;
  if (figure && figure.poses[0] === poseId && named(figure))
    figure.name = freeName(
      Object.values(draft.figures).flatMap((other) => (other.id === figure.id ? [] : [other.name])),
      name,
    );
}

/** The last change of a text that is under way; the next one waits for it, so that each starts from what the one before made. */
const underWay = new WeakMap<AppStore, Promise<void>>();

/** Sets a text anew with some of its settings changed. Changes are made one after another, however fast they come. */
export function changeText(
  store: AppStore,
  engine: EngineClient,
  poseId: Id,
  textId: Id,
  change: Partial<TextRecord>,
): Promise<void> {
  if (change.font) remember('font', change.font);
  const next = (underWay.get(store) ?? Promise.resolve())
    .then(() => layOut(store, engine, poseId, textId, change))
    .finally(() => {
      if (underWay.get(store) === next) underWay.delete(store);
    });
  underWay.set(store, next);
  return next;
}

async function layOut(
  store: AppStore,
  engine: EngineClient,
  poseId: Id,
  textId: Id,
  change: Partial<TextRecord>,
): Promise<void> {
  const record = (): TextRecord | undefined => store.getState().document.piece?.texts[textId];
  const tell = (tone: 'notice' | 'error', text: string): void =>
    void store.dispatch(sessionActions.told({ tone, text }));
  try {
    for (let before = record(); before; before = record()) {
      const text = { ...before, ...change };
      const layout = await engine.layoutText(text.font, text);
      // Was it changed meanwhile, by undo for example? Then its letters are others.
      if (record() !== before) continue;
      if (layout.glyphs.length === 0) {
        tell('notice', 'A text needs at least one letter that is drawn. It stays as it was.');
        return;
      }
      store.dispatch(
        changePiece(change.content !== undefined ? 'Type' : 'Set the text', (draft) => {
          setText(draft, poseId, text, layout.glyphs, newPaint(true), freshId);
          if (change.content !== undefined) nameAfterLetters(draft, poseId, before.content, change.content);
        }),
      );
      if (change.content !== undefined || change.font !== undefined) tellNotes(store, layout);
      return;
    }
  } catch (error) {
    tell('error', (error as Error).message);
  }
}

/** Makes points of what is still adjustable among the parts that are worked on, as they are seen, once letters that were typed are set. */
export async function turnTargetsIntoPoints(store: AppStore, seconds: number): Promise<void> {
  const typed = underWay.get(store);
  if (typed) await typed;
  const parts: readonly Part[] = editTargets(store.getState(), seconds).flatMap(({ targets }) => targets);
  const shown = parts.filter(({ source }) => source);
  if (shown.length === 0) return;
  store.dispatch(
    changePiece('Make points of a text', (draft) => {
      // What a lane made of a shape is what it is from now on.
      for (const { id, contours } of shown)
        draft.parts[id].contours = contours as PieceDraft['parts'][string]['contours'];
      turnIntoPoints(
        draft,
        shown.map(({ id }) => id),
      );
    }),
  );
}
