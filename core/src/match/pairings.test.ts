import { describe, expect, test } from '@jest/globals';
import type { Outline } from '../outline';
import { readPathData } from '../svg';
import type { MatchOptions } from './match';
import { matchOutlines, prepareMatcher } from './match-outlines';
import { type Pairing, pairingsOf } from './pairings';

const BOX = readPathData('M0 0H100V100H0Z');
const RING = readPathData('M0 0H100V100H0ZM30 30V70H70V30Z');
const TWO_RINGS = readPathData('M0 0H100V100H0ZM10 30V70H40V30ZM60 30V70H90V30Z');
const TWO_BARS = readPathData('M0 0H30V100H0ZM70 0H100V100H70Z');
const THREE_BARS = readPathData('M0 0H20V100H0ZM40 0H60V100H40ZM80 0H100V100H80Z');
const BAR_AND_DOT = readPathData('M35 30H65V100H35ZM35 0H65V20H35Z');
const LINE = readPathData('M0 80C30 20 70 20 100 80');

const pairings = (a: Outline, b: Outline, options: MatchOptions = {}): Pairing[] =>
  pairingsOf(prepareMatcher(a, b, options));
const slits = ({ slots }: Pairing): number =>
  slots.flat().filter(({ joiningA, joiningB }) => joiningA?.slits || joiningB?.slits).length;
const cutParts = ({ slots }: Pairing): number[] =>
  slots.map(([{ joiningA, joiningB }]) => (joiningA?.cut ?? joiningB?.cut)?.part ?? -1);

