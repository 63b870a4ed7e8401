import { describe, expect, test } from '@jest/globals';
import type { Place } from '../../outline';
import {
  AUTOMATIC_MATCH,
  type Carrier,
  DECISION_NAMES,
  DECISIONS,
  type DecisionContext,
  decidedOptions,
  inWords,
  isDecided,
  settledMatch,
  unusedDecisions,
} from './decisions';
import type { MatchChoices } from './records';

/** Places are told apart by a name; those of `gone` are nowhere. */
const spot = (name: string) => ({ name }) as unknown as Place;
const nameOf = (place: Place): string => (place as unknown as { name: string }).name;
/** A tie, or start points, between two places. */
const pairOf = (a: Place, b: Place) => ({ id: `${nameOf(a)} ${nameOf(b)}`, a, b });
const [P, Q, GONE] = [spot('p'), spot('q'), spot('gone')];

function context(): DecisionContext & { readonly used: unknown[] } {
  const used: unknown[] = [];
  const shares: Record<string, number> = { p: 0.25, q: 0.5 };
  const contours: Record<string, number> = { 'a:one': 3, 'b:one': 4, 'b:two': 5 };
  return {
    used,
    place: (side, place) =>
      nameOf(place) in shares ? { contour: side === 'a' ? 1 : 2, share: shares[nameOf(place)] } : undefined,
    contour: (side, id) => (id === null ? -1 : contours[`${side}:${id}`]),
    // A quarter turn and a move to (10, 20); twice the size.
    matrix: { a: [0, 1, -1, 0, 10, 20], b: [2, 0, 0, 2, 0, 0] },
    use: (item) => used.push(item),
  };
}
const match = (choices: Partial<MatchChoices>): MatchChoices => ({ ...AUTOMATIC_MATCH, ...choices });
const told = (choices: Partial<MatchChoices>) => {
  const at = context();
  return { options: decidedOptions(match(choices), at), used: at.used };
};

describe('the decisions of a match', () => {
  test('nothing is decided at first, and the engine is told so', () => {
    expect(DECISION_NAMES.filter((name) => isDecided(AUTOMATIC_MATCH, name))).toEqual([]);
    const { options, used } = told({});
    expect(used).toEqual([]);
    expect(Object.fromEntries(Object.entries(options).filter(([, value]) => value !== undefined))).toEqual({
      direction: 'auto',
      starts: [],
      ties: [],
      pairs: [],
      opening: 'auto',
      unpairedOrder: 'auto',
      points: [],
    });
  });

  test('a list is decided by what is in it, a choice by not being automatic', () => {
    const tie = pairOf(P, Q);
    const own = match({ ties: [tie], smoothing: 0, unpairedOrder: 'after' });
    expect(DECISION_NAMES.filter((name) => isDecided(own, name))).toEqual(['ties', 'unpairedOrder', 'smoothing']);
  });

  test('what an alternative pairs is told as pairs of contours, where nothing else is said of either', () => {
    const taken = {
      look: [0, 0],
      pairs: [
        { a: 'one', b: 'two' },
        { a: 'three', b: null },
        { a: null, b: 'four' },
      ],
    };
    const own = match({ taken, pairs: [{ a: 'five', b: 'two' }] });
    expect(settledMatch(own)).toEqual(
      match({
        pairs: [
          { a: 'five', b: 'two' },
          { a: 'three', b: null },
          { a: null, b: 'four' },
        ],
      }),
    );
    const none = match({ pairs: [{ a: 'five', b: 'two' }] });
    expect(settledMatch(none)).toBe(none);
    expect([isDecided(own, 'taken'), isDecided(none, 'taken')]).toEqual([true, false]);
  });

  test('choices go on as they are; a smoothing of nothing is one', () => {
    expect(
      told({ direction: 'reversed', opening: 'chord', unpairedOrder: 'overlap', smoothing: 0, even: 24 }).options,
    ).toMatchObject({ direction: 'reversed', opening: 'chord', unpairedOrder: 'overlap', smoothing: 0, even: 24 });
  });

  test('starts, ties and points become contours and shares; what is gone is left out', () => {
    const [tie, start, lost] = [pairOf(P, Q), pairOf(Q, P), pairOf(P, GONE)];
    const { options, used } = told({ ties: [tie, lost, pairOf(GONE, P)], starts: [start], points: [Q, GONE] });
    expect(options.ties).toEqual([{ contourA: 1, shareA: 0.25, contourB: 2, shareB: 0.5 }]);
    expect(options.starts).toEqual([{ contourA: 1, shareA: 0.5, contourB: 2, shareB: 0.25 }]);
    expect(options.points).toEqual([{ contourA: 1, shareA: 0.5 }]);
    expect(used).toEqual([start, tie, Q]);
  });

  test('contours become indices: directions and wipes of those that are there, pairs of which one may be none', () => {
    const directions = [
      { contour: 'one', direction: 'reversed' },
      { contour: 'two', direction: 'same' },
    ] as const;
    const pairs = [
      { a: 'one', b: 'two' },
      { a: null, b: 'two' },
      { a: 'one', b: null },
      { a: null, b: null },
      { a: 'two', b: 'one' },
    ];
    const wipes = [
      { contour: 'one', angle: 90 },
      { contour: 'three', angle: 0 },
    ];
    const { options, used } = told({ directions, pairs, wipes });
    expect(options.directions).toEqual([{ contourA: 3, direction: 'reversed' }]);
    expect(options.pairs).toEqual([
      [3, 5],
      [-1, 5],
      [3, -1],
    ]);
    expect(options.wipes).toEqual([
      { side: 'a', contour: 3, angle: Math.PI / 2 },
      { side: 'b', contour: 4, angle: Math.PI / 2 },
    ]);
    expect(used).toEqual([directions[0], ...pairs.slice(0, 3), wipes[0], wipes[0]]);
  });

  test('cuts are brought to the canvas, each by the matrix of its side', () => {
    const cut = (side: 'from' | 'to') => ({ id: side, side, line: [1, 2, 3, 4] as const });
    expect(told({ cuts: [cut('from'), cut('to')] }).options.cuts).toEqual({
      a: [[8, 21, 6, 23]],
      b: [[2, 4, 6, 8]],
    });
  });

  test('moves of a touch-up are turned but not moved; one without a point that is there is none', () => {
    const point = (place: Place) => ({ place, by: [6, -9] as const, before: [1, 0] as const, after: [0, 1] as const });
    const touchUps = [
      { id: 't', progress: 0.3, points: [point(P), point(GONE)] },
      { id: 'u', progress: 0.7, points: [point(GONE)] },
    ];
    const { options, used } = told({ touchUps });
    expect(options.touchUps).toEqual([
      { progress: 0.3, moves: [{ contourA: 1, shareA: 0.25, by: [9, 6], before: [0, 1], after: [-1, 0] }] },
    ]);
    expect(used).toEqual([touchUps[0].points[0]]);
  });

  test('what was not used is counted in words; touch-ups by their points, cuts never', () => {
    const point = { place: P, by: [0, 0] as const, before: [0, 0] as const, after: [0, 0] as const };
    const [tie, other] = [pairOf(P, Q), pairOf(Q, Q)];
    const own = match({
      ties: [tie, other],
      starts: [pairOf(P, P)],
      cuts: [{ id: 'c', side: 'from', line: [0, 0, 1, 1] }],
      touchUps: [{ id: 't', progress: 0.5, points: [point, { ...point }, { ...point }] }],
    });
    expect(unusedDecisions(own, new Set())).toEqual(['A start point', '2 ties', '3 points of touch-ups']);
    expect(unusedDecisions(own, new Set([tie, own.starts[0], ...own.touchUps[0].points.slice(1)]))).toEqual([
      'A tie',
      'A point of a touch-up',
    ]);
    expect(inWords(0, DECISIONS.ties)).toEqual([]);
  });
});

