import { describe, expect, test } from '@jest/globals';
import { readPathData } from '../../svg';
import { countedIds } from '../../testing/pieces';
import { recordOfContour } from '../records/geometry';
import type { ContourRecord } from '../records/records';
import { mendGaps } from './mend-gaps';

const records = (d: string): ContourRecord[] => {
  const newId = countedIds();
  return readPathData(d).contours.map((contour) => recordOfContour(contour, newId));
};
const shapes = (contours: readonly ContourRecord[]) =>
  contours.map(({ closed, anchors }) => [closed, ...anchors.map(({ at }) => at.join(' '))]);

describe('small gaps', () => {
  test('a contour that looks closed is closed in the middle of its gap, its handles with it', () => {
    const { contours, gaps } = mendGaps(records('M0 0L100 0L100 100L0 100L0 2'));
    expect([gaps, shapes(contours)]).toEqual([1, [[true, '0 1', '100 0', '100 100', '0 100']]]);
    const round = mendGaps(records('M0 0C40 -40 90 0 90 50C90 90 0 90 2 0')).contours[0];
    expect(round.anchors[0]).toMatchObject({ at: [1, 0], in: [-1, 90], out: [41, -40] });
  });

  test('ends that nearly touch are joined, whichever ends they are; a ring of pieces becomes one closed contour', () => {
    const { contours, gaps } = mendGaps(records('M0 0H100M101 1V100M0 1V100M0 101H100'));
    expect(gaps).toBe(4);
    expect(contours).toHaveLength(1);
    expect([contours[0].closed, contours[0].anchors.length]).toEqual([true, 4]);
    for (const { at } of contours[0].anchors)
      expect([0, 1].every((k) => Math.min(Math.abs(at[k]), Math.abs(at[k] - 100.5)) <= 1)).toBe(true);
  });

  test('what is wide open, closed, or a mere line stays as it is, and is the same list', () => {
    for (const d of ['M0 0H100V100', 'M0 0H100V100Z', 'M0 0H1', 'M0 0H100M140 0H200', '']) {
      const before = records(d);
      expect(mendGaps(before)).toEqual({ contours: before, gaps: 0 });
      expect(mendGaps(before).contours).toBe(before);
    }
  });

  test('the reach is a share of the smaller of both: a dash is not caught by a long line', () => {
    expect(mendGaps(records('M0 0H1000M1020 0H1030')).gaps).toBe(0);
    expect(mendGaps(records('M0 0H1000M1020 0H2030')).gaps).toBe(1);
  });
});
