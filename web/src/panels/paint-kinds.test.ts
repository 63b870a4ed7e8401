import type { Gradient, Part } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { firstColour, kindOfPaint, newGradient } from './paint-kinds';

const STOPS = [
  { at: 0, colour: '#112233' },
  { at: 1, colour: '#445566' },
];
const LINEAR: Gradient = { kind: 'linear', from: [0, 0], to: [1, 0], stops: STOPS };
const partsOf = (d: string): Part[] => Object.values(pieceOf([d]).parts);

test('a paint is none, a colour, or a gradient of its kind, and has a colour to go on with', () => {
  expect([null, '#aabbcc', LINEAR].map(kindOfPaint)).toEqual(['none', 'solid', 'linear']);
  expect([null, '#aabbcc', LINEAR].map(firstColour)).toEqual(['#23201b', '#aabbcc', '#112233']);
});

describe('a new gradient', () => {
  test('goes from side to side of the box of all parts, at half its height', () => {
    const parts = [...partsOf('M10 20H30V60H10Z'), ...partsOf('M50 0H70V10H50Z')];
    expect(newGradient('linear', '#aa0000', parts)).toEqual({
      kind: 'linear',
      from: [10, 30],
      to: [70, 30],
      stops: [
        { at: 0, colour: '#aa0000' },
        { at: 1, colour: '#f6efe2' },
      ],
    });
  });

  test('lies round the middle with the mean of both half sides as its radius, and never less than a px', () => {
    const [kind, radial] = ['radial' as const, newGradient('radial', '#aa0000', partsOf('M10 20H30V60H10Z'))];
    expect(radial).toMatchObject({ kind, centre: [20, 40], radii: [15, 15], focus: [0, 0] });
    expect(newGradient('radial', '#aa0000', partsOf('M5 5H5V5Z'))).toMatchObject({ radii: [1, 1] });
  });

  test('keeps the stops of the gradient that it takes the place of', () => {
    expect(newGradient('radial', LINEAR, partsOf('M0 0H9V9Z')).stops).toEqual(STOPS);
  });
});
