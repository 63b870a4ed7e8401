import { describe, expect, test } from '@jest/globals';
import { fitColumns } from './fit-columns';

const both = { left: 206, right: 284 };

describe('columns beside a picture', () => {
  test('are as wide as wanted where there is room, within their limits', () => {
    expect(fitColumns(both, 1280, 'right')).toEqual(both);
    expect(fitColumns({ left: 900, right: 10 }, 2560, 'right')).toEqual({ left: 220, right: 250 });
    expect(fitColumns({ left: null, right: 284 }, 1280, 'left')).toEqual({ left: null, right: 284 });
  });

  test('leave the picture at least half of the width, at any width', () => {
    for (let room = 640; room <= 2560; room += 7)
      for (const first of ['left', 'right'] as const) {
        const { left, right } = fitColumns(both, room, first);
        expect((left ?? 0) + (right ?? 0)).toBeLessThanOrEqual(room / 2);
        expect(left === null || left >= 170).toBe(true);
        expect(right === null || right >= 250).toBe(true);
        expect(first === 'left' ? left : right).not.toBeNull();
      }
  });

  test('become narrower before one of them is folded; then the one that goes first stays', () => {
    expect(fitColumns(both, 960, 'right')).toEqual({ left: 206, right: 274 });
    expect(fitColumns(both, 860, 'right')).toEqual({ left: 180, right: 250 });
    expect(fitColumns(both, 830, 'right')).toEqual({ left: null, right: 284 });
    expect(fitColumns(both, 830, 'left')).toEqual({ left: 206, right: null });
    expect(fitColumns({ left: 206, right: null }, 400, 'right')).toEqual({ left: 200, right: null });
  });
});
