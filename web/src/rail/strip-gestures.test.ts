import type { PieceDraft } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { aligned, startChange } from './strip-gestures';

const FRAME = 1 / 60;

describe('strips that are dragged', () => {
  test('go to whole frames where nothing is near', () => {
    expect(aligned(0.504, [1], [9], FRAME, 0.05)).toBeCloseTo(30 / 60, 9);
    expect(aligned(-0.013, [1], [], FRAME, 0.05)).toBeCloseTo(-1 / 60, 9);
  });
  test('meet the nearest end of another bar, off the frames too', () => {
    // Its bars end at 1 and 2 s; another begins at 1.537 s.
    expect(aligned(0.5, [1, 2], [1.537], FRAME, 0.05)).toBeCloseTo(0.537, 9);
    expect(aligned(-0.45, [1, 2], [1.537, 0.56], FRAME, 0.05)).toBeCloseTo(-0.44, 9);
    expect(aligned(0.4, [1, 2], [1.537], FRAME, 0.05)).toBeCloseTo(0.4, 9);
  });
  test('no figure begins before the piece', () => {
    const draft = structuredClone(pieceOf(['M0 0H9V9Z', 'M0 0H9V5Z'])) as PieceDraft;
    draft.figures.f.start = 0.5;
    const later = startChange(draft.figures.f as never, 0.25);
    later.recipe(draft);
    expect([later.name, draft.figures.f.start]).toEqual(['Start Figure at 0.75 s', 0.75]);
    startChange(draft.figures.f as never, -3).recipe(draft);
    expect(draft.figures.f.start).toBe(0);
  });
});
