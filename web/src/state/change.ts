import {
  findingOfChange,
  keepAppearances,
  keepLanes,
  keepLetterPlaces,
  keepPlaces,
  type Piece,
  type PieceDraft,
} from '@core';
import { enablePatches, freeze, produceWithPatches } from 'immer';
import { documentActions, type HistoryEntry, newEntryId } from './document';
import { sessionActions } from './session';
import type { AppDispatch, RootState } from './store';

enablePatches();

/** A change, as a function that writes into a draft of the piece. */
export type Recipe = (draft: PieceDraft) => void;

/** The piece after a change, the step that did it, and the match decisions that could not be kept. */
export interface Change {
  readonly piece: Piece;
  readonly entry: HistoryEntry;
  readonly lost: readonly string[];
}

/**
 * The piece after `recipe`, and the step that did it; undefined when nothing changed. Places that were chosen for matches are carried over
 * in the same step, what is fitted to a letter follows it, and what a figure appears or disappears by stays at its ends.
 */
export function makeChange(piece: Piece, name: string, recipe: Recipe): Change | undefined {
  return finish(piece, name, made(piece, recipe));
}

/** A piece during a change, with the patches in both directions. */
interface Made {
  readonly piece: Piece;
  readonly forward: HistoryEntry['forward'];
  readonly backward: HistoryEntry['backward'];
}

function made(piece: Piece, recipe: Recipe): Made {
  const [next, forward, backward] = produceWithPatches(piece, (draft) => {
    recipe(draft as PieceDraft);
  });
  return { piece: next, forward, backward };
}

/** Two changes, one after the other. */
const joined = (first: Made, next: Made): Made => ({
  piece: next.piece,
  forward: [...first.forward, ...next.forward],
  backward: [...next.backward, ...first.backward],
});

function finish(before: Piece, name: string, done: Made): Change | undefined {
  if (done.forward.length === 0) return undefined;
  const { matches, lost } = keepPlaces(before, done.piece);
  const placements = keepLetterPlaces(before, done.piece);
  const lanes = keepLanes(before, done.piece);
  const all =
    matches.size === 0 && placements.size === 0 && lanes.size === 0
      ? done
      : joined(
          done,
          made(done.piece, (draft) => {
            for (const [id, placement] of placements)
              draft.poses[id].placement = placement as (typeof draft.poses)[string]['placement'];
            for (const [id, lane] of lanes)
              if (lane) draft.lanes[id] = lane as (typeof draft.lanes)[string];
              else delete draft.lanes[id];
            for (const [id, match] of matches) draft.shifts[id].match = match as (typeof draft.shifts)[string]['match'];
          }),
        );
  const appearances = keepAppearances(before, all.piece);
  const { piece, forward, backward } =
    appearances.size === 0
      ? all
      : joined(
          all,
          made(all.piece, (draft) => {
            for (const [id, keys] of appearances)
              draft.lanes[id].keys = structuredClone(keys) as (typeof draft.lanes)[string]['keys'];
          }),
        );
  return { piece, entry: { id: newEntryId(), name, forward, backward }, lost };
}

/** Names the adjustable shapes and letters that a change has turned into points; undefined if there are none. */
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
    if (change) dispatch(settle(name, piece, change, findingOfChange(piece, change.piece)));
  };

/**
 * The same for a change of thousands of parts: each recipe, the check and the commit are steps of the page of their own, a `later` apart. What was changed
 * meanwhile is changed first. Recipes may run several times.
 */
export const changePieceInSteps =
  (name: string, recipes: readonly Recipe[], later: () => Promise<void>) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const opened = getState().document.piece?.id;
    for (;;) {
      const { piece } = getState().document;
      if (!piece || piece.id !== opened) return;
      let done: Made = { piece, forward: [], backward: [] };
      for (const recipe of recipes) {
        done = joined(done, made(done.piece, recipe));
        await later();
      }
      const change = finish(piece, name, done);
      if (!change) return;
      await later();
      const finding = findingOfChange(piece, change.piece);
      freeze(change.entry, true);
      await later();
      if (getState().document.piece !== piece) continue;
      dispatch(settle(name, piece, change, finding));
      return;
    }
  };

/** Commits a change, or says why it cannot be stored. A change that could not be saved must not be made. */
const settle =
  (name: string, before: Piece, change: Change, finding: string | undefined) =>
  (dispatch: AppDispatch): void => {
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
    const points = becamePoints(before, change.piece);
    if (points) dispatch(sessionActions.told({ tone: 'notice', text: points, undoChange: change.entry.id }));
  };
