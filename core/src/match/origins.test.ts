import { describe, expect, test } from '@jest/globals';
import { type Contour, type Outline, polygonContour, transformOutline } from '../outline';
import { rotation } from '../vec';
import { matchOutlines, prepareMatcher } from './match-outlines';
import { originPairs, originShare } from './origins';

/** A polygon whose anchors have names, and the names of those that they were copied from. */
const named = (
  points: readonly number[],
  ids: readonly string[],
  origins?: readonly (string | undefined)[],
): Contour => ({
  ...polygonContour([...points]),
  anchorIds: [...ids],
  originIds: origins && [...origins],
});
const HEXAGON = [0, 0, 60, 0, 90, 40, 60, 80, 0, 80, -30, 40];
const A = named(HEXAGON, ['a0', 'a1', 'a2', 'a3', 'a4', 'a5']);
const outline = (contour: Contour): Outline => ({ contours: [contour], fillRule: 'nonzero' });
/** How far round a hexagon each anchor lies, by the lengths of its sides: 60, 50, 50, 60, 50, 50. */
const SHARES = [0, 60, 110, 160, 220, 270].map((length) => length / 320);

describe('anchors linked by origin', () => {
  test('each to the one that it was copied from, as shares of the lengths', () => {
    const copy = named(HEXAGON, ['b0', 'b1', 'b2', 'b3', 'b4', 'b5'], ['a2', 'a3', 'a4', 'a5', 'a0', 'a1']);
    const pairs = originPairs(A, copy);
    expect(originShare(A, copy)).toBe(1);
    expect(pairs).toHaveLength(6);
    pairs.forEach(({ a, b }, j) => {
      expect(a).toBeCloseTo(SHARES[(j + 2) % 6], 12);
      expect(b).toBeCloseTo(SHARES[j], 12);
    });
    // They say what belongs together: no other opinion is asked.
    expect(prepareMatcher(outline(A), outline(copy), {}).others({ a: 0, b: 0 })).toEqual([]);
    expect(prepareMatcher(outline(A), outline(named(HEXAGON, [])), {}).others({ a: 0, b: 0 })).not.toEqual([]);
  });

  test('two copies of one third are linked; an origin that is named twice is linked once', () => {
    const one = named(HEXAGON, ['p0', 'p1', 'p2', 'p3', 'p4', 'p5'], ['z0', 'z1', 'z2', 'z3', 'z4', 'z5']);
    const two = named(HEXAGON, ['q0', 'q1', 'q2', 'q3', 'q4', 'q5'], ['z0', 'z0', 'z2', 'z2', 'z4', 'z5']);
    expect(originPairs(one, two).map(({ b }) => SHARES.findIndex((share) => Math.abs(share - b) < 1e-9))).toEqual([
      0, 2, 4, 5,
    ]);
  });

  test('fewer than half, or a single one, say nothing; so do names without any origin', () => {
    const few = named(
      HEXAGON,
      ['b0', 'b1', 'b2', 'b3', 'b4', 'b5'],
      ['a0', 'a1', undefined, undefined, undefined, undefined],
    );
    expect(originShare(A, few)).toBeCloseTo(1 / 3, 12);
    expect(originPairs(A, few)).toEqual([]);
    expect(originPairs(A, named(HEXAGON, ['a0', 'a1', 'a2', 'a3', 'a4', 'a5']))).toEqual([]);
    expect(
      originPairs(named([0, 0, 9, 0], ['a0', 'a1']), named([0, 0, 9, 0], ['b0', 'b1'], ['a0', undefined])),
    ).toEqual([]);
  });
});

describe('a match of copies', () => {
  const fixedShares = (b: Contour, options = {}) => {
    const [pair] = matchOutlines(outline(A), outline(b), options).pairs;
    // The start is a pair of its own.
    return [{ a: 0, b: 0 }, ...pair.fixed].map(({ a: p, b: q }) => [(p + pair.startA) % 1, (q + pair.startB) % 1]);
  };
  /** Distance on a circle of length 1. */
  const apart = (p: number, q: number): number => Math.abs(p - q - Math.round(p - q));
  const has = (pairs: readonly (readonly number[])[], a: number, b: number): boolean =>
    pairs.some(([p, q]) => apart(p, a) < 1e-6 && apart(q, b) < 1e-6);

  test('passes through every anchor’s own copy, however it was turned', () => {
    const copy = named(HEXAGON, ['b0', 'b1', 'b2', 'b3', 'b4', 'b5'], ['a0', 'a1', 'a2', 'a3', 'a4', 'a5']);
    const turned = transformOutline(outline(copy), rotation(2)).contours[0];
    const pairs = fixedShares({ ...turned, anchorIds: copy.anchorIds, originIds: copy.originIds });
    for (const share of SHARES) expect(has(pairs, share, share)).toBe(true);
  });

  test('links that break the order of those before them are left out, the others stay', () => {
    const mixed = named(HEXAGON, ['b0', 'b1', 'b2', 'b3', 'b4', 'b5'], ['a0', 'a1', 'a4', 'a3', 'a2', 'a5']);
    const pairs = fixedShares(mixed);
    expect(has(pairs, SHARES[0], SHARES[0])).toBe(true);
    expect(has(pairs, SHARES[1], SHARES[1])).toBe(true);
    expect(has(pairs, SHARES[4], SHARES[2])).toBe(true);
    // Behind the fourth anchor of A nothing before it can come: a3 and a2 would run back.
    expect(has(pairs, SHARES[3], SHARES[3])).toBe(false);
    expect(has(pairs, SHARES[2], SHARES[4])).toBe(false);
    expect(has(pairs, SHARES[5], SHARES[5])).toBe(true);
  });

  test('a tie that the user chose goes before a link at the same place', () => {
    const copy = named(HEXAGON, ['b0', 'b1', 'b2', 'b3', 'b4', 'b5'], ['a0', 'a1', 'a2', 'a3', 'a4', 'a5']);
    const tie = { contourA: 0, shareA: SHARES[2], contourB: 0, shareB: (SHARES[2] + SHARES[3]) / 2 };
    const pairs = fixedShares(copy, { ties: [tie] });
    expect(has(pairs, SHARES[2], tie.shareB)).toBe(true);
    expect(has(pairs, SHARES[2], SHARES[2])).toBe(false);
    expect(has(pairs, SHARES[4], SHARES[4])).toBe(true);
  });

  test('links of which most run backwards say that the copy was turned round, and are not met one by one', () => {
    const reversed = named(HEXAGON, ['b0', 'b1', 'b2', 'b3', 'b4', 'b5'], ['a5', 'a4', 'a3', 'a2', 'a1', 'a0']);
    const pairs = fixedShares(reversed, { direction: 'same' });
    expect(pairs.length).toBeLessThan(4);
  });

  test('links that are not met leave the way of the same outlines without them, whose idle anchors do not count', () => {
    const points = [30, 0, ...HEXAGON.slice(2), 0, 0];
    const ids = (letter: string): string[] => Array.from({ length: 7 }, (_, i) => `${letter}${i}`);
    const wayOf = (a: Contour, b: Contour) => {
      const { startA, startB, byOrigin } = matchOutlines(outline(a), outline(b), { direction: 'same' }).pairs[0];
      return { startA, startB, byOrigin };
    };
    const plain = wayOf(polygonContour(points), polygonContour(points));
    expect(plain.byOrigin).toBe(false);
    expect(wayOf(named(points, ids('a')), named(points, ids('b'), ids('a').reverse()))).toEqual(plain);
  });
});
