import type { Piece } from '@core';
import { documentActions, type HistoryEntry, newEntryId } from './document';
import type { AppDispatch, RootState } from './store';

/** Puts another version of the piece in the place of the open one, as one undoable step. `revision` is the one on the server that it goes on from. */
export const takeVersion =
  (name: string, piece: Piece, revision: number) =>
  (dispatch: AppDispatch, getState: () => RootState): void => {
    const { piece: before, mark } = getState().document;
    if (!before) return;
    // Whatever is being typed or dragged ends here: this is a step of its own.
    if (mark) dispatch(documentActions.markTaken(mark.id));
    const whole = (value: Piece): HistoryEntry['forward'] => [{ op: 'replace', path: [], value }];
    const entry: HistoryEntry = { id: newEntryId(), name, forward: whole(piece), backward: whole(before) };
    dispatch(documentActions.committed({ piece, entry }));
    dispatch(documentActions.revisionKnown(revision));
  };

/** Steps that come from elsewhere, with numbers of their own. */
export const numberedAnew = (entries: readonly HistoryEntry[]): HistoryEntry[] =>
  entries.map((entry) => ({ ...entry, id: newEntryId() }));
