import { isClosedRail, type PieceDraft, reverseStops, type Shift, setClosedRail, settledMatch, stopsOf } from '@core';
import {
  type AppStore,
  changePiece,
  chosenFigure,
  itemOf,
  type RailChoice,
  type RailItem,
  railChoice,
  railItems,
  sameItem,
  sessionActions,
} from '../../state';
import { freshId } from '../../workers/fresh-id';
import type { ChoosingHow } from './choosing';

/** What is chosen on the rail of the store's piece. */
export function chosenOnRail(store: AppStore): RailChoice | undefined {
  const { document, session } = store.getState();
  return document.piece ? railChoice(document.piece, session.selection, session.more) : undefined;
}

/** Chooses one thing of a rail alone, besides what is chosen there, or with all of its kind between. */
export function chooseOnRail(store: AppStore, figureId: string, item: RailItem, how: ChoosingHow): void {
  const { document, session } = store.getState();
  const figure = document.piece?.figures[figureId];
  const { selection } = session;
  if (!document.piece || !figure || how === 'alone' || selection?.figureId !== figureId) {
    chooseAlone(store, figureId, item);
    return;
  }
  const first = itemOf(selection);
  if (how === 'range') {
    const all = railItems(figure, stopsOf(document.piece, figure).length);
    const [p, q] = [first, item].map((end) => all.findIndex((other) => sameItem(other, end)));
    const between = all.slice(Math.min(p, q), Math.max(p, q) + 1);
    // Two of a kind mean all of that kind; a pose and a shift mean everything between.
    const meant = first.kind === item.kind ? between.filter(({ kind }) => kind === item.kind) : between;
    store.dispatch(sessionActions.moreChosen(meant.filter((other) => !sameItem(other, first))));
    return;
  }
  const rest = session.more.filter((other) => !sameItem(other, item));
  if (sameItem(first, item)) {
    // The first one goes: the next takes its place.
    const [next, ...others] = rest;
    if (next) chooseAll(store, figureId, [next, ...others]);
    else store.dispatch(sessionActions.selected(null));
  } else if (rest.length < session.more.length) store.dispatch(sessionActions.moreChosen(rest));
  else store.dispatch(sessionActions.moreChosen([...session.more, item]));
}

/** Chooses these things of a rail; nothing when there are none. */
export function chooseAll(store: AppStore, figureId: string, items: readonly RailItem[]): void {
  const [first, ...others] = items;
  if (!first) {
    store.dispatch(sessionActions.selected(null));
    return;
  }
  chooseAlone(store, figureId, first);
  store.dispatch(sessionActions.moreChosen(others));
}

function chooseAlone(store: AppStore, figureId: string, item: RailItem): void {
  const selection =
    item.kind === 'stop'
      ? { kind: 'stop' as const, figureId, stop: item.stop }
      : { kind: 'shift' as const, figureId, shiftId: item.shiftId };
  store.dispatch(sessionActions.selected(selection));
}

const counted = (count: number, one: string): string => (count === 1 ? `a ${one}` : `${count} ${one}s`);

/** Holds all chosen poses so long, s. */
export function holdChosen(store: AppStore, hold: number): void {
  const { piece } = store.getState().document;
  const choice = chosenOnRail(store);
  if (!piece || !choice) return;
  const stops = stopsOf(piece, choice.figure);
  const poses = new Set(choice.stops.map((stop) => stops[stop]));
  store.dispatch(
    changePiece(`Hold ${counted(poses.size, 'pose')} ${hold} s`, (draft) => {
      for (const id of poses) draft.poses[id].hold = hold;
    }),
  );
}

/** Sets something of all chosen shifts. */
export function setChosenShifts(
  store: AppStore,
  name: string,
  setting: Partial<Pick<Shift, 'duration' | 'easing' | 'method' | 'blend'>>,
): void {
  const choice = chosenOnRail(store);
  if (!choice) return;
  store.dispatch(
    changePiece(`${name}, ${counted(choice.shifts.length, 'shift')}`, (draft) => {
      for (const id of choice.shifts) {
        const shift = draft.shifts[id];
        Object.assign(shift, structuredClone(setting) as Partial<PieceDraft['shifts'][string]>);
        // By another method it is another way than the one that was taken.
        if (setting.method) Object.assign(shift.match, settledMatch(shift.match));
      }
    }),
  );
}

/** Runs the rail from the first to the last chosen pose the other way; the same poses stay chosen. */
export function reverseChosen(store: AppStore): void {
  const choice = chosenOnRail(store);
  if (!choice || choice.stops.length < 2) return;
  const first = choice.stops[0];
  const last = choice.stops[choice.stops.length - 1];
  let lost: readonly string[] = [];
  store.dispatch(
    changePiece(`Reverse ${counted(last - first + 1, 'pose')}`, (draft) => {
      lost = reverseStops(draft, choice.figure.id, first, last, freshId);
    }),
  );
  for (const text of lost) store.dispatch(sessionActions.told({ tone: 'notice', text }));
  chooseAll(
    store,
    choice.figure.id,
    choice.stops.map((stop) => ({ kind: 'stop', stop: first + last - stop })),
  );
}

/** Closes the rail of the chosen figure by a way back to its first pose, or takes it off. */
export function toggleLoop(store: AppStore): void {
  const { document, session } = store.getState();
  const figure = document.piece && chosenFigure(document.piece, session.selection);
  if (!document.piece || !figure) return;
  const closes = !isClosedRail(document.piece, figure);
  const name = closes ? 'Close the loop' : 'Open the loop';
  store.dispatch(changePiece(name, (draft) => setClosedRail(draft, figure.id, closes, freshId)));
  store.dispatch(
    sessionActions.said(closes ? 'At the end it goes back to the first pose.' : 'It ends at the last pose.'),
  );
}
