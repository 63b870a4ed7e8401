import { type Piece, planPoseShift, type ShiftInput } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { type Planner, PlanStore } from './plan-store';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const piece = pieceOf([SQUARE, DIAMOND, SQUARE]);
const [first, second] = piece.figures.f.rail;
const reversed = (p: Piece): Piece => ({
  ...p,
  shifts: { ...p.shifts, [first]: { ...p.shifts[first], match: { ...p.shifts[first].match, direction: 'reversed' } } },
});
const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

/** Planners that answer when they are told to. */
function slowPlanner(count = 1) {
  const asked: {
    input: ShiftInput;
    answer: () => void;
    fail: (message: string) => void;
    advance: (share: number) => void;
  }[] = [];
  let cancelled = 0;
  const planner: Planner = {
    plan: (input, advance) =>
      new Promise((resolve, reject) =>
        asked.push({
          input,
          answer: () => resolve(planPoseShift(input)),
          fail: (message) => reject(new Error(message)),
          advance,
        }),
      ),
    cancel: () => {
      cancelled++;
      asked[asked.length - 1].fail('Cancelled.');
    },
  };
  return {
    asked,
    store: new PlanStore(Array.from({ length: count }, () => ({ ...planner }))),
    cancelled: () => cancelled,
  };
}

describe('plans of the open piece', () => {
  test('come one after another and are found by their shift', async () => {
    const { asked, store } = slowPlanner();
    store.update(piece);
    expect([...store.statuses().values()].map(({ pending }) => pending)).toEqual([true, true]);
    expect(asked).toHaveLength(1);
    asked[0].answer();
    await settle();
    expect(store.planOf(piece.shifts[first])?.parts).toHaveLength(1);
    expect(store.planOf(piece.shifts[second])).toBeUndefined();
    asked[1].answer();
    await settle();
    expect([...store.statuses().values()].some(({ pending }) => pending)).toBe(false);
  });

  test('several planners work side by side, each at a shift of its own', async () => {
    const { asked, store } = slowPlanner(2);
    store.update(piece);
    expect(asked).toHaveLength(2);
    expect(asked[0].input.from).not.toEqual(asked[1].input.from);
    asked[1].answer();
    await settle();
    expect([first, second].map((id) => store.planOf(piece.shifts[id]) !== undefined)).toEqual([false, true]);
    asked[0].answer();
    await settle();
    expect(store.planOf(piece.shifts[first])).toBeDefined();
    expect(asked).toHaveLength(2);
  });

  test('recolouring asks for nothing, whatever is under way', async () => {
    const { asked, store } = slowPlanner();
    store.update(piece);
    for (let i = 0; i < 2; i++) {
      asked[i].answer();
      await settle();
    }
    const [part] = Object.values(piece.parts);
    const plan = store.planOf(piece.shifts[first]);
    for (let i = 0; i < 5; i++)
      store.update({ ...piece, parts: { ...piece.parts, [part.id]: { ...part, fill: `#00000${i}` } } });
    expect(asked).toHaveLength(2);
    expect(store.planOf(piece.shifts[first])).toBe(plan);
  });

  test('an outdated answer is dropped, an outdated request is never sent', async () => {
    const { asked, store } = slowPlanner();
    store.update(piece);
    store.update(reversed(piece));
    asked[0].answer();
    await settle();
    expect(store.planOf(reversed(piece).shifts[first])).toBeUndefined();
    for (let i = 1; i < 4; i++) {
      asked[i]?.answer();
      await settle();
    }
    expect(asked.map(({ input }) => input.match.direction)).toEqual(['auto', 'auto', 'reversed']);
    expect(store.planOf(reversed(piece).shifts[first])).toBeDefined();
  });

  test('a change of timing needs no new plan; undoing brings the old one back at once', async () => {
    const { asked, store } = slowPlanner();
    store.update(piece, second);
    for (let i = 0; i < 2; i++) {
      asked[i].answer();
      await settle();
    }
    store.update({ ...piece, shifts: { ...piece.shifts, [first]: { ...piece.shifts[first], duration: 5 } } });
    expect(asked).toHaveLength(2);
    store.update(reversed(piece));
    expect(store.planOf(piece.shifts[first])).toBeUndefined();
    store.update(piece);
    expect(store.planOf(piece.shifts[first])).toBeDefined();
  });

  test('a failure is told and does not stop the others; what is gone is forgotten', async () => {
    const { asked, store } = slowPlanner();
    let told = 0;
    store.subscribe(() => told++);
    store.update(piece);
    asked[0].fail('no way');
    await settle();
    asked[1].answer();
    await settle();
    expect(store.statuses().get(first)).toMatchObject({ pending: false, failed: 'no way' });
    expect(store.planOf(piece.shifts[second])).toBeDefined();
    const before = store.statuses();
    store.update(pieceOf([SQUARE]));
    expect(store.statuses()).not.toBe(before);
    expect(store.statuses().size).toBe(0);
    expect(told).toBeGreaterThan(2);
  });

  test('the progress of the plan under way is told, and gone when it is there', async () => {
    const { asked, store } = slowPlanner();
    store.update(piece);
    expect(store.progressOf(first)).toBeUndefined();
    let [told, progressed] = [0, 0];
    store.subscribe(() => told++);
    store.onProgress(() => progressed++);
    asked[0].advance(0.4);
    // Whoever paints or lays out is not told: nothing of the picture has changed.
    expect([told, progressed, store.progressOf(first), store.progressOf(second)]).toEqual([0, 1, 0.4, undefined]);
    asked[0].answer();
    await settle();
    expect([told, store.progressOf(first)]).toEqual([1, undefined]);
  });

  test('a plan that is outdated while it is under way is ended, and the next is made', async () => {
    const { asked, store, cancelled } = slowPlanner();
    store.update(piece, first);
    store.update(reversed(piece), first);
    asked[0].advance(0.9);
    expect(store.progressOf(first)).toBeUndefined();
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(cancelled()).toBe(1);
    expect(asked[1].input.match.direction).toBe('reversed');
    expect(store.statuses().get(first)).toMatchObject({ pending: true, failed: undefined });
    asked[1].answer();
    await settle();
    expect(store.planOf(reversed(piece).shifts[first])).toBeDefined();
  });

  test('one that comes at once after it was outdated ends nothing; nor does a change elsewhere', async () => {
    const { asked, store, cancelled } = slowPlanner();
    store.update(piece);
    store.update({ ...piece, name: 'Other' });
    store.update(reversed(piece));
    asked[0].answer();
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(cancelled()).toBe(0);
  });
});
