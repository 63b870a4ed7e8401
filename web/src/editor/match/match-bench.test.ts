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
import { MatchBench, matchedShift } from './match-bench';

const SQUARE = 'M0 0H100V100H0Z';
const DIAMOND = 'M50 0L100 50L50 100L0 50Z';
const BAR = 'M0 40H100V60H0Z';
const piece = pieceOf([SQUARE, DIAMOND, BAR]);
const [first, second] = piece.figures.f.rail;
const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 5));

let store: AppStore;
let plans: PlanStore;
let clock: PlaybackClock;
let bench: MatchBench;
/** Quick answers that were asked for, to be given when the test says so. */
let asked: { input: ShiftInput; answer: () => void; fail: () => void }[];
const planned: PlannedParts[] = [];
/** Full answers that were asked for, and how many were ended. */
let rested: { input: ShiftInput; answer: () => PoseShiftPlan }[];
let ended: number;

beforeEach(async () => {
  store = createStore();
  store.dispatch(documentActions.opened({ piece, revision: 1 }));
  plans = new PlanStore({ plan: async (input) => planPoseShift(input), cancel: () => {} });
  clock = new PlaybackClock({ now: () => 0, requestFrame: () => 1, cancelFrame: () => {} });
  asked = [];
  planned.length = 0;
  rested = [];
  ended = 0;
  bench = new MatchBench({
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
  bench.destroy();
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
    bench.change({ waiting: 'a' });
    const before = bench.snapshot().plan;
    select(second);
    expect(bench.current()?.shift.id).toBe(second);
    expect(bench.snapshot().plan).not.toBe(before);
    expect(bench.snapshot().waiting).toBeNull();
    expect(bench.shown).toBe(bench.snapshot().plan);
  });

  test('outlines of both poses, where they stand', () => {
    const [a] = bench.parts('a');
    const [b] = bench.parts('b');
    expect(a.part.id).toBe(piece.poses[piece.shifts[first].from].parts[0]);
    expect(b.part.id).toBe(piece.poses[piece.shifts[first].to].parts[0]);
  });
});

describe('trying out while something is dragged', () => {
  const reversed = { ...AUTOMATIC_MATCH, direction: 'reversed' } as const;
  const same = { ...AUTOMATIC_MATCH, direction: 'same' } as const;

  test('the newest question is answered, those in between are never asked', async () => {
    bench.tryOut(reversed);
    bench.tryOut(same);
    bench.tryOut(reversed);
    bench.tryOut(same);
    expect(asked.map(({ input }) => input.match.direction)).toEqual(['reversed']);
    asked[0].answer();
    await settle();
    expect(asked.map(({ input }) => input.match.direction)).toEqual(['reversed', 'same']);
    asked[1].answer();
    await settle();
    expect(asked).toHaveLength(2);
    expect(bench.shown).toBe(planned[1]);
  });

  test('the pictures follow before the gesture ends; afterwards what the piece holds', async () => {
    const full = bench.shown;
    let painted = 0;
    bench.onPaint(() => painted++);
    bench.tryOut(reversed);
    asked[0].answer();
    await settle();
    expect(bench.shown).toBe(planned[0]);
    expect(painted).toBeGreaterThan(0);
    bench.settle();
    expect(bench.shown).toBe(full);
  });

  test('an answer that comes after the gesture has ended changes nothing; a refusal keeps the last picture', async () => {
    const full = bench.shown;
    bench.tryOut(reversed);
    bench.settle();
    asked[0].answer();
    await settle();
    expect(bench.shown).toBe(full);
    bench.tryOut(same);
    asked[1].fail();
    await settle();
    expect(bench.shown).toBe(full);
    // The next question is asked all the same.
    bench.tryOut(reversed);
    expect(asked).toHaveLength(3);
  });
});

describe('when the hand rests', () => {
  const reversed = { ...AUTOMATIC_MATCH, direction: 'reversed' } as const;
  const rest = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 130));

  test('the full answer is asked for once, shown with its health, and stays until the piece has its own', async () => {
    bench.tryOut(reversed);
    asked[0].answer();
    await rest();
    expect(rested.map(({ input }) => input.match.direction)).toEqual(['reversed']);
    const full = rested[0].answer();
    await settle();
    expect(bench.shown).toBe(full);
    expect(bench.snapshot().tried).toBe(full);
    store.dispatch(changePiece('Reverse', (draft) => void (draft.shifts[first].match.direction = 'reversed')));
    plans.update(store.getState().document.piece as Piece);
    bench.settle();
    expect(bench.snapshot()).toMatchObject({ pending: true, tried: full });
    await settle();
    expect(bench.snapshot()).toMatchObject({ pending: false, tried: undefined });
  });

  test('one that moves on asks nothing in full, and ends what was asked', async () => {
    bench.tryOut(reversed);
    asked[0].answer();
    await settle();
    bench.tryOut(AUTOMATIC_MATCH);
    asked[1].answer();
    await rest();
    expect(rested).toHaveLength(1);
    const before = ended;
    bench.tryOut(reversed);
    expect(ended).toBe(before + 1);
    rested[0].answer();
    await settle();
    expect(bench.snapshot().tried).toBeUndefined();
  });

  test('a gesture that is left takes the health of the trial with it', async () => {
    bench.tryOut(reversed);
    asked[0].answer();
    await rest();
    rested[0].answer();
    await settle();
    expect(bench.snapshot().tried).toBeDefined();
    bench.settle();
    expect(bench.snapshot().tried).toBeUndefined();
    expect(bench.shown).toBe(bench.snapshot().plan);
  });
});

describe('what React draws', () => {
  test('is the same object until something changes', async () => {
    const before = bench.snapshot();
    store.dispatch(changePiece('Rename', (draft) => void (draft.name = 'Other')));
    expect(bench.snapshot()).toBe(before);
    let told = 0;
    const stop = bench.subscribe(() => told++);
    bench.change({ numbers: true });
    expect(bench.snapshot()).toMatchObject({ numbers: true, tool: 'tie' });
    expect(told).toBe(1);
    stop();
    bench.change({ numbers: false });
    expect(told).toBe(1);
  });

  test('while the full plan is on its way the last one stays, and that is told', async () => {
    const before = bench.snapshot().plan;
    store.dispatch(changePiece('Reverse', (draft) => void (draft.shifts[first].match.direction = 'reversed')));
    plans.update(store.getState().document.piece as Piece);
    expect(bench.snapshot()).toMatchObject({ pending: true, plan: before });
    await settle();
    expect(bench.snapshot().pending).toBe(false);
    expect(bench.snapshot().plan).not.toBe(before);
  });

  test('another tool forgets a tie that was begun', () => {
    bench.change({ waiting: 'b' });
    bench.change({ tool: 'cut' });
    expect(bench.snapshot()).toMatchObject({ tool: 'cut', waiting: null });
  });
});

describe('progress of the in-between', () => {
  test('stays in its bounds', () => {
    bench.setProgress(-3);
    expect(bench.progress).toBe(0);
    bench.setProgress(7);
    expect(bench.progress).toBe(1);
  });

  test('follows the clock inside the shift, through its easing', () => {
    const { hold } = piece.poses[piece.shifts[first].from];
    const { duration } = piece.shifts[first];
    clock.setRange({ duration: 10, loop: false, rate: 60 });
    clock.seek(hold + duration / 2);
    const eased = bench.progress;
    expect(eased).toBeGreaterThan(0.5);
    // In the hold before it nothing moves.
    clock.seek(hold / 2);
    expect(bench.progress).toBe(eased);
    clock.seek(hold);
    expect(bench.progress).toBe(0);
  });
});
