import { describe, expect, test } from '@jest/globals';
import { readPathData } from '../../svg';
import { countedIds, drawnPose, pieceOf, plainText } from '../../testing/pieces';
import { addFigure, insertPoses, type PieceDraft } from '../edit/edit';
import { setText } from '../edit/edit-outline';
import type { Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { letterBoxAt, letterBoxes } from './letter-boxes';
import { keepLetterPlaces } from './letter-places';

const SQUARE = 'M0 0H10V10H0Z';
const draftOf = (...ds: string[]): PieceDraft => structuredClone(pieceOf(ds)) as PieceDraft;

/** Ids that nothing else has. */
const fresh = (stem: string) => {
  const newId = countedIds();
  return (prefix: string): string => `${stem}-${newId(prefix)}`;
};

describe('the place of a letter', () => {
  test('any number of spaces between two letters of a line are one gap; at the ends and between lines there is none', () => {
    const draft = draftOf(SQUARE);
    const poseId = draft.figures.f.poses[0];
    draft.poses[poseId].placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
    const glyph = (index: number, x: number) => ({ index, character: 'l', outline: readPathData(`M${x} 0h8v10h-8z`) });
    const newId = countedIds();
    const text = plainText(' l   l \nl');
    setText(draft, poseId, text, [glyph(1, 10), glyph(5, 60), glyph(8, 0)], { fill: '#000000', stroke: null }, newId);
    const { piece, pose } = { piece: draft as Piece, pose: (draft as Piece).poses[poseId] };
    const gaps = letterBoxes(piece, pose).filter(({ character }) => character === ' ');
    expect(gaps).toEqual([{ text: 't', index: 2, character: ' ', box: { minX: 18, maxX: 60, minY: 0, maxY: 10 } }]);
    for (const index of [2, 3, 4]) expect(letterBoxAt(piece, pose, 't', index)).toEqual(gaps[0]);
    expect([letterBoxAt(piece, pose, 't', 0), letterBoxAt(piece, pose, 't', 6)]).toEqual([undefined, undefined]);
  });

  test('what is fitted to a letter or a gap follows it when the text is changed, and stays when it is gone', () => {
    const word = (content: string): Piece => {
      const draft = draftOf(SQUARE);
      const poseId = draft.figures.f.poses[0];
      draft.poses[poseId].placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
      const glyphs = [...content].flatMap((character, index) =>
        character === ' ' ? [] : [{ index, character, outline: readPathData(`M${10 * index} 0h8v10h-8z`) }],
      );
      setText(draft, poseId, plainText(content), glyphs, { fill: '#000000', stroke: null }, fresh('letter'));
      addFigure(draft, 'g', 'Sign');
      const rule = { centre: 'box', fit: 'longest', to: 'box', box: [18, 0, 12, 10] } as const;
      const sign = drawnPose(SQUARE, fresh('sign'));
      const placement = {
        x: 0,
        y: 0,
        scaleX: 1,
        scaleY: 1,
        rotation: 0,
        rule: { ...rule, letter: { text: 't', index: 2 } },
      };
      insertPoses(draft, 'g', [{ ...sign, pose: { ...sign.pose, placement } }], countedIds());
      return draft as Piece;
    };
    const boxAfter = (from: string, to: string) => {
      const after = word(to);
      const [placement] = keepLetterPlaces(word(from), after).values();
      return placement?.rule && [placement.rule.letter?.index, placement.rule.box?.[0], placement.rule.box?.[2]];
    };
    expect(() => checkPiece(JSON.parse(JSON.stringify(word('FE RY'))))).not.toThrow();
    // As it is: nothing to do.
    expect(boxAfter('FE RY', 'FE RY')).toBeUndefined();
    expect(boxAfter('FE RY', 'FE  RY')).toEqual([2, 18, 22]);
    expect(boxAfter('FE RY', 'MY FE RY')).toEqual([5, 48, 12]);
    expect(boxAfter('FE RY', 'FE RYS')).toBeUndefined();
    expect(boxAfter('FER', 'XFER')).toEqual([3, 30, 8]);
    expect(boxAfter('FERRY', 'FY')).toBeUndefined();
    // An earlier line changes, or goes, also where the same letters stand before and behind the change.
    expect(boxAfter('A\nB', 'AA\nB')).toEqual([3, 30, 8]);
    expect(boxAfter('A\nA', 'A')).toEqual([0, 0, 8]);
    expect(boxAfter('A\nAB', 'AB')).toEqual([0, 0, 8]);
    // It stands in the middle of its box.
    const placement = [...keepLetterPlaces(word('FE RY'), word('MY FE RY')).values()][0];
    expect([placement.x + 5 * placement.scaleX, placement.y + 5 * placement.scaleY]).toEqual([54, 5]);
  });
});
