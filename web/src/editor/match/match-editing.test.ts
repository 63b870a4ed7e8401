import {
  AUTOMATIC_MATCH,
  type Piece,
  type PlannedParts,
  type PoseShiftPlan,
  planPoseShift,
  previewPoseShift,
  type ShiftInput,
} from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { type AppStore, changePiece, createStore, documentActions, sessionActions } from '../../state';
import { pieceOf } from '../../testing/pieces';
import { PlanStore } from '../plans/plan-store';
import { PlaybackClock } from '../playback/clock';
import { MatchEditing, matchedShift } from './match-editing';

const SQUARE = 'M0 0H100V100H0Z';
const DIAMOND = 'M50 0L100 50L50 100L0 50Z';
const BAR = 'M0 40H100V60H0Z';
const PLACE = { anchor: 'a1' };
const piece = pieceOf([SQUARE, DIAMOND, BAR]);
const [first, second] = piece.figures.f.rail;
const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 5));

let store: AppStore;
let plans: PlanStore;
let clock: PlaybackClock;
let editing: MatchEditing;
/** Quick answers that were asked for, to be given when the test says so. */
let asked: { input: ShiftInput; answer: () => void; fail: () => void }[];
const planned: PlannedParts[] = [];
/** Full answers that were asked for, and how many were ended. */
let rested: { input: ShiftInput; answer: () => PoseShiftPlan }[];
let ended: number;

beforeEach(async () => {
  store = createStore();
  store.dispatch(documentActions.opened({ piece, revision: 1 }));
  plans = new PlanStore([{ plan: async (input) => planPoseShift(input), cancel: () => {} }]);
  clock = new PlaybackClock({ now: () => 0, requestFrame: () => 1, cancelFrame: () => {} });
  asked = [];
  planned.length = 0;
  rested = [];
  ended = 0;
  editing = new MatchEditing({
    store,
    plans,
    clock,
    quick: (input) =>
      new Promise((resolve, reject) =>
        asked.push({
          input,
          answer: () => {
            planned.push(previewPoseShift(input));
            resolve(planned[planned.length - 1]);
          },
          fail: () => reject(new Error('no')),
        }),
      ),
    full: (input) =>
      new Promise((resolve) =>
        rested.push({
          input,
          answer: () => {
            const plan = planPoseShift(input);
            resolve(plan);
            return plan;
          },
        }),
      ),
    cancelFull: () => ended++,
  });
  plans.update(piece);
  await settle();
});
afterEach(() => {
  editing.destroy();
  plans.destroy();
});

const select = (shiftId: string): void =>
  void store.dispatch(sessionActions.selected({ kind: 'shift', figureId: 'f', shiftId }));

describe('which shift the room is about', () => {
  test('the chosen one, the one that leaves the chosen pose, else the first', () => {
    expect(matchedShift(piece, null)?.id).toBe(first);
    expect(matchedShift(piece, { kind: 'shift', figureId: 'f', shiftId: second })?.id).toBe(second);
    expect(matchedShift(piece, { kind: 'stop', figureId: 'f', stop: 1 })?.id).toBe(second);
    // No shift leaves the last pose: the one that reaches it.
    expect(matchedShift(piece, { kind: 'stop', figureId: 'f', stop: 2 })?.id).toBe(second);
    expect(matchedShift(pieceOf([SQUARE]), null)).toBeUndefined();
  });

  test('another one chosen is another plan at once, and a tie that was begun is forgotten', () => {
    editing.change({ waiting: { side: 'a', place: PLACE }, lit: { side: 'a', contour: 'c' } });
    const before = editing.snapshot().plan;
    select(second);
    expect(editing.current()?.shift.id).toBe(second);
    expect(editing.snapshot().plan).not.toBe(before);
    expect(editing.snapshot()).toMatchObject({ waiting: null, lit: null });
    expect(editing.shown).toBe(editing.snapshot().plan);
  });

  test('outlines of both poses, where they stand', () => {
    const [a] = editing.parts('a');
    const [b] = editing.parts('b');
    expect(a.part.id).toBe(piece.poses[piece.shifts[first].from].parts[0]);
    expect(b.part.id).toBe(piece.poses[piece.shifts[first].to].parts[0]);
  });
});

