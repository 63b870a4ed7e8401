import { CoreError, checkPiece, type Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { mutateJson } from '../../../core/src/testing/mutate-json';
import { badNumberOf } from '../../../core/src/testing/probe-piece';
import { boardingButton } from './boarding-button';
import { gate } from './gate';
import { pierLetters } from './pier-letters';
import { quayMark } from './quay-mark';
import { tideGauge } from './tide-gauge';

const SEEDS = 150;
/** Of so many that are accepted the frames are drawn too; the rest only goes out and in again. */
const DRAWN = 12;
const MAKERS = [gate, boardingButton, quayMark, tideGauge, pierLetters];

describe('spoiled piece files', () => {
  test(`${SEEDS} of them: refused with code and path, or drawn in finite numbers and equal when they come back`, () => {
    const refused: string[] = [];
    const accepted: Piece[] = [];
    for (let seed = 1; seed <= SEEDS; seed++) {
      const spoiled = mutateJson(MAKERS[seed % MAKERS.length](), seed);
      try {
        accepted.push(checkPiece(spoiled));
      } catch (error) {
        expect(error).toBeInstanceOf(CoreError);
        const { code, message, where } = error as CoreError;
        expect(['piece-invalid', 'piece-version']).toContain(code);
        expect(where).toMatch(/^\//);
        refused.push(message);
      }
    }
    // Neither is the check so strict that nothing passes, nor so lax that everything does.
    expect(refused.length).toBeGreaterThan(SEEDS / 3);
    expect(accepted.length).toBeGreaterThan(SEEDS / 5);
    for (const [i, piece] of accepted.entries()) {
      // Text against text: JSON knows no −0.
      expect(JSON.stringify(checkPiece(JSON.parse(JSON.stringify(piece))))).toBe(JSON.stringify(piece));
      if (i < DRAWN && piece.id !== 'demo-pier-letters') expect(badNumberOf(piece)).toBeUndefined();
    }
  });

  test('the drawing test itself notices a number that is none', () => {
    const piece = gate();
    const [shift] = Object.keys(piece.shifts);
    const spoiled = {
      ...piece,
      shifts: { ...piece.shifts, [shift]: { ...piece.shifts[shift], duration: Number.NaN } },
    };
    expect(badNumberOf(spoiled)).toBeDefined();
  });
});
