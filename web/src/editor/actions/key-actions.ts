import {
  addFreeKey,
  addLane,
  canHave,
  changeKey,
  checkPiece,
  emptyPiece,
  figureOfLane,
  type Id,
  isCanvasLane,
  isDriven,
  type LaneKey,
  type LaneProperty,
  type LaneRecord,
  newFigure,
  newPose,
  type Piece,
  type PieceDraft,
  removeKeys,
  timedKeys,
  toMillionths,
} from '@core';
import { type AppStore, changePiece, chosenFigure, type KeyRef, sessionActions } from '../../state';
import { freshId } from '../../workers';

/** Keys that are copied: of which property, so many s after the first, and what they say. */
interface CopiedKey extends Pick<LaneKey, 'value' | 'easing' | 'path'> {
  readonly property: LaneProperty;
  readonly at: number;
}

const MOST_COPIED = 10_000;

/** The chosen keys that there are, with their lanes. */
function chosenKeys(
  store: AppStore,
): { readonly piece: Piece; readonly keys: readonly { lane: LaneRecord; key: LaneKey }[] } | undefined {
  const { document, session } = store.getState();
  const { piece } = document;
  if (!piece) return undefined;
  const keys = session.keys.flatMap(({ lane: laneId, key: keyId }) => {
    const lane = piece.lanes[laneId];
    const key = lane?.keys.find(({ id }) => id === keyId);
    return lane && key ? [{ lane, key }] : [];
  });
  return keys.length > 0 ? { piece, keys } : undefined;
}

/** What keys are of, in words: “Wave” and the background. */
function ownersOf(piece: Piece, figures: readonly (Id | null)[]): string {
  const names = [...new Set(figures)].map((id) => (id === null ? 'the background' : `“${piece.figures[id].name}”`));
  return names.length < 3 ? names.join(' and ') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}
const manyKeys = (count: number): string => (count === 1 ? 'One key' : `${count} keys`);

/** The chosen keys as the clipboard keeps them, and what was copied in words; undefined where none is chosen. */
export function copiedKeys(
  store: AppStore,
): { readonly json: string; readonly text: string; readonly said: string } | undefined {
  const chosen = chosenKeys(store);
  if (!chosen) return undefined;
  const { piece, keys } = chosen;
  const timed = keys.map(({ lane, key }) => ({
    property: lane.property,
    at: timedKeys(piece, figureOfLane(piece, lane), lane).find((each) => each.key.id === key.id)?.from ?? 0,
    value: key.value,
    easing: key.easing,
    ...(key.path && { path: key.path }),
  }));
  const first = Math.min(...timed.map(({ at }) => at));
  const copied = timed.map((key): CopiedKey => ({ ...key, at: key.at - first }));
  const text = copied
    .map(({ property, at, value }) => `${property}\t${+at.toFixed(3)} s\t${value.join(', ')}`)
    .join('\n');
  const owners = ownersOf(
    piece,
    keys.map(({ lane }) => lane.figure),
  );
  const said = `${manyKeys(keys.length)} of ${owners} ${keys.length === 1 ? 'is' : 'are'} copied.`;
  return { json: JSON.stringify({ kind: 'keys', keys: copied }), text, said };
}

/**
 * Puts copied keys into lanes, the first where the bead stands: of the figures whose keys are chosen, else of the chosen figures. Lanes that they lack are added, and
 * a message names whose they are. False when the text is nothing that was copied here, or no figure can take it.
 */
