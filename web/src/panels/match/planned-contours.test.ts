import { AUTOMATIC_MATCH, type MatchChoices, type Piece, type PoseShiftPlan, planPoseShift, shiftInput } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { comesOrGoes, isJoined, opensOrCloses, pairedContours, pairedNow, pointsText } from './planned-contours';

const SQUARE = 'M0 0H100V100H0Z';
const RING = `${SQUARE}M30 30V70H70V30Z`;
const LINE = 'M0 0L100 100';
/** A ring that is open at its right: a hole can open into it. */
const SECTOR = 'M90 50A40 40 0 1 0 50 90L50 70A20 20 0 1 1 70 50Z';

function planned(a: string, b: string, match: Partial<MatchChoices> = {}): [Piece, PoseShiftPlan] {
  const piece = pieceOf([a, b]);
  const input = shiftInput(piece, Object.values(piece.shifts)[0]);
  return [piece, planPoseShift({ ...input, match: { ...AUTOMATIC_MATCH, ...match } })];
}
const idsOf = (piece: Piece): string[][] =>
  Object.values(piece.parts).map(({ contours }) => contours.map(({ id }) => id));

test('contours are paired by their ids, in the order of the plan', () => {
  const [piece, plan] = planned(RING, RING);
  const [a, b] = idsOf(piece);
  expect([...pairedNow(piece, plan)]).toEqual([
    [a[0], [b[0]]],
    [a[1], [b[1]]],
  ]);
  expect(pairedNow(piece, undefined).size).toBe(0);
});

test('each paired contour tells whether its partner is run against its own way', () => {
  for (const [direction, reversed] of [
    ['same', false],
    ['reversed', true],
  ] as const) {
    const [piece, plan] = planned(SQUARE, SQUARE, { direction });
    expect([...pairedContours(piece, plan).values()]).toEqual([reversed]);
  }
});

test('something comes or goes where a contour has no partner', () => {
  expect(comesOrGoes(planned(SQUARE, SQUARE)[1])).toBe(false);
  expect(comesOrGoes(planned(SQUARE, `${SQUARE}M200 0L300 0`)[1])).toBe(true);
  expect(comesOrGoes(undefined)).toBe(false);
});

test('something opens or closes where a line becomes an area', () => {
  const [lines, both] = planned(LINE, SQUARE);
  expect(opensOrCloses(lines, both)).toBe(true);
  const [areas, alike] = planned(SQUARE, SECTOR);
  expect(opensOrCloses(areas, alike)).toBe(false);
});

describe('a hole that opens into its solid', () => {
  test('is joined to it; one that has a partner is not', () => {
    const [piece, plan] = planned(RING, SECTOR);
    const [[solid, hole]] = idsOf(piece);
    expect(plan.parts[0].plan.contours).toHaveLength(1);
    expect([isJoined(piece, plan, hole, 'a'), isJoined(piece, plan, solid, 'a')]).toEqual([true, false]);
    const [same, pairs] = planned(RING, RING);
    expect(isJoined(same, pairs, idsOf(same)[0][1], 'a')).toBe(false);
    expect(isJoined(piece, plan, 'unknown', 'a')).toBe(false);
  });
});

test('points are counted contour by contour', () => {
  expect(pointsText(undefined)).toBe('–');
  expect(pointsText(planned(SQUARE, SQUARE)[1])).toBe('4 points');
  expect(pointsText(planned(RING, RING)[1])).toBe('4 + 4 points');
});
