import type { Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { pieceText } from './piece-text';

describe('a piece as JSON', () => {
  test('is what JSON.stringify gives, character for character', () => {
    const piece = pieceOf(['M0 0H10V10H0Z', 'M0 0H20L10 8Z']);
    const odd: Piece = { ...piece, name: 'A "quoted" \\ name\n', parts: { ...piece.parts } };
    for (const each of [piece, odd, { ...piece, parts: {} }]) expect(pieceText(each)).toBe(JSON.stringify(each));
  });
  test('follows a part that was changed, and keeps the others in their order', () => {
    const piece = pieceOf(['M0 0H10V10H0Z', 'M0 0H20L10 8Z']);
    pieceText(piece);
    const [first] = Object.keys(piece.parts);
    const next: Piece = { ...piece, parts: { ...piece.parts, [first]: { ...piece.parts[first], fill: '#ff0000' } } };
    expect(pieceText(next)).toBe(JSON.stringify(next));
    expect(pieceText(next)).toContain('#ff0000');
  });
});
