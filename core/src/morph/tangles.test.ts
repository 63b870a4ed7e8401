import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { readPathData } from '../svg';
import { measureHealth } from './health';
import { rankAlternatives } from './rank';
import { isTangled } from './tangles';

/** Contours through random places: what a spoiled file may hold, and a scribble. */
function scribble(segments: number, contours: number, seed: number): string {
  const random = seededRandom(seed);
  const place = (): string => `${(random() * 1000).toFixed(2)} ${(random() * 1000).toFixed(2)}`;
  return Array.from({ length: contours }, () => {
    const curves = Array.from({ length: segments }, () => `C${place()} ${place()} ${place()}`);
    return `M${place()}${curves.join('')}Z`;
  }).join('');
}

describe('outlines that cross themselves hundreds of times', () => {
  // Each of these took from ten seconds to no end before; the runner gives up after its own limit.
  test.each([
    ['200 anchors anywhere', scribble(200, 1, 1), scribble(200, 1, 2)],
    ['151 contours become one', scribble(20, 151, 3), scribble(20, 1, 4)],
    ['151 contours become 151', scribble(6, 151, 1), scribble(6, 151, 2)],
  ])('%s: the cheapest way is taken, its numbers are finite, and it is told to be broken', (_, from, to) => {
    const [a, b] = [readPathData(from), readPathData(to)];
    const ways = rankAlternatives(a, b);
    expect(ways).toHaveLength(1);
    expect(ways[0].plan.from.every(Number.isFinite) && ways[0].plan.to.every(Number.isFinite)).toBe(true);
    expect(measureHealth(ways[0].plan).verdict).toBe('broken');
  });

  test('what crosses itself a few times is no tangle, and is looked at like all else', () => {
    const [a, b] = [scribble(8, 1, 5), scribble(8, 1, 6)].map((d) => readPathData(d));
    expect([isTangled(a), isTangled(b)]).toEqual([false, false]);
    expect(rankAlternatives(a, b).length).toBeGreaterThan(1);
  });
});