export function pasteKeys(store: AppStore, text: string, seconds: number): boolean {
  const keys = readKeys(text);
  const { document, session, drawing } = store.getState();
  const { piece } = document;
  if (!piece || !keys) return false;
  const first = chosenFigure(piece, session.selection);
  const ofKeys = [...new Set(chosenKeys(store)?.keys.map(({ lane }) => lane.figure) ?? [])];
  const figures =
    ofKeys.length > 0
      ? ofKeys.filter((id) => id !== null)
      : first
        ? [first.id, ...drawing.also.filter((id) => id !== first.id && piece.figures[id])]
        : [];
  const takes = (figureId: Id | null, property: LaneProperty): boolean =>
    figureId === null ? isCanvasLane(property) : canHave(piece, piece.figures[figureId], property);
  const targets = [null, ...figures];
  const placed = targets.flatMap((figureId) =>
    keys.filter(({ property }) => takes(figureId, property)).map((key) => ({ figureId, key })),
  );
  if (placed.length === 0) return false;
  const refs: KeyRef[] = [];
  store.dispatch(
    changePiece(placed.length === 1 ? 'Paste a key' : `Paste ${placed.length} keys`, (draft) => {
      for (const { figureId, key } of placed) {
        const lane = addLane(draft, figureId, key.property, freshId);
        if (!lane) continue;
        const id = addFreeKey(draft, lane, seconds + key.at, key.value, freshId);
        const made = draft.lanes[lane].keys.find((each) => each.id === id);
        if (made) Object.assign(made, structuredClone({ easing: key.easing, ...(key.path && { path: key.path }) }));
        refs.push({ lane, key: id });
      }
    }),
  );
  store.dispatch(sessionActions.keysChosen(refs));
  const owners = ownersOf(
    piece,
    placed.map(({ figureId }) => figureId),
  );
  const said = `${manyKeys(placed.length)} pasted into ${owners}.`;
  store.dispatch(sessionActions.told({ tone: 'notice', text: said }));
  return true;
}

/** Clipboards may hold anything: only keys that a piece could have are taken. */
function readKeys(text: string): readonly CopiedKey[] | undefined {
  try {
    const { kind, keys } = JSON.parse(text) as { kind: string; keys: CopiedKey[] };
    if (kind !== 'keys' || !Array.isArray(keys) || keys.length === 0 || keys.length > MOST_COPIED) return undefined;
    return keys.every(isSound) ? keys : undefined;
  } catch {
    return undefined;
  }
}

function isSound({ property, at, value, easing, path }: CopiedKey): boolean {
  if (typeof property !== 'string' || !Number.isFinite(at) || at < 0) return false;
  // It is tried on the canvas, or on a figure of one pose.
  const key = { id: 'k', stop: null, after: 0, value, easing, ...(path && { path }) };
  const figure = isCanvasLane(property) ? null : 'f';
  const stop = figure && { pose: 'q', shift: null };
  checkPiece({ ...structuredClone(TRIAL), lanes: { l: { id: 'l', figure, property, keys: [{ ...key, stop }] } } });
  return true;
}

/** A piece of one figure with one empty pose. */
const TRIAL: Piece = {
  ...emptyPiece('trial', 'Trial'),
  figureOrder: ['f'],
  figures: { f: { ...newFigure('f', 'Figure'), poses: ['q'] } },
  poses: { q: newPose('q', 'Pose', []) },
};

/** Moves the chosen free keys by so many frames. False where none of them is free. */
export function nudgeKeys(store: AppStore, frames: number): boolean {
  const chosen = chosenKeys(store);
  const free = chosen?.keys.filter(({ key }) => key.after !== null) ?? [];
  if (!chosen || free.length === 0) return false;
  const { num, den } = chosen.piece.canvas.rate;
  store.dispatch(
    changePiece(free.length === 1 ? 'Move a key' : `Move ${free.length} keys`, (draft) => {
      for (const { lane, key } of free)
        changeKey(draft, lane.id, key.id, {
          after: toMillionths((key.after ?? 0) + (frames * den) / num),
        });
    }),
  );
  return true;
}

/** Takes the chosen keys away; lanes that say nothing any more go with them. False where none is chosen. */
export function removeChosenKeys(store: AppStore): boolean {
  const chosen = chosenKeys(store);
  if (!chosen) return false;
  store.dispatch(
    changePiece(
      chosen.keys.length === 1 ? 'Remove a key' : `Remove ${chosen.keys.length} keys`,
      (draft: PieceDraft) => {
        for (const { lane, key } of chosen.keys) removeKeys(draft, lane.id, [key.id]);
      },
    ),
  );
  store.dispatch(sessionActions.keysChosen([]));
  return true;
}

/** What a lane's keys alone give: without what it follows, and without drift and pulse. */
export function withoutDrives(piece: Piece, lane: LaneRecord): Piece {
  if (!isDriven(lane)) return piece;
  const { follow: _follow, drift: _drift, pulse: _pulse, ...plain } = lane;
  return { ...piece, lanes: { ...piece.lanes, [lane.id]: plain } };
}
