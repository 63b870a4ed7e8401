import { describe, expect, test } from '@jest/globals';
import { CORE_ERROR_CODES, CoreError } from '../../errors';
import { realIcons } from '../../testing/icons';
import { mutateText } from '../../testing/mutate-text';
import { faultOfArrival, GRADIENT_DRAWING } from '../../testing/probe-svg';

const SEEDS = 300;

describe('spoiled drawings', () => {
  test(`${SEEDS} of them: refused with a code, or become a piece that can be stored, is drawn in finite numbers and comes back equal`, () => {
    const originals = [GRADIENT_DRAWING, ...realIcons(30).map(({ svg }) => svg)];
    let taken = 0;
    for (let seed = 1; seed <= SEEDS; seed++) {
      try {
        expect(faultOfArrival(mutateText(originals[seed % originals.length], seed))).toBeUndefined();
        taken++;
      } catch (error) {
        if (!(error instanceof CoreError)) throw error;
        expect(CORE_ERROR_CODES).toContain(error.code);
        expect(error.message.length).toBeGreaterThan(20);
      }
    }
    expect(taken).toBeGreaterThan(SEEDS / 4);
    expect(taken).toBeLessThan(SEEDS);
  });
});
