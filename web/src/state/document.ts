import type { Piece } from '@core';
import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';
import { applyPatches, enablePatches, type Patch } from 'immer';

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
  /** The server's revision after the last save or load. */
  readonly revision: number;
  readonly past: readonly HistoryEntry[];
  readonly future: readonly HistoryEntry[];
  /** Set during a drag or a choice: all changes from `at` on, an index of `past`, become one step. */
  readonly mark: { readonly id: number; readonly at: number } | null;
  /** Did it open with steps from an earlier session? */
  readonly kept: boolean;
}

let nextEntry = 1;
/** The number for the next step. */
export const newEntryId = (): number => nextEntry++;

const HISTORY_LIMIT = 200;
const initialState: DocumentState = { piece: null, revision: 0, past: [], future: [], mark: null, kept: false };

/** The original state behind the slice's draft. */
const plain = (state: object): DocumentState => (original(state) ?? state) as DocumentState;

const slice = createSlice({
  name: 'document',
  initialState: initialState as DocumentState,
  // Reducers return whole states made from the original, because pieces are large and patches must not be applied to a draft.
  reducers: {
    /** `past` and `future` are steps from an earlier session, if any. */
    opened: (
      _state,
      action: PayloadAction<{
        piece: Piece;
        revision: number;
        past?: readonly HistoryEntry[];
        future?: readonly HistoryEntry[];
      }>,
    ): DocumentState => {
      const { past = [], future = [], ...opened } = action.payload;
      return { ...initialState, ...opened, past, future, kept: past.length + future.length > 0 };
    },
    closed: (): DocumentState => initialState,
    committed: (state, action: PayloadAction<{ piece: Piece; entry: HistoryEntry }>): DocumentState => {
      const { past, mark } = plain(state);
      const { piece, entry } = action.payload;
      const open = mark !== null && past.length > mark.at;
      const next = open ? [...past.slice(0, -1), joinedEntries(past[past.length - 1], entry)] : [...past, entry];
      const dropped = Math.max(0, next.length - HISTORY_LIMIT);
      return {
        ...plain(state),
        piece,
        past: next.slice(dropped),
        future: [],
        mark: mark && { ...mark, at: mark.at - dropped },
      };
    },
    /** Begins a step that may consist of many changes. */
    markSet: (state, action: PayloadAction<number>): DocumentState => ({
      ...plain(state),
      mark: { id: action.payload, at: plain(state).past.length },
    }),
    /** Ends the step, unless another one has begun since. */
    markTaken: (state, action: PayloadAction<number>): DocumentState =>
      plain(state).mark?.id === action.payload ? { ...plain(state), mark: null } : plain(state),
    undone: (state): DocumentState => {
      const { piece, past, future } = plain(state);
      const entry = past[past.length - 1];
      if (!piece || !entry) return plain(state);
      return {
        ...plain(state),
        piece: applyPatches(piece, entry.backward),
        past: past.slice(0, -1),
        future: [entry, ...future],
        mark: null,
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
        mark: null,
        future: future.slice(1),
      };
    },
    revisionKnown: (state, action: PayloadAction<number>): DocumentState => ({
      ...plain(state),
      revision: action.payload,
    }),
  },
});

export const documentActions = slice.actions;
export const documentReducer = slice.reducer;

/**
 * Two steps that follow each other as one. Where both only put values in the place of others, those in between are left out, so that a long drag
 * weighs no more than a short one.
 */
function joinedEntries(first: HistoryEntry, second: HistoryEntry): HistoryEntry {
  return {
    ...second,
    id: first.id,
    forward: compact([...first.forward, ...second.forward]),
    backward: compact([...second.backward, ...first.backward]),
  };
}

/** If one value is replaced several times, only the last time counts. */
function compact(patches: Patch[]): Patch[] {
  const keys = patches.map(({ path }) => path.join('\u0000'));
  const simple = patches.every(({ op }) => op === 'replace');
  const nested = keys.some((key) => keys.some((other) => other.startsWith(`${key}\u0000`)));
  if (!simple || nested) return patches;
  return patches.filter((_, i) => keys.lastIndexOf(keys[i]) === i);
}
