import { describe, expect, test } from '@jest/globals';
import { matchOutlines, type UnpairedOrder } from '../match';
import { type Contour, nearestOnContour, type Outline, polygonContour, transformOutline } from '../outline';
import { readPathData } from '../svg';
import { translation } from '../vec';
import { evaluate } from './evaluate';
import { measureHealth } from './health';
import { contourNumberCount, type ShiftPlan } from './plan';
import { planShift } from './plan-shift';
import { rankAlternatives } from './rank';

const outline = (...contours: Contour[]): Outline => ({ contours, fillRule: 'nonzero' });
const square = (x: number, y: number, size: number): Contour =>
  polygonContour([x, y, x + size, y, x + size, y + size, x, y + size]);
const BODY = square(0, 35, 30);
const FAR = square(80, 40, 20);
/** The least box round both is turned by 45°: from the corner (100, 60) to the corner (0, 35). */
const REACH = (0.215 * 125) / Math.SQRT2;
const planOf = (a: Outline, b: Outline): ShiftPlan =>
  planShift(a, b, matchOutlines(a, b, { pairs: [[0, 0], ...a.contours.slice(1).map((_, i) => [i + 1, -1] as const)] }));
/** The point that the first contour of a role grows from, or shrinks to. */
function pointOf(plan: ShiftPlan, role: 'appears' | 'vanishes'): { x: number; y: number } {
  const contour = plan.contours.find((other) => other.role === role);
  if (!contour) throw new Error(`There is no ${role}.`);
  const numbers = role === 'appears' ? plan.from : plan.to;
  const x = numbers[contour.at];
  const y = numbers[contour.at + 1];
  for (let i = 0; i < contourNumberCount(contour); i += 2)
    expect([numbers[contour.at + i], numbers[contour.at + i + 1]]).toEqual([x, y]);
  return { x, y };
}

describe('points that unpaired contours grow from and shrink to', () => {
  test('near something they are inside the contour, as they were', () => {
    const point = pointOf(planOf(outline(BODY, square(31, 47, 6)), outline(BODY)), 'vanishes');
    expect(point).toEqual({ x: 34, y: 50 });
  });

  test('far from everything they come to a fifth of the size from what is nearest, on the straight way there', () => {
    for (const role of ['appears', 'vanishes'] as const) {
      const [one, two] = [outline(BODY), outline(BODY, FAR)];
      const pairs = [[0, 0] as const, role === 'appears' ? ([-1, 1] as const) : ([1, -1] as const)];
      const [a, b] = role === 'appears' ? [one, two] : [two, one];
      const plan = planShift(a, b, matchOutlines(a, b, { pairs }));
      const { x, y } = pointOf(plan, role);
      expect(nearestOnContour(BODY, x, y)?.distance).toBeCloseTo(REACH, 2);
      expect(y).toBeCloseTo(50, 1);
      expect(measureHealth(plan).largestStep).toBeLessThan(0.25);
    }
  });

  test('moved and turned outlines have the point moved and turned', () => {
    const far = pointOf(planOf(outline(BODY, FAR), outline(BODY)), 'vanishes');
    const moved = transformOutline(outline(BODY, FAR), translation(300, -40));
    const other = pointOf(planOf(moved, { ...moved, contours: moved.contours.slice(0, 1) }), 'vanishes');
    expect(other.x - far.x).toBeCloseTo(300, 2);
    expect(other.y - far.y).toBeCloseTo(-40, 2);
    const up = pointOf(planOf(outline(square(35, 0, 30), square(40, 80, 20)), outline(square(35, 0, 30))), 'vanishes');
    expect([up.x, up.y]).toEqual([expect.closeTo(far.y, 2), expect.closeTo(far.x, 2)]);
  });

  test('in the middle between two they stay: either side would look odd', () => {
    const inBetween = readPathData('M0 0H100V100H0ZM48 20V80H52V20Z');
    const point = pointOf(planOf(inBetween, { ...inBetween, contours: inBetween.contours.slice(0, 1) }), 'vanishes');
    expect(Math.abs(point.x - 50)).toBeLessThan(0.5);
  });

  test('the ends are exact all the same, and growing is a uniform scaling about the point', () => {
    const a = outline(BODY, FAR);
    const plan = planOf(a, outline(BODY));
    const contour = plan.contours.find(({ role }) => role === 'vanishes');
    const { x, y } = pointOf(plan, 'vanishes');
    const half = evaluate(plan, 0.5);
    for (let i = contour?.at ?? 0; i < plan.from.length; i += 2) {
      expect(half[i] - x).toBeCloseTo((plan.from[i] - x) / 2, 2);
      expect(half[i + 1] - y).toBeCloseTo((plan.from[i + 1] - y) / 2, 2);
    }
    expect(
      nearestOnContour(a.contours[1], plan.from[contour?.at ?? 0], plan.from[(contour?.at ?? 0) + 1])?.distance,
    ).toBeLessThan(1e-3);
  });
});

describe('contours that go and come take turns', () => {
  // Two upright slots become two lying ones, in the same place: paired or at once they would cross.
  const upright = readPathData('M0 0H100V100H0ZM30 20V80H38V20ZM62 20V80H70V20Z');
  const lying = readPathData('M0 0H100V100H0ZM20 30V38H80V30ZM20 62V70H80V62Z');
  const pairs = [
    [0, 0],
    [1, -1],
    [2, -1],
    [-1, 1],
    [-1, 2],
  ] as const;
  const codes = (match: { reasons: readonly { code: string }[] }): string[] => match.reasons.map(({ code }) => code);

  test('where they would meet: what goes is half gone when something comes, and that is said', () => {
    const [{ plan, match }] = rankAlternatives(upright, lying, { pairs });
    expect(match.timing?.unpairedA[0][1]).toBeLessThan(1);
    expect(match.timing?.unpairedB[0][0]).toBeGreaterThan(0);
    expect(measureHealth(plan).crossings).toBe(0);
    expect(codes(match)).toContain('unpaired-in-order');
    // The plan of the match is the plan that was judged.
    expect(planShift(upright, lying, match).from).toEqual(plan.from);
  });

  test('as somebody says, whatever touches', () => {
    const timing = (unpairedOrder: UnpairedOrder) => {
      const [{ match, plan }] = rankAlternatives(upright, lying, { pairs, unpairedOrder });
      expect(codes(match)).toContain('unpaired-order-own');
      expect(codes(match)).not.toContain('unpaired-in-order');
      return [match.timing?.unpairedA[1], match.timing?.unpairedB[0], measureHealth(plan).crossings > 0];
    };
    expect(timing('together')).toEqual([undefined, undefined, true]);
    expect(timing('after')).toEqual([[0, 0.5], [0.5, 1], false]);
    expect(timing('overlap')[0]).toEqual([0, 0.65]);
    expect(() => rankAlternatives(upright, lying, { unpairedOrder: 'never' as never })).toThrow(
      /options\.unpairedOrder.*never/,
    );
  });

  test('also where one contour becomes another without being it; where all are paired there is nothing to say', () => {
    const alone = [
      [0, -1],
      [-1, 0],
    ] as const;
    const [one] = [square(0, 0, 40), square(60, 60, 40)].map((contour) => outline(contour));
    const [{ match }] = rankAlternatives(one, outline(square(60, 60, 40)), { pairs: alone, unpairedOrder: 'after' });
    expect(match.timing).toEqual({ unpairedA: [[0, 0.5]], unpairedB: [[0.5, 1]] });
    expect(codes(rankAlternatives(one, one, { unpairedOrder: 'after' })[0].match)).not.toContain('unpaired-order-own');
  });
});
