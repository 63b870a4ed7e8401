import {
  type Box,
  checkPiece,
  emptyPiece,
  type Id,
  insertChain,
  motionMatrix,
  type NewPose,
  newFigure,
  newShift,
  type Part,
  type Piece,
  type PieceDraft,
  type Pose,
  placementMatrix,
  poseBox,
  removeStops,
  type Shift,
  type StopName,
  type StopValues,
  stopsOf,
  type TextRecord,
  transformedPart,
  valuesAtStop,
  writeStillSvg,
} from '@core';
import { type AppStore, changePiece, chosenFigure, drawingActions, sessionActions } from '../../state';
import { freshId } from '../../workers/fresh-id';
import { editTargets, shownBox } from '../scene/scene';
import { chooseAll, chosenOnRail } from './rail-actions';

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
/** A pose as another one, with parts, anchors and texts of its own that remember where they come from. */
export function copyOfPose(
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

/** The chosen poses of the rail in their order, each once, and how the shifts between neighbours go. */
function chosenPoses(store: AppStore) {
  const { piece } = store.getState().document;
  const choice = chosenOnRail(store);
  if (!piece || !choice || choice.stops.length === 0) return undefined;
  const { figure } = choice;
  const ids = stopsOf(piece, figure);
  // The return of a closed rail is its first pose.
  const stops = choice.stops.filter((stop, i) => choice.stops.findIndex((other) => ids[other] === ids[stop]) === i);
  const timings = stops.map((stop, i): Shift | undefined =>
    stops[i + 1] === stop + 1 ? piece.shifts[figure.rail[stop]] : undefined,
  );
  const values = stops.map((stop) => valuesAtStop(piece, figure.id, stop));
  return { piece, figure, stops, poses: stops.map((stop) => piece.poses[ids[stop]]), timings, values };
}

/** Puts copies of the chosen poses after the last of them, with the shifts that are between them. */
export function duplicateChosenPoses(store: AppStore): void {
  const chosen = chosenPoses(store);
  if (!chosen) return;
  const { piece, figure, stops, poses, timings, values } = chosen;
  const copies = poses.map((pose) => copyOfPose(pose, partsOf(piece, pose), piece.texts));
  const at = stops[stops.length - 1] + 1;
  store.dispatch(
    changePiece(copies.length === 1 ? 'Duplicate pose' : `Duplicate ${copies.length} poses`, (draft) => {
      for (const text of copies.flatMap(({ texts }) => texts)) draft.texts[text.id] = text as PieceDraft['texts'][Id];
      const added = copies.map(({ pose, parts }) => ({ pose, parts }));
      insertChain(draft, figure.id, added, timings, freshId, at, values);
    }),
  );
  chooseAll(
    store,
    figure.id,
    copies.map((_, i) => ({ kind: 'stop', stop: at + i })),
  );
}

/** Takes the chosen poses off the rail. */
export function removeChosenPoses(store: AppStore): void {
  const chosen = chosenPoses(store);
  if (!chosen) return;
  const { figure, stops, poses } = chosen;
  store.dispatch(sessionActions.selected(null));
  store.dispatch(
    changePiece(poses.length === 1 ? `Remove ${poses[0].name}` : `Remove ${poses.length} poses`, (draft) =>
      removeStops(draft, figure.id, stops, freshId),
    ),
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
  if (state.session.more.length > 0) {
    const chosen = chosenPoses(store);
    return chosen && copiedRow(chosen);
  }
  const { piece } = state.document;
  const targets = editTargets(state, seconds);
  if (!piece || targets.length === 0) return undefined;
  const boxes = targets.map((target) => shownBox(target, target.targets));
  const placed = targets.map(({ pose, targets: parts, motion }) => ({
    placement: pose.placement,
    parts,
    ...(motion && { motion: motionMatrix(motion) }),
  }));
  const kind = state.drawing.parts.length > 0 ? 'parts' : 'poses';
  const poses = targets.map(({ pose, targets: parts }) => ({ pose, parts }));
  const values = kind === 'poses' ? targets.map(({ figure, stop }) => valuesAtStop(piece, figure.id, stop)) : [];
  return { svg: svgOf(placed, boxes), json: JSON.stringify({ kind, poses, values }) };
}

/** Several poses of a rail; for other programs they stand side by side. */
function copiedRow({ piece, poses, timings, values }: NonNullable<ReturnType<typeof chosenPoses>>): Copied {
  const boxes: Box[] = [];
  let right = 0;
  const placed = poses.map((pose) => {
    const box = poseBox(piece, pose);
    const dx = right - box.minX;
    boxes.push({ ...box, minX: right, maxX: box.maxX + dx });
    right += 1.1 * (box.maxX - box.minX);
    return { placement: { ...pose.placement, x: pose.placement.x + dx }, parts: partsOf(piece, pose) };
  });
  const copied = poses.map((pose) => ({ pose, parts: partsOf(piece, pose) }));
  const shifts = timings.map((timing) => timing ?? null);
  return { svg: svgOf(placed, boxes), json: JSON.stringify({ kind: 'poses', poses: copied, shifts, values }) };
}

function svgOf(placed: Parameters<typeof writeStillSvg>[0], boxes: readonly Box[]): string {
  const x = Math.min(...boxes.map(({ minX }) => minX));
  const y = Math.min(...boxes.map(({ minY }) => minY));
  const width = Math.max(...boxes.map(({ maxX }) => maxX)) - x;
  const height = Math.max(...boxes.map(({ maxY }) => maxY)) - y;
  const room = 0.05 * Math.max(width, height, 1);
  return writeStillSvg(placed, { x: x - room, y: y - room, width: width + 2 * room, height: height + 2 * room });
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
  const after = chosenPoses(store)?.stops.at(-1);
  const at = after === undefined ? undefined : after + 1;
  store.dispatch(
    changePiece(copies.length === 1 ? `Paste ${copies[0].pose.name}` : `Paste ${copies.length} poses`, (draft) => {
      if (!figure) {
        draft.figures[figureId] = newFigure(figureId, 'Figure 1') as PieceDraft['figures'][string];
        draft.figureOrder.push(figureId);
      }
      insertChain(draft, figureId, copies, copied.timings, freshId, at, copied.values);
    }),
  );
  if (at !== undefined)
    chooseAll(
      store,
      figureId,
      copies.map((_, i) => ({ kind: 'stop', stop: at + i })),
    );
  return true;
}

interface Pasted {
  readonly kind: 'parts' | 'poses';
  readonly poses: readonly NewPose[];
  /** How the shift after each pose goes, where it was copied too. */
  readonly timings: readonly (Shift | undefined)[];
  /** What lanes said of each pose; none where that was not copied. */
  readonly values: readonly StopValues[];
}

/** Clipboards may hold anything: only what makes a sound piece is taken. */
function readCopied(text: string): Pasted | undefined {
  try {
    const {
      kind,
      poses,
      shifts = [],
      values = [],
    } = JSON.parse(text) as {
      kind: string;
      poses: NewPose[];
      shifts?: (Shift | null)[];
      values?: StopValues[];
    };
    if (kind !== 'parts' && kind !== 'poses') return undefined;
    const trial = structuredClone(emptyPiece('clipboard', 'Clipboard')) as PieceDraft;
    for (const { pose, parts } of poses) {
      const points = parts.map(({ source, ...part }) =>
        source && source.kind !== 'glyph' ? { ...part, source } : part,
      );
      trial.poses[pose.id] = pose as PieceDraft['poses'][string];
      for (const part of points) trial.parts[part.id] = part as PieceDraft['parts'][string];
    }
    const rail = poses.slice(1).map(({ pose }, i): Shift => {
      const plain = newShift(`s${i}`, poses[i].pose.id, pose.id);
      const { duration, easing, blend, method } = shifts[i] ?? plain;
      return { ...plain, duration, easing, blend, method };
    });
    for (const shift of rail) trial.shifts[shift.id] = shift as PieceDraft['shifts'][string];
    trial.figures.f = {
      ...newFigure('f', 'Figure'),
      poses: poses.map(({ pose }) => pose.id),
      rail: rail.map(({ id }) => id),
    } as PieceDraft['figures'][string];
    trial.figureOrder = ['f'];
    values.forEach((each, i) => {
      tryValues(trial, each, { pose: poses[i].pose.id, shift: i > 0 ? rail[i - 1].id : null });
    });
    const sound = checkPiece(JSON.parse(JSON.stringify(trial)));
    const taken = Object.values(sound.poses).map((pose) => ({ pose, parts: partsOf(sound, pose) }));
    const timings = rail.map(({ id }, i): Shift | undefined => (shifts[i] ? sound.shifts[id] : undefined));
    return taken.length > 0 ? { kind, poses: taken, timings, values } : undefined;
  } catch {
    return undefined;
  }
}

/** Puts values that lanes have at a stop into a piece that is checked after that. */
function tryValues(trial: PieceDraft, { pivot, values }: StopValues, stop: StopName): void {
  trial.figures.f.pivot = [...pivot];
  for (const { property, value } of values) {
    const id = `l-${property}`;
    const key = { id: 'k', stop, after: null, value, easing: null };
    const keys = trial.lanes[id]?.keys ?? [];
    trial.lanes[id] = { id, figure: 'f', property, keys: [...keys, key] } as PieceDraft['lanes'][string];
  }
}

/** The figure that arriving poses go to, if there is one yet. */
export const targetFigure = (store: AppStore) => {
  const { document, session } = store.getState();
  return document.piece ? chosenFigure(document.piece, session.selection) : undefined;
};
