import { AUTOMATIC_MATCH, planPoseShift, type ShiftInput, shiftInput } from '@core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { IDBFactory } from 'fake-indexeddb';
import { pieceOf } from '../testing/pieces';
import { PlanShelf, planKey } from './kept-plans';

const piece = pieceOf(['M0 0H10V10H0Z', 'M5 0L10 5L5 10L0 5Z']);
const [shift] = Object.values(piece.shifts);
const input = shiftInput(piece, shift);
const reversed: ShiftInput = { ...input, match: { ...AUTOMATIC_MATCH, direction: 'reversed' } };
const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 30));

let factory: IDBFactory;
let time: number;
let made: string[];
const shelf = (most = 600): PlanShelf => new PlanShelf({ factory, now: () => time++, most });
const make = (of: ShiftInput) => () => {
  made.push(of.match.direction);
  return planPoseShift(of);
};

beforeEach(() => {
  factory = new IDBFactory();
  time = 1;
  made = [];
});

describe('plans kept by content', () => {
  test('are made once and found again, also by whoever opens the piece later', async () => {
    const first = await shelf().plan(input, make(input));
    await settle();
    const again = await shelf().plan(input, make(input));
    expect(made).toEqual(['auto']);
    expect(again.health.verdict).toBe(first.health.verdict);
    expect(again.parts[0].plan.from).toEqual(first.parts[0].plan.from);
    expect(again.parts[0].plan.from).toBeInstanceOf(Float64Array);
  });

  test('another input is another plan', async () => {
    const kept = shelf();
    await kept.plan(input, make(input));
    await settle();
    await kept.plan(reversed, make(reversed));
    expect(made).toEqual(['auto', 'reversed']);
    expect(await planKey(input)).toBe(await planKey(structuredClone(input)));
    expect(await planKey(input)).not.toBe(await planKey(reversed));
    expect(await planKey(input)).toMatch(/^[0-9a-f]{64}$/);
  });

  test('when there are too many, those that were not used for longest go', async () => {
    const kept = shelf(3);
    const inputs = [2, 3, 4, 5, 6].map((smoothing) => ({ ...input, match: { ...AUTOMATIC_MATCH, smoothing } }));
    for (const of of inputs) {
      await kept.plan(of, () => planPoseShift(of));
      await settle();
    }
    made = [];
    await kept.plan(inputs[4], make(inputs[4]));
    expect(made).toEqual([]);
    await kept.plan(inputs[0], make(inputs[0]));
    expect(made).toEqual(['auto']);
  });

  test('one that is used again is kept for longer', async () => {
    const kept = shelf(3);
    const inputs = [2, 3, 4, 5].map((smoothing) => ({ ...input, match: { ...AUTOMATIC_MATCH, smoothing } }));
    for (const of of inputs.slice(0, 3)) {
      await kept.plan(of, () => planPoseShift(of));
      await settle();
    }
    await kept.plan(inputs[0], make(inputs[0]));
    await settle();
    await kept.plan(inputs[3], () => planPoseShift(inputs[3]));
    await settle();
    made = [];
    await kept.plan(inputs[0], make(inputs[0]));
    expect(made).toEqual([]);
    await kept.plan(inputs[1], make(inputs[1]));
    expect(made).toEqual(['auto']);
  });

  test('a refusal of the engine is told and nothing is kept', async () => {
    const kept = shelf();
    const refuse = (): never => {
      throw new Error('Expected two outlines; found none.');
    };
    await expect(kept.plan(input, refuse)).rejects.toThrow('Expected two outlines');
    await kept.plan(input, make(input));
    expect(made).toEqual(['auto']);
  });

  test('without a database, or with one that cannot be opened, plans are made each time', async () => {
    const none = new PlanShelf({ factory: undefined, now: () => 0, most: 5 });
    await none.plan(input, make(input));
    await none.plan(input, make(input));
    expect(made).toHaveLength(2);
    const shut = {
      open: () => {
        throw new DOMException('The user denied storage.', 'SecurityError');
      },
    } as unknown as IDBFactory;
    const denied = new PlanShelf({ factory: shut, now: () => 0, most: 5 });
    await denied.plan(input, make(input));
    expect(made).toHaveLength(3);
  });
});
