import { type ContourRecord, planPoseShift, type ShiftInput, shiftInput } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { planInPortions } from './plan-in-portions';
import { contoursOf, skeletonOf, wholeInput } from './shift-portions';

const RINGS = 'M0 0H40V40H0ZM10 10V30H30V10Z';
const BARS = 'M0 0H10V40H0ZM30 0H40V40H30ZM15 0H25V40H15Z';
const piece = pieceOf([RINGS, BARS]);
const input = shiftInput(piece, Object.values(piece.shifts)[0]);

describe('the input of a shift in portions', () => {
  test('its contours and what is left of it make the same input again, shifts in step with it too', () => {
    const { inStep: _none, ...own } = input;
    const both = { ...input, inStep: [{ below: true, shift: { ...own, from: own.to, to: own.from } }] };
    const contours = contoursOf(both);
    expect(contours).toHaveLength(2 * (2 + 3));
    const skeleton = skeletonOf(both);
    expect(contoursOf(skeleton.input)).toEqual([]);
    expect(wholeInput(structuredClone(skeleton), structuredClone(contours))).toEqual(both);
  });
  test('and so the same plan', () => {
    const again = wholeInput(skeletonOf(input), contoursOf(input));
    expect(planPoseShift(again)).toEqual(planPoseShift(input));
  });
});

describe('planning in portions', () => {
  /** An engine that keeps what it gets. */
  function engine() {
    const seen: { planned: ShiftInput[]; portions: number[] } = { planned: [], portions: [] };
    const taken: ContourRecord[] = [];
    const planned = planPoseShift(input);
    const plan = async (whole: ShiftInput) => {
      seen.planned.push(whole);
      return planned;
    };
    const calls: Parameters<typeof planInPortions>[0] = {
      planShift: (whole) => plan(whole),
      takePortion: async (_token, contours) => {
        seen.portions.push(contours.length);
        taken.push(...contours);
      },
      planPortions: (_token, skeleton) => plan(wholeInput(skeleton, taken)),
    };
    return { calls, seen };
  }

  test('an input of some contours is sent as it is', async () => {
    const { calls, seen } = engine();
    await planInPortions(calls, input);
    expect(seen.portions).toEqual([]);
    expect(seen.planned[0]).toBe(input);
  });
  test('one of thousands in portions of a thousand, and is planned whole', async () => {
    const squares = Array.from({ length: 1_200 }, (_, i) => `M${9 * i} 0h5v5h-5Z`).join('');
    const many = pieceOf([squares, squares]);
    const large = shiftInput(many, Object.values(many.shifts)[0]);
    const { calls, seen } = engine();
    await planInPortions(calls, large);
    expect(seen.portions).toEqual([1_000, 1_000, 400]);
    expect(seen.planned).toEqual([large]);
  });
});
