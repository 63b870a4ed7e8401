import {
  AUTOMATIC_MATCH,
  type ContourDirection,
  type ContourPairing,
  type CutLine,
  DECISION_NAMES,
  DECISIONS,
  type Id,
  type MatchChoices,
  type Place,
  type PlaceTie,
  type PoseAlternative,
  type ShiftMethod,
  settledMatch,
  type TouchUpPoint,
} from '@core';
import { type AppStore, changePiece } from '../../state';
import { freshId } from '../../workers';

/** Decisions that can be made by hand and given back; what belongs to one of them goes with it. */
export type Decision = keyof MatchChoices | 'method';
const GOES_WITH: Partial<Record<Decision, keyof MatchChoices>> = { pairs: 'wipes', direction: 'directions' };

/** Decisions that are one of a few answers. */
export type ChoiceName = 'direction' | 'opening' | 'unpairedOrder';

/** With these decided, an alternative that was taken goes its way still. */
const KEEP_THE_WAY: readonly (keyof MatchChoices)[] = ['points', 'even', 'touchUps'];

/** Changes what is decided about a shift's match, as one undoable step. Of an alternative that was taken method, start points and pairs stay. */
export function changeMatch(store: AppStore, shiftId: Id, name: string, change: Partial<MatchChoices>): void {
  const keeps = Object.keys(change).every((key) => KEEP_THE_WAY.includes(key as keyof MatchChoices));
  store.dispatch(
    changePiece(name, (draft) => {
      const { match } = draft.shifts[shiftId];
      Object.assign(match, keeps ? change : { ...settledMatch(match), ...change });
    }),
  );
}

/** What is decided, with the pairs of an alternative that was taken. */
const matchOf = (store: AppStore, shiftId: Id): MatchChoices =>
  settledMatch(store.getState().document.piece?.shifts[shiftId]?.match ?? AUTOMATIC_MATCH);

/** Answers one of the questions of the table of decisions. */
export function setChoice(store: AppStore, shiftId: Id, title: string, name: ChoiceName, value: string): void {
  const answer = DECISIONS[name].answers?.find((other) => other.value === value);
  if (answer) changeMatch(store, shiftId, `${title}: ${answer.label}`, { [name]: answer.value });
}

/** Says which way the partner of one contour is run; null: as all are. */
export function setContourDirection(
  store: AppStore,
  shiftId: Id,
  contour: Id,
  direction: ContourDirection['direction'] | null,
): void {
  const others = matchOf(store, shiftId).directions.filter((own) => own.contour !== contour);
  changeMatch(store, shiftId, 'Direction of a contour', {
    directions: direction === null ? others : [...others, { contour, direction }],
  });
}

export function setMethod(store: AppStore, shiftId: Id, method: ShiftMethod, label: string): void {
  store.dispatch(
    changePiece(`Method: ${label}`, (draft) => {
      const shift = draft.shifts[shiftId];
      shift.method = method;
      Object.assign(shift.match, settledMatch(shift.match));
    }),
  );
}

/** Is a place on the contour that has these anchors? */
export const isOnContour = (place: Place, anchorIds: readonly string[]): boolean =>
  anchorIds.includes('anchor' in place ? place.anchor : place.after);

/** The choices with a start pair for a contour, in the place of the one that it had. */
export function withStart(
  match: MatchChoices,
  start: Omit<PlaceTie, 'id'>,
  anchorsA: readonly string[],
  anchorsB: readonly string[],
): MatchChoices {
  const others = match.starts.filter(({ a, b }) => !isOnContour(a, anchorsA) && !isOnContour(b, anchorsB));
  return { ...match, starts: [...others, { id: freshId('m'), ...start }] };
}

export const setStarts = (store: AppStore, shiftId: Id, starts: MatchChoices['starts']): void =>
  changeMatch(store, shiftId, 'Move the start point', { starts: [...starts] });

export function addTie(store: AppStore, shiftId: Id, tie: Omit<PlaceTie, 'id'>): Id {
  const id = freshId('m');
  changeMatch(store, shiftId, 'Tie two places', { ties: [...matchOf(store, shiftId).ties, { id, ...tie }] });
  return id;
}

/** The choices with one side of a tie elsewhere. */
export const withTie = (match: MatchChoices, id: Id, side: 'a' | 'b', place: Place): MatchChoices => ({
  ...match,
  ties: match.ties.map((tie) => (tie.id === id ? { ...tie, [side]: place } : tie)),
});

export const setTies = (store: AppStore, shiftId: Id, ties: MatchChoices['ties'], name = 'Move a tie'): void =>
  changeMatch(store, shiftId, name, { ties: [...ties] });

export const removeTie = (store: AppStore, shiftId: Id, id: Id): void =>
  setTies(
    store,
    shiftId,
    matchOf(store, shiftId).ties.filter((tie) => tie.id !== id),
    'Remove a tie',
  );

/** Pairs two contours, or lets one come or go alone (null on the other side); what was said about either before is dropped. */
export function setPair(store: AppStore, shiftId: Id, pair: ContourPairing): void {
  const others = matchOf(store, shiftId).pairs.filter(
    (other) => (pair.a === null || other.a !== pair.a) && (pair.b === null || other.b !== pair.b),
  );
  const name =
    pair.a === null ? 'Let a contour come alone' : pair.b === null ? 'Let a contour go alone' : 'Pair contours';
  changeMatch(store, shiftId, name, { pairs: [...others, pair], wipes: withoutWipes(store, shiftId, pair) });
}

const withoutWipes = (store: AppStore, shiftId: Id, { a, b }: ContourPairing): MatchChoices['wipes'] =>
  matchOf(store, shiftId).wipes.filter(({ contour }) => contour !== a && contour !== b);

