import { type Piece, planPoseShift, previewPoseShift } from '@core';
import { MatchEditing } from '../editor/match/match-editing';
import { PlanStore } from '../editor/plans/plan-store';
import { PlaybackClock } from '../editor/playback/clock';
import { type AppStore, createStore, documentActions, sessionActions } from '../state';

/** The Match room without a page: the first shift of figure `f` is chosen and planned, by the engine itself in place of a worker. */
export async function openMatchRoom(
  piece: Piece,
): Promise<{ readonly store: AppStore; readonly plans: PlanStore; readonly editing: MatchEditing }> {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece, revision: 1 }));
  store.dispatch(sessionActions.selected({ kind: 'shift', figureId: 'f', shiftId: piece.figures.f.rail[0] }));
  const plans = new PlanStore([{ plan: async (input) => planPoseShift(input), cancel: () => {} }]);
  const editing = new MatchEditing({
    store,
    plans,
    clock: new PlaybackClock({ now: () => 0, requestFrame: () => 1, cancelFrame: () => {} }),
    quick: async (input) => previewPoseShift(input),
    full: async (input) => planPoseShift(input),
    cancelFull: () => {},
  });
  plans.update(piece);
  // The plans come in a later turn of the event loop.
  await new Promise((resolve) => setTimeout(resolve, 5));
  return { store, plans, editing };
}
