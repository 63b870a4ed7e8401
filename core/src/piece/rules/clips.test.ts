import { describe, expect, test } from '@jest/globals';
import { canClip, clipChain } from './clips';

const figures = {
  a: { clip: 'b' },
  b: { clip: 'c' },
  c: { clip: null },
  x: { clip: 'y' },
  y: { clip: 'x' },
  z: { clip: 'gone' },
};

describe('figures seen inside others', () => {
  test('the chain goes from the nearest outwards', () => {
    expect(clipChain(figures, 'a')).toEqual(['b', 'c']);
    expect(clipChain(figures, 'c')).toEqual([]);
  });

  test('it ends where a figure is missing, and where it comes back to one that it passed', () => {
    expect([clipChain(figures, 'z'), clipChain(figures, 'nobody')]).toEqual([[], []]);
    expect([clipChain(figures, 'x'), clipChain({ s: { clip: 's' } }, 's')]).toEqual([['y'], []]);
    // Names that every object has are no figures.
    expect(clipChain({ a: { clip: 'constructor' } }, 'a')).toEqual([]);
  });

  test('nothing is seen inside itself, directly or round about, or inside what is not there', () => {
    expect([canClip(figures, 'c', 'c'), canClip(figures, 'c', 'a'), canClip(figures, 'b', 'a')]).toEqual([
      false,
      false,
      false,
    ]);
    expect([canClip(figures, 'c', 'x'), canClip(figures, 'a', 'c')]).toEqual([true, true]);
    expect([canClip(figures, 'a', 'gone'), canClip(figures, 'a', 'toString')]).toEqual([false, false]);
  });
});