describe('decisions on outlines that were changed', () => {
  const moved = spot('moved');
  const [here, there]: Carrier[] = ['one', 'two'].map((contour) => ({
    carry: (place) => (place === P ? P : place === Q ? moved : undefined),
    hasContour: (id) => id === contour,
  }));

  test('ties and starts stay the same record where nothing moved, and are lost with either place', () => {
    for (const { carry } of [DECISIONS.ties, DECISIONS.starts]) {
      const kept = pairOf(P, P);
      expect(carry?.(kept, here, there)).toBe(kept);
      expect(carry?.(pairOf(P, Q), here, there)).toEqual({ ...pairOf(P, Q), b: moved });
      expect(carry?.(pairOf(Q, P), here, there)).toEqual({ ...pairOf(Q, P), a: moved });
      expect(carry?.(pairOf(GONE, P), here, there)).toBeUndefined();
      expect(carry?.(pairOf(P, GONE), here, there)).toBeUndefined();
    }
    expect(DECISIONS.points.carry?.(Q, here, there)).toBe(moved);
  });

  test('what is about contours stays while they are there', () => {
    const pair = (a: string | null, b: string | null) => DECISIONS.pairs.carry?.({ a, b }, here, there) !== undefined;
    expect([pair('one', 'two'), pair(null, 'two'), pair('one', null), pair('two', 'two'), pair('one', 'one')]).toEqual([
      true,
      true,
      true,
      false,
      false,
    ]);
    const direction = (contour: string) =>
      DECISIONS.directions.carry?.({ contour, direction: 'same' }, here, there) !== undefined;
    expect([direction('one'), direction('two')]).toEqual([true, false]);
    const wipe = (contour: string) => DECISIONS.wipes.carry?.({ contour, angle: 0 }, here, there) !== undefined;
    expect([wipe('one'), wipe('two'), wipe('three')]).toEqual([true, true, false]);
  });

  test('a touch-up keeps the points that are there, and goes with the last', () => {
    const point = (place: Place) => ({ place, by: [1, 1] as const, before: [0, 0] as const, after: [0, 0] as const });
    const carry = (...places: Place[]) =>
      DECISIONS.touchUps.carry?.({ id: 't', progress: 0.5, points: places.map(point) }, here, there);
    expect(carry(P, GONE, Q)).toEqual({ id: 't', progress: 0.5, points: [point(P), point(moved)] });
    expect(carry(GONE)).toBeUndefined();
    const still = { id: 't', progress: 0.5, points: [point(P)] };
    expect(DECISIONS.touchUps.carry?.(still, here, there)).toBe(still);
  });
});
