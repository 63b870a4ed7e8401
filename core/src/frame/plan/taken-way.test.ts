import { describe, expect, test } from '@jest/globals';
import { evaluate, inBetweenPathData, withOvershoot } from '../../morph';
import { type MatchChoices, reversedMatch } from '../../piece';
import { realIcons } from '../../testing/icons';
import { pieceOf } from '../../testing/pieces';

/** Ids that are those of no other piece. */
const countedIds = (before: string) => {
  let n = 0;
  return (prefix: string) => `${before}-${prefix}${++n}`;
};

import { shiftInput } from '../lanes/input-of-shift';
import { type PoseAlternative, rankPoseShift } from './alternatives';
import { type PoseShiftPlan, planPoseShift } from './part-plans';
import type { ShiftInput } from './shift-input';

const between = (a: string, b: string): ShiftInput => {
  const piece = pieceOf([a, b]);
  return shiftInput(piece, Object.values(piece.shifts)[0]);
};
/** The shift with what taking an alternative decides, and more. */
const taking = (input: ShiftInput, { choice }: PoseAlternative, more: Partial<MatchChoices> = {}): ShiftInput => ({
  ...input,
  method: choice.method,
  match: {
    ...input.match,
    smoothing: choice.smoothing,
    starts: choice.starts.map((start, i) => ({ id: `s${i}`, ...start })),
    taken: choice.taken,
    ...more,
  },
});
const halfWay = ({ parts: [{ plan }] }: PoseShiftPlan): string => inBetweenPathData(plan, evaluate(plan, 0.5), 1);
const codes = ({ reasons }: PoseShiftPlan): string[] => reasons.map(({ code }) => code);

// Of these the second alternatives go otherwise when method, rounding, start points and pairs alone are known.
const icons = new Map(realIcons(4000, 1).map(({ name, d }) => [name, d]));
const pair = (a: string, b: string): ShiftInput => between(icons.get(a) as string, icons.get(b) as string);
const PAIRS = [
  ['battery-2-fill', 'share-fill'],
  ['divide-fill', 'tablet-fill'],
] as const;

