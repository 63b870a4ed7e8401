import { describe, expect, test } from '@jest/globals';
import { evaluate, inBetweenOutline, rankAlternatives } from '../morph';
import { seededRandom } from '../num';
import { ellipseContour, type Outline, polygonContour, reverseContour, transformOutline } from '../outline';
import { readPathData } from '../svg';
import { outlineDistance } from '../testing/outline-distance';
import { rotation, translation } from '../vec';
import { assignOptimally, pairOptimally } from './assignment';
import { takeByAuction } from './auction';
import type { MatchOptions } from './match';
import { matchOutlines } from './match-outlines';
import { NearestByFeatures } from './nearest';
import { mapShare, smoothShareMap } from './share-map';
import { symmetricFits } from './symmetry';

const outline = (...contours: Outline['contours']): Outline => ({ contours, fillRule: 'nonzero' });
const square = (x: number, y: number, size: number) =>
  polygonContour([x, y, x + size, y, x + size, y + size, x, y + size]);

describe('assignment', () => {
  test('is as cheap as the best of all permutations (brute force) on 200 random matrices up to 6 × 6', () => {
    const random = seededRandom(4);
    const best = (cost: Float64Array, n: number, row: number, used: number): number => {
      if (row === n) return 0;
      let least = Infinity;
      for (let j = 0; j < n; j++)
        if (!(used & (1 << j))) least = Math.min(least, cost[row * n + j] + best(cost, n, row + 1, used | (1 << j)));
      return least;
    };
    for (let round = 0; round < 200; round++) {
      const n = 1 + (round % 6);
      const cost = Float64Array.from({ length: n * n }, () => Math.floor(random() * 20));
      const columns = assignOptimally(cost, n);
      expect(new Set(columns).size).toBe(n);
      expect([...columns].reduce((sum, j, i) => sum + cost[i * n + j], 0)).toBe(best(cost, n, 0, 0));
    }
  });

  test('of many costs the same as one assignment of all, by their sum on 20 random clustered problems', () => {
    const random = seededRandom(9);
    for (let round = 0; round < 20; round++) {
      const places = (count: number): number[] =>
        Array.from({ length: count }, () => Math.floor(random() * 40) + random());
      const [a, b] = [places(70), places(80)];
      const cost = (i: number, j: number): number => Math.abs(a[i] - b[j]);
      const alone = (k: number): number => 0.3 + 0.01 * (k % 7);
      const total = (pairs: readonly (readonly [number, number])[]): number => {
        const [pairedA, pairedB] = [new Set(pairs.map(([i]) => i)), new Set(pairs.map(([, j]) => j))];
        expect([pairedA.size, pairedB.size]).toEqual([pairs.length, pairs.length]);
        const left = (all: readonly number[], paired: ReadonlySet<number>): number =>
          all.reduce((sum, _, k) => sum + (paired.has(k) ? 0 : alone(k)), 0);
        return pairs.reduce((sum, [i, j]) => sum + cost(i, j), 0) + left(a, pairedA) + left(b, pairedB);
      };
      const n = a.length + b.length;
      const whole = Float64Array.from({ length: n * n }, (_, k) => {
        const [i, j] = [Math.floor(k / n), k % n];
        if (i < a.length && j < b.length) return cost(i, j);
        if (i < a.length) return j - b.length === i ? alone(i) : 1e6;
        if (j < b.length) return i - a.length === j ? alone(j) : 1e6;
        return 0;
      });
      const best = [...assignOptimally(whole, n)].reduce((sum, j, i) => sum + whole[i * n + j], 0);
      const pairs = pairOptimally({
        countA: a.length,
        countB: b.length,
        cost,
        costUnpairedA: alone,
        costUnpairedB: alone,
      });
      expect(pairs.length).toBeGreaterThan(20);
      expect(total(pairs)).toBeCloseTo(best, 9);
    }
  });

  test('a thousand copies that lie close together find their own', () => {
    const pairs = pairOptimally({
      countA: 1_000,
      countB: 1_000,
      cost: (i, j) => Math.abs(i - (999 - j)) / 3,
      costUnpairedA: () => 0.6,
      costUnpairedB: () => 0.6,
    });
    expect(pairs).toEqual(Array.from({ length: 1_000 }, (_, i) => [i, 999 - i]));
  });

  test('by nearest features as cheap as by all costs within 1 %, of 400 and 380 items in clusters of four kinds, and no item twice', () => {
    const random = seededRandom(21);
    const items = (count: number) =>
      Array.from({ length: count }, () => [
        Math.floor(3 * random()) + 0.4 * random(),
        random(),
        Math.floor(4 * random()),
      ]);
    const [a, b] = [items(400), items(380)];
    const apart = (d: ArrayLike<number>): number => Math.hypot(d[0], d[1]) + 0.3 * Math.min(1, d[2]);
    const all = {
      countA: a.length,
      countB: b.length,
      cost: (i: number, j: number): number => apart(a[i].map((value, k) => Math.abs(value - b[j][k]))),
      costUnpairedA: (i: number): number => 0.1 + 0.01 * (i % 3),
      costUnpairedB: (): number => 0.12,
    };
    const total = (pairs: readonly (readonly [number, number])[]): number =>
      pairs.reduce((sum, [i, j]) => sum + all.cost(i, j) - all.costUnpairedA(i) - all.costUnpairedB(), 0);
    const best = pairOptimally(all);
    const near = () => ({ axes: 3, a: Float64Array.from(a.flat()), b: Float64Array.from(b.flat()), distance: apart });
    const found = pairOptimally({ ...all, near });
    expect(new Set(found.map(([i]) => i)).size).toBe(found.length);
    expect(new Set(found.map(([, j]) => j)).size).toBe(found.length);
    expect(total(best)).toBeLessThan(-20);
    expect(total(found)).toBeLessThan(0.99 * total(best));
  });

  test('two thousand items that are all alike are all paired by their nearest, and linked ones far apart find each other', () => {
    const count = 2_000;
    const features = new Float64Array(2 * count);
    const linked = [[0, count - 1] as const];
    const pairs = pairOptimally({
      countA: count,
      countB: count,
      cost: (i, j) => (i === 0 && j === count - 1 ? -4 : 0.1),
      costUnpairedA: () => 0.3,
      costUnpairedB: () => 0.3,
      near: () => ({ axes: 2, a: features, b: features, distance: (apart) => Math.hypot(apart[0], apart[1]), linked }),
    });
    expect(pairs).toHaveLength(count);
    expect(pairs[0]).toEqual([0, count - 1]);
  });

  test('nearest items by features are those of a search through all', () => {
    const random = seededRandom(5);
    const features = Float64Array.from({ length: 3 * 500 }, () => Math.round(20 * random()) / 20);
    const distance = (apart: ArrayLike<number>): number => Math.hypot(apart[0], apart[1]) + Math.min(0.2, apart[2]);
    const tree = new NearestByFeatures(features, 3, distance);
    for (let round = 0; round < 50; round++) {
      const place = Float64Array.from([random(), random(), random()]);
      const from = (item: number): number =>
        distance([0, 1, 2].map((k) => Math.abs(features[3 * item + k] - place[k])));
      const all = Array.from({ length: 500 }, (_, k) => from(k)).sort((p, q) => p - q);
      expect(tree.nearest(place, 7).map(from)).toEqual(all.slice(0, 7));
    }
    expect(new NearestByFeatures(new Float64Array(0), 3, distance).nearest(Float64Array.of(0, 0, 0), 4)).toEqual([]);
  });

  test('an auction is as good as the best assignment within a thousandth for each item, on 30 random sparse problems', () => {
    const random = seededRandom(31);
    for (let round = 0; round < 30; round++) {
      const [n, m] = [20, 25];
      const pairs = Array.from({ length: n * m }, (_, k) => ({
        i: Math.floor(k / m),
        j: k % m,
        gain: random(),
      })).filter(() => random() < 0.2);
      const side = n + m;
      const cost = new Float64Array(side * side);
      for (const { i, j, gain } of pairs) cost[i * side + j] = -gain;
      const best = [...assignOptimally(cost, side)].reduce((sum, j, i) => sum - cost[i * side + j], 0);
      const taken = takeByAuction(pairs, n, m);
      expect(new Set(taken.map(({ i }) => i)).size).toBe(taken.length);
      expect(new Set(taken.map(({ j }) => j)).size).toBe(taken.length);
      expect(taken.reduce((sum, { gain }) => sum + gain, 0)).toBeGreaterThan(best - n * 1e-3);
    }
  });

  test('leaves alone what is dearer to pair', () => {
    const cost = [
      [1, 9],
      [9, 9],
    ];
    expect(
      pairOptimally({
        countA: 2,
        countB: 2,
        cost: (i, j) => cost[i][j],
        costUnpairedA: () => 2,
        costUnpairedB: () => 2,
      }),
    ).toEqual([[0, 0]]);
    expect(
      pairOptimally({ countA: 0, countB: 3, cost: () => 0, costUnpairedA: () => 1, costUnpairedB: () => 1 }),
    ).toEqual([]);
  });
});