/** Says that a contour comes, or goes, alone by wiping, in a direction in degrees clockwise (0 to the right). */
export function setWipe(store: AppStore, shiftId: Id, alone: ContourPairing, angle: number): void {
  const contour = alone.a ?? alone.b;
  if (contour === null) return;
  const { pairs } = matchOf(store, shiftId);
  changeMatch(store, shiftId, alone.a === null ? 'Wipe a contour in' : 'Wipe a contour away', {
    pairs: [...pairs.filter(({ a, b }) => a !== contour && b !== contour), alone],
    wipes: [...withoutWipes(store, shiftId, alone), { contour, angle }],
  });
}

/** Takes back what was said about a contour. */
export const releaseContour = (store: AppStore, shiftId: Id, contourId: Id): void =>
  changeMatch(store, shiftId, 'Pair the contour automatically', {
    pairs: matchOf(store, shiftId).pairs.filter(({ a, b }) => a !== contourId && b !== contourId),
    wipes: withoutWipes(store, shiftId, { a: contourId, b: null }),
  });

export const addCut = (store: AppStore, shiftId: Id, cut: Omit<CutLine, 'id'>): void =>
  changeMatch(store, shiftId, 'Draw a cut', {
    cuts: [...matchOf(store, shiftId).cuts.filter(({ side }) => side === cut.side), { id: freshId('m'), ...cut }],
  });

/** The choices with one end of a drawn line elsewhere, px in the pose's own coordinates. */
export const withCutEnd = (
  match: MatchChoices,
  id: Id,
  end: 0 | 1,
  [x, y]: readonly [number, number],
): MatchChoices => ({
  ...match,
  cuts: match.cuts.map((cut) => {
    if (cut.id !== id) return cut;
    const [x0, y0, x1, y1] = cut.line;
    return { ...cut, line: end === 0 ? [x, y, x1, y1] : [x0, y0, x, y] };
  }),
});

export const setCuts = (store: AppStore, shiftId: Id, cuts: MatchChoices['cuts'], name = 'Move a cut'): void =>
  changeMatch(store, shiftId, name, { cuts: [...cuts] });

export const removeCut = (store: AppStore, shiftId: Id, id: Id): void =>
  setCuts(
    store,
    shiftId,
    matchOf(store, shiftId).cuts.filter((cut) => cut.id !== id),
    'Remove a cut',
  );

export const setSmoothing = (store: AppStore, shiftId: Id, smoothing: number | null): void =>
  changeMatch(
    store,
    shiftId,
    smoothing === null ? 'Smooth automatically' : `Smoothness of the in-between: ${smoothing}`,
    {
      smoothing,
    },
  );

export const setEven = (store: AppStore, shiftId: Id, even: number | null): void =>
  changeMatch(store, shiftId, even === null ? 'Points of the outlines' : `${even} even points`, { even });

export const addShiftPoint = (store: AppStore, shiftId: Id, place: Place): void =>
  changeMatch(store, shiftId, 'Add a point', { points: [...matchOf(store, shiftId).points, place] });

/** Touch-ups nearer than this in progress are one. */
const SAME_MOMENT = 0.015;

/** The choices with a point of the in-between moved further at a progress. */
export function withTouchUp(match: MatchChoices, progress: number, moved: TouchUpPoint): MatchChoices {
  const at = match.touchUps.find((touchUp) => Math.abs(touchUp.progress - progress) < SAME_MOMENT);
  if (!at) return { ...match, touchUps: [...match.touchUps, { id: freshId('m'), progress, points: [moved] }] };
  const key = JSON.stringify(moved.place);
  const before = at.points.find((point) => JSON.stringify(point.place) === key);
  const sum = (p: readonly [number, number], q: readonly [number, number]): [number, number] => [
    p[0] + q[0],
    p[1] + q[1],
  ];
  const point: TouchUpPoint = before
    ? {
        ...moved,
        by: sum(before.by, moved.by),
        before: sum(before.before, moved.before),
        after: sum(before.after, moved.after),
      }
    : moved;
  const points = [...at.points.filter((other) => other !== before), point];
  return {
    ...match,
    touchUps: match.touchUps.map((touchUp) => (touchUp === at ? { ...touchUp, points } : touchUp)),
  };
}

export const setTouchUps = (store: AppStore, shiftId: Id, touchUps: MatchChoices['touchUps'], name: string): void =>
  changeMatch(store, shiftId, name, { touchUps: [...touchUps] });

/** Decides what an alternative decides. */
export function takeAlternative(store: AppStore, shiftId: Id, choice: PoseAlternative['choice']): void {
  store.dispatch(
    changePiece('Take an alternative', (draft) => {
      const shift = draft.shifts[shiftId];
      shift.method = choice.method;
      Object.assign(shift.match, {
        smoothing: choice.smoothing,
        starts: choice.starts.map((start) => ({ id: freshId('m'), ...start })),
        taken: structuredClone(choice.taken),
      });
    }),
  );
}

/** Gives a decision, or all of them, back to the program. */
export function backToAutomatic(store: AppStore, shiftId: Id, decision: Decision | 'all'): void {
  store.dispatch(
    changePiece(decision === 'all' ? 'Reset all decisions' : 'Reset a decision', (draft) => {
      const shift = draft.shifts[shiftId];
      Object.assign(shift.match, settledMatch(shift.match));
      if (decision === 'method' || decision === 'all') shift.method = 'auto';
      if (decision === 'method') return;
      const names = decision === 'all' ? DECISION_NAMES : [decision, GOES_WITH[decision]];
      for (const name of names)
        if (name) Object.assign(shift.match, { [name]: structuredClone(AUTOMATIC_MATCH[name]) });
    }),
  );
}
