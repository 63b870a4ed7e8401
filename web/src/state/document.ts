import { keepPlaces, type Piece, type PieceDraft } from '@core';
import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';
import { applyPatches, enablePatches, type Patch, produceWithPatches } from 'immer';

enablePatches();

/** One undoable step, as reversible diffs. */
export interface HistoryEntry {
  readonly id: number;
  readonly name: string;
  readonly forward: Patch[];
  readonly backward: Patch[];
}

/** The open piece with its history. `past` is oldest first, `future` nearest first. */
export interface DocumentState {
  readonly piece: Piece | null;
  /** Revision on the server that the last save or load gave. */
  readonly revision: number;
  readonly past: readonly HistoryEntry[];
  readonly future: readonly HistoryEntry[];
}

const HISTORY_LIMIT = 200;
const initialState: DocumentState = { piece: null, revision: 0, past: [], future: [] };

/** The state behind the draft that the slice hands over. */
const plain = (state: object): DocumentState => (original(state) ?? state) as DocumentState;

const slice = createSlice({
  name: 'document',
  initialState: initialState as DocumentState,
  // Reducers return whole states made from the original: pieces are large, and patches must not be applied to a draft.
  reducers: {
    opened: (_state, action: PayloadAction<{ piece: Piece; revision: number }>): DocumentState => ({
      ...initialState,
      ...action.payload,
    }),
    closed: (): DocumentState => initialState,
    committed: (state, action: PayloadAction<{ piece: Piece; entry: HistoryEntry }>): DocumentState => ({
      ...plain(state),
      piece: action.payload.piece,
      past: [...plain(state).past, action.payload.entry].slice(-HISTORY_LIMIT),
      future: [],
    }),
    undone: (state): DocumentState => {
      const { piece, past, future } = plain(state);
      const entry = past[past.length - 1];
      if (!piece || !entry) return plain(state);
      return {
        ...plain(state),
        piece: applyPatches(piece, entry.backward),
        past: past.slice(0, -1),
        future: [entry, ...future],
      };
    },
    redone: (state): DocumentState => {
      const { piece, past, future } = plain(state);
      const [entry] = future;
      if (!piece || !entry) return plain(state);
      return {
        ...plain(state),
        piece: applyPatches(piece, entry.forward),
        past: [...past, entry],
        future: future.slice(1),
      };
    },
    revisionKnown: (state, action: PayloadAction<number>): DocumentState => ({
      ...plain(state),
      revision: action.payload,
    }),
    replaced: (state, action: PayloadAction<{ piece: Piece; revision: number }>): DocumentState => ({
      ...plain(state),
      ...action.payload,
      past: [],
      future: [],
    }),
  },
});

export const documentActions = slice.actions;
export const documentReducer = slice.reducer;

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
 * in the same step.
 */
export function makeChange(piece: Piece, name: string, recipe: Recipe): Change | undefined {
  const [next, forward, backward] = produceWithPatches(piece, (draft) => {
    recipe(draft as PieceDraft);
  });
  if (forward.length === 0) return undefined;
  const { matches, lost } = keepPlaces(piece, next);
  if (matches.size === 0) return { piece: next, entry: { id: nextEntry++, name, forward, backward }, lost };
  const [kept, more, less] = produceWithPatches(next, (draft) => {
    for (const [id, match] of matches) draft.shifts[id].match = match as (typeof draft.shifts)[string]['match'];
  });
  const entry = { id: nextEntry++, name, forward: [...forward, ...more], backward: [...less, ...backward] };
  return { piece: kept, entry, lost };
}
