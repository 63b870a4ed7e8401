import { expect, test } from '@jest/globals';
import { pieceFileName } from '../shelf/download-piece';
import { pieceOf } from '../testing/pieces';
import { framesText } from './frames-text';
import { methodsOf } from './methods';
import { colourText, pickedColour } from './picked-colour';

const piece = pieceOf(['M0 0H9V9H0Z', 'M0 0H9V9H0Z']);
const at = (num: number, den: number) => ({ ...piece, canvas: { ...piece.canvas, rate: { num, den } } });

test('seconds are told in frames of the piece’s rate, to a tenth', () => {
  expect(framesText(at(25, 1), 2)).toBe('50 fr');
  // SMPTE ST 12-1: 29.97 frames a second are 30000/1001.
  expect(framesText(at(30000, 1001), 1)).toBe('30 fr');
  expect(framesText(at(24, 1), 0.0104)).toBe('0.2 fr');
});

test('a colour is picked in whole channels and written as CSS; what cannot be read is black', () => {
  expect(pickedColour('rgb(255 128 0 / 50%)')).toEqual({ r: 255, g: 128, b: 0, a: 0.5 });
  expect(pickedColour('no colour')).toEqual({ r: 0, g: 0, b: 0, a: 1 });
  for (const css of ['#ff8000', '#000000', '#0a1b2c']) expect(colourText(pickedColour(css))).toBe(css);
});

test('point by point is offered where both ends have as many points, by numbers where it is chosen already', () => {
  const shift = Object.values(piece.shifts)[0];
  const ways = (method: typeof shift.method, of = piece) =>
    methodsOf(of, { ...shift, method }).map(({ value }) => value);
  const always = ['auto', 'straight', 'blended', 'turning'];
  expect(ways('auto')).toEqual([...always, 'points']);
  expect(ways('numbers')).toEqual([...always, 'numbers', 'points']);
  const uneven = pieceOf(['M0 0H9V9H0Z', 'M0 0H9V9Z']);
  const other = Object.values(uneven.shifts)[0];
  expect(methodsOf(uneven, other).map(({ value }) => value)).toEqual(always);
  expect(methodsOf(uneven, { ...other, method: 'points' }).map(({ value }) => value)).toContain('points');
});

test('a piece’s file has of its name what every file system takes', () => {
  expect(pieceFileName('Gate 2')).toBe('Gate 2.arcshift.json');
  expect(pieceFileName('../a:b*c')).toBe('abc.arcshift.json');
  expect(pieceFileName('？？')).toBe('piece.arcshift.json');
});
