import { describe, expect, test } from '@jest/globals';
import { CORE_ERROR_CODES, CoreError } from '../errors';
import { readSvg } from '../svg';
import { realIcons } from '../testing/icons';
import { mutateText } from '../testing/mutate-text';
import { countedIds } from '../testing/pieces';
import { posesOfArrival } from './arrive';
import { checkPiece, findingOfChange } from './check-piece';
import { emptyPiece } from './defaults';
import { addFigure, insertPoses, type PieceDraft } from './edit';
import type { Piece } from './records';
import { storableReading } from './storable';

const SEEDS = 150;
const GRADIENT =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><defs><linearGradient id="a"><stop offset="0" stop-color="red"/><stop offset="1" stop-color="blue" stop-opacity=".5"/></linearGradient><clipPath id="c"><circle cx="9" cy="9" r="5"/></clipPath></defs><g transform="translate(2 3) rotate(30)" stroke="green" stroke-dasharray="2 1"><rect x="2" y="3" width="9" height="7" rx="2" fill="url(#a)"/><path clip-path="url(#c)" d="M2 3A5 4 20 0 1 9 9L3 9Z"/></g></svg>';

describe('spoiled drawings', () => {
  test(`${SEEDS} of them: refused with a code, or become a piece that can be stored and comes back equal`, () => {
    const originals = [GRADIENT, ...realIcons(30).map(({ svg }) => svg)];
    let taken = 0;
    for (let seed = 1; seed <= SEEDS; seed++) {
      const text = mutateText(originals[seed % originals.length], seed);
      const newId = countedIds();
      try {
        const files = [{ name: 'Spoiled', reading: storableReading(readSvg(text)) }];
        const empty = emptyPiece('test', 'Test');
        const draft = structuredClone(empty) as PieceDraft;
        addFigure(draft, 'f', 'Figure');
        insertPoses(draft, 'f', posesOfArrival(files, 'parts', null, newId), newId);
        const piece = draft as Piece;
        expect(findingOfChange(empty, piece)).toBeUndefined();
        expect(checkPiece(JSON.parse(JSON.stringify(piece)))).toEqual(JSON.parse(JSON.stringify(piece)));
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