describe('share maps', () => {
  test('stay monotone and meet their pinned knots', () => {
    const random = seededRandom(8);
    for (let round = 0; round < 100; round++) {
      const a = [0];
      const b = [0];
      for (let i = 0; i < 30; i++) {
        a.push(a[i] + 0.2 + random());
        b.push(b[i] + 0.2 + random());
      }
      const raw = {
        a: a.map((v) => v / a[30]),
        b: b.map((v) => v / b[30]),
        pinned: a.map((_, i) => i === 10 || i === 21),
      };
      const map = smoothShareMap(raw);
      for (let i = 1; i < map.a.length; i++) {
        expect(map.a[i] - map.a[i - 1]).toBeGreaterThanOrEqual(-1e-12);
        expect(map.b[i] - map.b[i - 1]).toBeGreaterThanOrEqual(-1e-12);
      }
      for (const i of [0, 10, 21, 30]) expect(mapShare(map.a, map.b, raw.a[i])).toBeCloseTo(raw.b[i], 9);
    }
  });
});

describe('matching two outlines', () => {
  test('identical outlines match place by place, at no cost', () => {
    const a = outline(polygonContour([0, 0, 40, 5, 60, 50, 10, 30]));
    const [pair] = matchOutlines(a, a).pairs;
    expect(pair.startB).toBeCloseTo(pair.startA, 9);
    expect(pair.cost).toBeLessThan(1e-9);
    for (const share of [0.2, 0.5, 0.9]) expect(mapShare(pair.map.a, pair.map.b, share)).toBeCloseTo(share, 6);
  });

  test('a square against itself from another start, run the other way: corners meet corners', () => {
    const a = outline(square(0, 0, 100));
    const b = outline(reverseContour(polygonContour([100, 100, 0, 100, 0, 0, 100, 0])));
    const match = matchOutlines(a, b);
    expect(match.pairs[0].reversedB).toBe(true);
    expect(match.reasons.map(({ code }) => code)).toContain('direction-reversed');
    expect(match.pairs[0].cost).toBeLessThan(1e-9);
  });

  test('a direction that the user chose is followed, and said to be so', () => {
    const a = outline(square(0, 0, 100));
    const b = outline(ellipseContour(50, 50, 50, 50));
    expect(matchOutlines(a, b, { direction: 'same' }).pairs[0].reversedB).toBe(false);
    const reversed = matchOutlines(a, b, { direction: 'reversed' });
    expect(reversed.pairs[0].reversedB).toBe(true);
    expect(reversed.reasons[0].code).toBe('direction-own');
    expect(() => matchOutlines(a, b, { direction: 'sideways' as never })).toThrow(/options\.direction.*sideways/);
  });

  test('the direction of one contour goes before that of all; the others stay as they are', () => {
    const two = (): ReturnType<typeof outline> => outline(square(0, 0, 40), square(60, 0, 40));
    const reversedOf = (options: MatchOptions): boolean[] =>
      [...matchOutlines(two(), two(), options).pairs].sort((p, q) => p.a - q.a).map(({ reversedB }) => reversedB);
    expect(reversedOf({})).toEqual([false, false]);
    expect(reversedOf({ directions: [{ contourA: 1, direction: 'reversed' }] })).toEqual([false, true]);
    const directions = [{ contourA: 0, direction: 'same' }] as const;
    expect(reversedOf({ direction: 'reversed', directions })).toEqual([false, true]);
    const { reasons } = matchOutlines(two(), two(), { directions });
    expect(reasons.map(({ code }) => code)).toEqual(['direction-own', 'direction-aligned']);
    expect(() => matchOutlines(two(), two(), { directions: [{ contourA: 0, direction: 'up' as never }] })).toThrow(
      /options\.directions\[0\]\.direction.*up/,
    );
  });

  test('holes go to holes, solids to solids, and what is left is born or dies', () => {
    const ring = outline(square(0, 0, 100), reverseContour(square(30, 30, 40)));
    const two = outline(reverseContour(square(10, 35, 30)), square(0, 0, 100), reverseContour(square(60, 35, 30)));
    const match = matchOutlines(ring, two);
    expect(match.pairs.find(({ a }) => a === 0)?.b).toBe(1);
    expect(match.pairs).toHaveLength(2);
    expect(match.unpairedB).toHaveLength(1);
    expect(match.reasons.map(({ code }) => code)).toContain('contour-born');
  });

  test('an open line is tried both ways', () => {
    const line = polygonContour([0, 0, 50, 10, 100, 0, 120, 40], false);
    const match = matchOutlines(outline(line), outline(reverseContour(line)));
    expect(match.pairs[0].reversedB).toBe(true);
    expect(match.pairs[0].cost).toBeLessThan(1e-9);
  });

  test('an empty outline has nothing to match', () => {
    expect(matchOutlines(outline(), outline(square(0, 0, 1)))).toMatchObject({
      pairs: [],
      unpairedB: [0],
      unpairedA: [],
    });
  });
});