describe('trying out while something is dragged', () => {
  const reversed = { ...AUTOMATIC_MATCH, direction: 'reversed' } as const;
  const same = { ...AUTOMATIC_MATCH, direction: 'same' } as const;

  test('the newest question is answered, those in between are never asked', async () => {
    editing.tryOut(reversed);
    editing.tryOut(same);
    editing.tryOut(reversed);
    editing.tryOut(same);
    expect(asked.map(({ input }) => input.match.direction)).toEqual(['reversed']);
    asked[0].answer();
    await settle();
    expect(asked.map(({ input }) => input.match.direction)).toEqual(['reversed', 'same']);
    asked[1].answer();
    await settle();
    expect(asked).toHaveLength(2);
    expect(editing.shown).toBe(planned[1]);
  });

  test('the pictures follow before the gesture ends; afterwards what the piece holds', async () => {
    const full = editing.shown;
    let painted = 0;
    editing.onPaint(() => painted++);
    editing.tryOut(reversed);
    asked[0].answer();
    await settle();
    expect(editing.shown).toBe(planned[0]);
    expect(painted).toBeGreaterThan(0);
    editing.settle();
    expect(editing.shown).toBe(full);
  });

  test('an answer that comes after the gesture has ended changes nothing; a refusal keeps the last picture', async () => {
    const full = editing.shown;
    editing.tryOut(reversed);
    editing.settle();
    asked[0].answer();
    await settle();
    expect(editing.shown).toBe(full);
    editing.tryOut(same);
    asked[1].fail();
    await settle();
    expect(editing.shown).toBe(full);
    // The next question is asked all the same.
    editing.tryOut(reversed);
    expect(asked).toHaveLength(3);
  });
});

describe('when the hand rests', () => {
  const reversed = { ...AUTOMATIC_MATCH, direction: 'reversed' } as const;
  const rest = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 130));

  test('the full answer is asked for once, shown with its health, and stays until the piece has its own', async () => {
    editing.tryOut(reversed);
    asked[0].answer();
    await rest();
    expect(rested.map(({ input }) => input.match.direction)).toEqual(['reversed']);
    const full = rested[0].answer();
    await settle();
    expect(editing.shown).toBe(full);
    expect(editing.snapshot().tried).toBe(full);
    store.dispatch(changePiece('Reverse', (draft) => void (draft.shifts[first].match.direction = 'reversed')));
    plans.update(store.getState().document.piece as Piece);
    editing.settle();
    expect(editing.snapshot()).toMatchObject({ pending: true, tried: full });
    await settle();
    expect(editing.snapshot()).toMatchObject({ pending: false, tried: undefined });
  });

  test('one that moves on asks nothing in full, and ends what was asked', async () => {
    editing.tryOut(reversed);
    asked[0].answer();
    await settle();
    editing.tryOut(AUTOMATIC_MATCH);
    asked[1].answer();
    await rest();
    expect(rested).toHaveLength(1);
    const before = ended;
    editing.tryOut(reversed);
    expect(ended).toBe(before + 1);
    rested[0].answer();
    await settle();
    expect(editing.snapshot().tried).toBeUndefined();
  });

  test('a gesture that is left takes the health of the trial with it', async () => {
    editing.tryOut(reversed);
    asked[0].answer();
    await rest();
    rested[0].answer();
    await settle();
    expect(editing.snapshot().tried).toBeDefined();
    editing.settle();
    expect(editing.snapshot().tried).toBeUndefined();
    expect(editing.shown).toBe(editing.snapshot().plan);
  });
});

describe('what React draws', () => {
  test('is the same object until something changes', async () => {
    const before = editing.snapshot();
    store.dispatch(changePiece('Rename', (draft) => void (draft.name = 'Other')));
    expect(editing.snapshot()).toBe(before);
    let told = 0;
    const stop = editing.subscribe(() => told++);
    editing.change({ numbers: true });
    expect(editing.snapshot()).toMatchObject({ numbers: true, tool: 'tie' });
    expect(told).toBe(1);
    stop();
    editing.change({ numbers: false });
    expect(told).toBe(1);
  });

  test('while the full plan is on its way the last one stays, and that is told', async () => {
    const before = editing.snapshot().plan;
    store.dispatch(changePiece('Reverse', (draft) => void (draft.shifts[first].match.direction = 'reversed')));
    plans.update(store.getState().document.piece as Piece);
    expect(editing.snapshot()).toMatchObject({ pending: true, plan: before });
    await settle();
    expect(editing.snapshot().pending).toBe(false);
    expect(editing.snapshot().plan).not.toBe(before);
  });

  test('another tool forgets a tie that was begun', () => {
    editing.change({ waiting: { side: 'b', place: PLACE } });
    editing.change({ tool: 'cut' });
    expect(editing.snapshot()).toMatchObject({ tool: 'cut', waiting: null });
  });
});

describe('progress of the in-between', () => {
  test('stays in its bounds', () => {
    editing.setProgress(-3);
    expect(editing.progress).toBe(0);
    editing.setProgress(7);
    expect(editing.progress).toBe(1);
  });

  test('follows the clock inside the shift, through its easing', () => {
    const { hold } = piece.poses[piece.shifts[first].from];
    const { duration } = piece.shifts[first];
    clock.setRange({ duration: 10, playback: 'once', stretch: [0, 10], rate: 60 });
    clock.seek(hold + duration / 2);
    const eased = editing.progress;
    expect(eased).toBeGreaterThan(0.5);
    // In the hold before it nothing moves.
    clock.seek(hold / 2);
    expect(editing.progress).toBe(eased);
    clock.seek(hold);
    expect(editing.progress).toBe(0);
  });
});