describe('ways to pair contours', () => {
  test('an unpaired hole is joined by one of several slits, or left alone', () => {
    const ways = pairings(RING, BOX);
    expect(ways).toHaveLength(2);
    expect(slits(ways[0])).toBeGreaterThan(4);
    expect(ways[0].unpairedA).toEqual([]);
    expect(slits(ways[1])).toBe(0);
    expect(ways[1].unpairedA).toEqual([1]);
    // The other way round it is born.
    expect(pairings(BOX, RING)[1].unpairedB).toEqual([1]);
  });

  test('of many places for a slit those that fit best are kept by a first look, and few are not looked at', () => {
    // A hole near the right edge: a slit there opens it into a C like the other outline.
    const matcher = prepareMatcher(
      readPathData('M0 0H100V100H0ZM20 20V80H90V20Z'),
      readPathData('M0 0H100V20H20V80H100V100H0Z'),
      {},
    );
    const [ways] = pairingsOf(matcher)[0].slots;
    expect(ways.length).toBeGreaterThan(3);
    const cost = (spec: (typeof ways)[number]): number => matcher.fits(spec)[0].cost;
    const best = [...ways].sort((p, q) => cost(p) - cost(q))[0];
    const kept = matcher.promising(ways);
    expect(kept).toHaveLength(3);
    expect(kept).toContain(best);
    expect(matcher.promising([...ways].reverse())).toContain(best);
    const worst = Math.max(...ways.map(cost));
    expect(kept.map(cost)).not.toContain(worst);
    expect(matcher.promising(ways.slice(0, 3))).toEqual(ways.slice(0, 3));
  });

  test('two holes are joined both; holes that have partners are not', () => {
    const [joined] = pairings(TWO_RINGS, BOX);
    expect(joined.slots[0][0].joiningA?.slits).toHaveLength(2);
    for (const way of pairings(RING, RING)) expect(slits(way)).toBe(0);
  });

  test('holes that have partners may also go and come anew, as a last resort', () => {
    const ways = pairings(RING, RING);
    const last = ways.filter(({ lastResort }) => lastResort);
    expect(last).toHaveLength(1);
    expect(last[0]).toMatchObject({ unpairedA: [1], unpairedB: [1] });
    expect(ways[0].lastResort).toBeFalsy();
  });

  test('a solid without partner is cut from the nearest that has one, or comes alone', () => {
    const ways = pairings(BOX, TWO_BARS);
    expect(cutParts(ways[0])).toEqual([0, 1]);
    expect(ways[0].slots.map(([spec]) => [spec.a, spec.b])).toEqual([
      [0, 0],
      [0, 1],
    ]);
    expect(ways[ways.length - 1].unpairedB).toHaveLength(1);
    expect(cutParts(pairings(BOX, THREE_BARS)[0])).toEqual([0, 1, 2]);
    expect(cutParts(pairings(TWO_BARS, BOX)[0])).toEqual([0, 1]);
  });

  test('a ring is cut through its hole, which opens into the edges of both parts', () => {
    const [way] = pairings(RING, TWO_BARS).filter((one) => cutParts(one)[0] === 0);
    expect(way.slots.map(([{ joiningA }]) => joiningA?.cut?.holes)).toEqual([[1], [1]]);
    expect(way.unpairedA).toEqual([]);
    // A line beside the hole leaves it whole in one part: that is no cut into two solids.
    const beside = pairings(RING, TWO_BARS, { cuts: { a: [[10, 0, 10, 100]] } });
    expect(beside.some((one) => one.slots[0][0].joiningA?.cut?.lines[0][0] === 10)).toBe(false);
  });

  test('who draws a line has it, where it gives as many parts as are needed', () => {
    const line = [50, -10, 50, 110] as const;
    const ways = pairings(BOX, TWO_BARS, { cuts: { a: [line] } });
    expect(ways.every((way) => cutParts(way).includes(0))).toBe(true);
    expect(ways[0].slots[0][0].joiningA?.cut?.lines).toEqual([line]);
    // A second line would give four parts: it is left out.
    const more = pairings(BOX, TWO_BARS, { cuts: { a: [line, [-10, 50, 110, 50]] } });
    expect(more[0].slots[0][0].joiningA?.cut?.lines).toEqual([line]);
    // A line beside the solid: the program cuts by itself, and says so.
    const beside = matchOutlines(BOX, TWO_BARS, { cuts: { a: [[200, 0, 200, 9]] } });
    expect(beside.reasons.find(({ code }) => code === 'choice-lost')?.text).toContain('first outline cuts nothing');
  });

  test('contours that were said to go or come alone are neither joined nor cut', () => {
    for (const way of pairings(RING, BOX, { pairs: [[1, -1]] })) {
      expect(slits(way)).toBe(0);
      expect(way.unpairedA).toEqual([1]);
    }
    for (const way of pairings(BOX, TWO_BARS, { pairs: [[-1, 1]] })) {
      expect(cutParts(way)).toEqual([-1]);
      expect(way.unpairedB).toEqual([1]);
    }
    for (const way of pairings(RING, BOX, { wipes: [{ side: 'a', contour: 1, angle: 0 }] }))
      expect([slits(way), way.unpairedA]).toEqual([0, [1]]);
  });

  test('contours that were paired by hand are paired, also a solid with a hole', () => {
    for (const way of pairings(RING, BAR_AND_DOT, {
      pairs: [
        [0, 1],
        [1, 0],
      ],
    })) // prettier-ignore
      expect(way.slots.map(([spec]) => [spec.a, spec.b]).sort()).toEqual([
        [0, 1],
        [1, 0],
      ]);
  });

  test('an open line is closed by its chord only on request, on whichever side it is', () => {
    const specs = (a: Outline, b: Outline, opening: MatchOptions['opening']) =>
      pairings(a, b, { opening })[0].slots[0][0];
    expect(specs(LINE, BOX, 'auto')).toEqual({ a: 0, b: 0 });
    expect(specs(LINE, BOX, 'cut')).toEqual({ a: 0, b: 0 });
    expect(specs(LINE, BOX, 'chord')).toEqual({ a: 0, b: 0, joiningA: { chord: true } });
    expect(specs(BOX, LINE, 'chord')).toEqual({ a: 0, b: 0, joiningB: { chord: true } });
    expect(specs(LINE, LINE, 'chord')).toEqual({ a: 0, b: 0 });
  });

  test('the best assignment comes first, others cost more', () => {
    const ways = pairings(THREE_BARS, TWO_BARS);
    expect(ways[0].extra).toBe(0);
    // Each assignment is offered with a cut, and without.
    expect(ways.map(({ extra }) => +extra.toFixed(3))).toEqual([0, 0, 0.6, 0.6, 0.6, 0.6]);
  });

  test('the cheapest match joins and cuts nothing', () => {
    const match = matchOutlines(RING, BOX);
    expect(match.unpairedA).toEqual([1]);
    expect(match.pairs[0].joiningA).toBeUndefined();
    expect(matchOutlines(LINE, BOX, { opening: 'chord' }).pairs[0].joiningA).toEqual({ chord: true });
  });
});