describe('an alternative that was taken', () => {
  test.each(PAIRS)('%s to %s: each looks half-way as it was shown, and is as healthy', (a, b) => {
    const input = pair(a, b);
    const found = rankPoseShift(input);
    expect(found.length).toBeGreaterThan(2);
    const plans = found.map((alternative) => planPoseShift(taking(input, alternative)));
    expect(plans.map(halfWay)).toEqual(found.map((alternative) => alternative.halfWay));
    expect(plans.map(({ health }) => health.verdict)).toEqual(found.map(({ verdict }) => verdict));
    // Without their looks some go otherwise.
    const bare = found.map((alternative) => planPoseShift(taking(input, alternative, { taken: null })));
    expect(bare.map(halfWay)).not.toEqual(found.map((alternative) => alternative.halfWay));
    for (const plan of plans) expect(codes(plan)).toContain('way-taken');
    // Each knows how far it can overshoot, not only the first.
    for (const {
      parts: [{ plan }],
    } of plans)
      expect(plan.overshoot).toEqual(withOvershoot(plan).overshoot);
    // The same are offered after one was taken.
    const again = rankPoseShift(taking(input, found[1]));
    expect(again.map((alternative) => alternative.halfWay)).toEqual(found.map((alternative) => alternative.halfWay));
  });

  const input = pair(...PAIRS[0]);
  const found = rankPoseShift(input);
  /** One that goes otherwise where its look is not known. */
  const own = found.find((each) => halfWay(planPoseShift(taking(input, each, { taken: null }))) !== each.halfWay);
  if (!own) throw new Error('Each is found by its decisions alone.');

  test('has the even points and touch-ups that are decided later, and the points that these need', () => {
    const plain = planPoseShift(taking(input, own)).parts[0].plan;
    const even = planPoseShift(taking(input, own, { even: 40 }));
    expect(even.parts[0].plan.contours.map(({ method }) => method)).toEqual(plain.contours.map(({ method }) => method));
    expect(codes(even)).toContain('way-taken');
    const pairs = even.parts[0].plan.contours.filter(({ role }) => role === 'pair');
    expect(pairs.map(({ segments }) => segments)).toEqual(pairs.map(() => 40));
    const [contour] = input.from.parts[0].contours;
    const place = { after: contour.anchors[0].id, before: contour.anchors[1].id, share: 0.37 };
    const point = { place, by: [5, -3], before: [0, 0], after: [0, 0] } as const;
    const touchUps = [{ id: 'u', progress: 0.5, points: [point] }];
    const touched = planPoseShift(taking(input, own, { touchUps }));
    expect(codes(touched)).toContain('way-taken');
    expect(codes(touched)).not.toContain('choice-lost');
    expect(touched.parts[0].plan.contours[0].segments).toBe(plain.contours[0].segments + 1);
    expect(halfWay(touched)).not.toBe(own.halfWay);
  });

  test('tells how far it is while it is looked for', () => {
    const several = pair(...PAIRS[1]);
    const shares: number[] = [];
    planPoseShift(taking(several, rankPoseShift(several)[0]), (share) => shares.push(share));
    expect(shares.filter((share) => share > 0 && share < 1).length).toBeGreaterThan(0);
    expect(shares).toEqual([...shares].sort((p, q) => p - q));
    expect(shares[shares.length - 1]).toBe(1);
  });

  test('is found again when an outline was changed a little, and said to be gone when it is another', () => {
    const moved = (by: number): ShiftInput => {
      const [part, ...parts] = input.to.parts;
      const [contour, ...contours] = part.contours;
      const anchors = contour.anchors.map((anchor, i) =>
        i === 0 ? { ...anchor, at: [anchor.at[0] - by, anchor.at[1] - by] as const } : anchor,
      );
      const changed = { ...part, contours: [{ ...contour, anchors }, ...contours] };
      return { ...input, to: { ...input.to, parts: [changed, ...parts] } };
    };
    const little = planPoseShift(taking(moved(0.02), own));
    expect(codes(little)).toContain('way-taken');
    expect(little.parts[0].plan.contours.map(({ method }) => method)).toEqual(
      planPoseShift(taking(input, own)).parts[0].plan.contours.map(({ method }) => method),
    );
    // Where another method would come nearer, the one that was taken holds.
    const further = planPoseShift(taking(moved(0.2), own));
    expect(further.parts[0].plan.contours[0].method).toBe(own.choice.method);
    const other = pair('divide-fill', 'share-fill');
    const gone = planPoseShift(taking(other, { ...own, choice: { ...own.choice, starts: [] } }));
    expect(codes(gone)).toContain('choice-lost');
    expect(codes(gone)).not.toContain('way-taken');
  });

  test('is of the largest part alone; others go as they went', () => {
    const small = pieceOf(['M0 0H3V3H0Z', 'M1 0L3 3H0Z'], countedIds('small'));
    const beside = shiftInput(small, Object.values(small.shifts)[0]);
    const both = (a: ShiftInput['from'], b: ShiftInput['from']) => ({ ...b, parts: [...a.parts, ...b.parts] });
    const two: ShiftInput = {
      ...input,
      from: both({ ...beside.from, placement: input.from.placement }, input.from),
      to: both({ ...beside.to, placement: input.to.placement }, input.to),
      pairs: [
        [0, 0],
        [1, 1],
      ],
    };
    const other = rankPoseShift(two).find(({ halfWay: path }) => path === own.halfWay);
    const plan = planPoseShift(taking(two, other as PoseAlternative));
    const path = ({ plan: part }: PoseShiftPlan['parts'][number]): string =>
      inBetweenPathData(part, evaluate(part, 0.5), 1);
    expect(path(plan.parts[1])).toBe(own.halfWay);
    expect(codes(plan)).not.toContain('choice-lost');
    const alone = planPoseShift({ ...taking(two, own, { taken: null }), inStep: undefined });
    expect(path(plan.parts[0])).toBe(path(alone.parts[0]));
  });

  test('run the other way it has the same look, and its pairs the other way round', () => {
    const { match, lost } = reversedMatch(taking(input, own).match);
    expect(lost).toEqual([]);
    expect(match.taken).toEqual(own.choice.taken);
    const swapped = reversedMatch({ ...match, taken: { look: [0, 0], pairs: [{ a: 'one', b: null }] } }).match;
    expect(swapped.taken).toEqual({ look: [0, 0], pairs: [{ a: null, b: 'one' }] });
  });

  test('is found again wherever and however large both outlines stand', () => {
    const elsewhere = { x: 300, y: -40, scaleX: 3, scaleY: 3 };
    const large = (pose: ShiftInput['from']) => ({ ...pose, placement: { ...pose.placement, ...elsewhere } });
    const plan = planPoseShift(taking({ ...input, from: large(input.from), to: large(input.to) }, own));
    expect(codes(plan)).toContain('way-taken');
    expect(halfWay(plan)).not.toBe(own.halfWay);
  });
});
