import { findingOfChange, keepLetterPlaces, keepPlaces, type Piece, type PieceDraft } from '@core';
import { enablePatches, produceWithPatches } from 'immer';
import { documentActions, type HistoryEntry } from './document';
import { sessionActions } from './session';
import type { AppDispatch, RootState } from './store';

enablePatches();

let nextEntry = 1;

/** What a change does to the piece, written into a draft. */
export type Recipe = (draft: PieceDraft) => void;

/** The piece after a change, the step that did it, and what of the chosen matches could not be kept. */
export interface Change {
  readonly piece: Piece;
  readonly entry: HistoryEntry;
  readonly lost: readonly string[];
}

/**
 * The piece after `recipe`, and the step that did it; undefined when nothing changed. Places that were chosen for matches are carried over
 * in the same step, and what is fitted to a letter follows it.
 */
export function makeChange(piece: Piece, name: string, recipe: Recipe): Change | undefined {
  const [next, forward, backward] = produceWithPatches(piece, (draft) => {
    recipe(draft as PieceDraft);
  });
  if (forward.length === 0) return undefined;
  const { matches, lost } = keepPlaces(piece, next);
  const placements = keepLetterPlaces(piece, next);
  if (matches.size === 0 && placements.size === 0)
    return { piece: next, entry: { id: nextEntry++, name, forward, backward }, lost };
  const [kept, more, less] = produceWithPatches(next, (draft) => {
    for (const [id, placement] of placements)
      draft.poses[id].placement = placement as (typeof draft.poses)[string]['placement'];
    for (const [id, match] of matches) draft.shifts[id].match = match as (typeof draft.shifts)[string]['match'];
  });
  const entry = { id: nextEntry++, name, forward: [...forward, ...more], backward: [...less, ...backward] };
  return { piece: kept, entry, lost };
}

/** Says which adjustable shapes and letters a change has turned into points; undefined where it has turned none. */
function becamePoints(before: Piece, after: Piece): string | undefined {
  const turned = Object.values(after.parts).filter((part) => {
    const was = before.parts[part.id];
    return was !== part && was?.source && !part.source;
  });
  if (turned.length === 0) return undefined;
  const letters = turned.filter(({ id }) => before.parts[id].source?.kind === 'glyph');
  if (letters.length === turned.length)
    return `The letters “${letters
      .map(({ name }) => name)
      .join('')
      .slice(0, 40)}” are points now: they no longer follow their text.`;
  const names = turned.map(({ name }) => `“${name}”`);
  const one = names.length === 1;
  return `${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''} ${one ? 'is' : 'are'} points now: ${one ? 'it is' : 'they are'} no longer adjustable.`;
}

/** Changes the open piece as one undoable step; nothing happens when the recipe changes nothing. */
export const changePiece =
  (name: string, recipe: Recipe) =>
  (dispatch: AppDispatch, getState: () => RootState): void => {
    const { piece } = getState().document;
    const change = piece && makeChange(piece, name, recipe);
    if (!change) return;
    // What could not be stored must not be made: there would be no way to save it.
    const finding = findingOfChange(piece, change.piece);
    if (finding) {
      dispatch(
        sessionActions.told({
          tone: 'error',
          text: `“${name}” was left undone, for it could not be saved: ${finding}.`,
        }),
      );
      return;
    }
    dispatch(documentActions.committed(change));
    for (const text of change.lost) dispatch(sessionActions.told({ tone: 'notice', text }));
    const points = becamePoints(piece, change.piece);
    if (points) dispatch(sessionActions.told({ tone: 'notice', text: points, undoChange: change.entry.id }));
  };