describe('symmetry', () => {
  /** A house with a round door: symmetric about an upright line. */
  const house = polygonContour([50, 0, 95, 40, 95, 95, 65, 95, 65, 60, 35, 60, 35, 95, 5, 95, 5, 40]);
  const heart = readPathData(
    'M50 90C20 68 6 50 6 32C6 16 18 8 29 8C39 8 46 14 50 22C54 14 61 8 71 8C82 8 94 16 94 32C94 50 80 68 50 90Z',
  );

  test.each([0, 0.9, 2.4])(
    'turned by %f rad, what both outlines have is kept: every moment is its own mirror image',
    (angle) => {
      const spin = (o: Outline): Outline =>
        transformOutline(transformOutline(o, translation(-50, -50)), rotation(angle));
      const [{ plan }] = rankAlternatives(spin(outline(house)), spin(heart));
      for (const p of [0.25, 0.5, 0.75]) {
        const upright = transformOutline(inBetweenOutline(plan, evaluate(plan, p)), rotation(-angle));
        const mirrored = transformOutline(upright, [-1, 0, 0, 1, 0, 0]);
        expect(outlineDistance(upright, mirrored, 0.05)).toBeLessThan(0.6);
      }
    },
  );

  test('a shape that is the same after half a turn, but has no axis, is not taken for symmetric', () => {
    const slanted = polygonContour([0, 0, 70, 0, 90, 30, 20, 30]);
    expect(symmetricFits(slanted, polygonContour([-10, -10, 10, -10, 10, 10, -10, 10]))).toEqual([]);
  });
});
