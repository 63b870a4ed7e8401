import { describe, expect, test } from '@jest/globals';
import { pieceOf, plainText } from '../../testing/pieces';
import type { Part, Piece, Pose } from '../records/records';
import { isTooShort, readingTime } from './reading-time';

/** A piece whose first pose shows a text, or a drawing, held for so long. */
function held(hold: number, content?: string): { piece: Piece; pose: Pose } {
  const base = pieceOf(['M0 0H10V10H0Z']);
  const [id] = base.figures.f.poses;
  const [part] = base.poses[id].parts;
  const glyph: Part = { ...base.parts[part], source: { kind: 'glyph', text: 't', index: 0 } };
  const pose = { ...base.poses[id], hold };
  const piece: Piece = content
    ? { ...base, parts: { [part]: glyph }, texts: { t: plainText(content) }, poses: { [id]: pose } }
    : { ...base, poses: { [id]: pose } };
  return { piece, pose };
}

describe('how long something must stand to be read', () => {
  test('0.3 s and 0.06 s a character, spaces not counted; a drawing is one sign (common practice)', () => {
    const { piece, pose } = held(1, 'NORTH QUAY');
    expect(readingTime(piece, pose)).toEqual({ seconds: 0.84, characters: 9 });
    const sign = held(1);
    expect(readingTime(sign.piece, sign.pose)).toEqual({ seconds: 0.36, characters: 0 });
  });
  test('what is shorter is too short, but for a drawing that is only passed through', () => {
    const of = (hold: number, content?: string): boolean => {
      const { piece, pose } = held(hold, content);
      return isTooShort(piece, pose);
    };
    expect([of(0.83, 'NORTH QUAY'), of(0.84, 'NORTH QUAY'), of(0, 'N')]).toEqual([true, false, true]);
    expect([of(0.2), of(0.36), of(0)]).toEqual([true, false, false]);
  });
});
