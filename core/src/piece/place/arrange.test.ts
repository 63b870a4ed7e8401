import { describe, expect, test } from '@jest/globals';
import { alignBoxes, distributeBoxes } from './arrange';

describe('aligning and distributing', () => {
  const boxes = [
    { minX: 0, minY: 0, maxX: 10, maxY: 10 },
    { minX: 50, minY: 5, maxX: 80, maxY: 10 },
    { minX: 20, minY: 30, maxX: 26, maxY: 60 },
  ];
  const frame = { minX: 0, minY: 0, maxX: 100, maxY: 100 };
  const moved = (moves: readonly (readonly [number, number])[]) =>
    boxes.map((box, i) => ({
      minX: box.minX + moves[i][0],
      maxX: box.maxX + moves[i][0],
      minY: box.minY + moves[i][1],
      maxY: box.maxY + moves[i][1],
    }));

  test('every edge and middle', () => {
    expect(moved(alignBoxes(boxes, 'right', frame)).map(({ maxX }) => maxX)).toEqual([100, 100, 100]);
    expect(moved(alignBoxes(boxes, 'left', frame)).map(({ minX }) => minX)).toEqual([0, 0, 0]);
    expect(moved(alignBoxes(boxes, 'top', frame)).map(({ minY }) => minY)).toEqual([0, 0, 0]);
    expect(moved(alignBoxes(boxes, 'bottom', frame)).map(({ maxY }) => maxY)).toEqual([100, 100, 100]);
    expect(moved(alignBoxes(boxes, 'centre', frame)).map(({ minX, maxX }) => minX + maxX)).toEqual([100, 100, 100]);
    expect(moved(alignBoxes(boxes, 'middle', frame)).map(({ minY, maxY }) => minY + maxY)).toEqual([100, 100, 100]);
  });

  test('equal gaps leave the outer ones where they are; equal margins count the frame', () => {
    const gaps = (list: typeof boxes, from?: number, to?: number): number[] => {
      const sorted = [...list].sort((p, q) => p.minX - q.minX);
      const edges = [
        ...(from === undefined ? [] : [from]),
        ...sorted.flatMap(({ minX, maxX }) => [minX, maxX]),
        ...(to === undefined ? [] : [to]),
      ];
      const start = from === undefined ? 1 : 0;
      return edges
        .slice(start)
        .flatMap((v, i, all) => (i % 2 === 0 && all[i + 1] !== undefined ? [+(all[i + 1] - v).toFixed(9)] : []));
    };
    const even = moved(distributeBoxes(boxes, 'x'));
    expect([even[0], even[1]]).toEqual([boxes[0], boxes[1]]);
    expect(new Set(gaps(even)).size).toBe(1);
    const margins = moved(distributeBoxes(boxes, 'x', frame));
    expect(new Set(gaps(margins, 0, 100)).size).toBe(1);
    expect(distributeBoxes(boxes.slice(0, 2), 'x')).toEqual([
      [0, 0],
      [0, 0],
    ]);
  });
});
