import { ease, pieceDuration } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import {
  beadHeight,
  insertionStop,
  layoutRail,
  MOST_ZOOM,
  RAIL,
  railWidth,
  rulerStep,
  scrollToShow,
  spread,
  timeToX,
  xToTime,
} from './layout';

const SQUARE = 'M0 0H10V10H0Z';
const piece = pieceOf([SQUARE, SQUARE, SQUARE]);
const layout = layoutRail(piece, piece.figures.f, 1280, pieceDuration(piece));

describe('the rail is true to scale', () => {
  test('bars are as long as holds, arcs as long as shifts', () => {
    expect(layout.bars.map(({ x0, x1 }) => +((x1 - x0) / layout.scale).toFixed(9))).toEqual([0.8, 0.8, 0.8]);
    expect(layout.arcs.map(({ x0, x1 }) => +((x1 - x0) / layout.scale).toFixed(9))).toEqual([0.6, 0.6]);
    layout.arcs.forEach((arc, i) => {
      expect(arc.x0).toBeCloseTo(layout.bars[i].x1, 9);
      expect(arc.x1).toBeCloseTo(layout.bars[i + 1].x0, 9);
    });
  });

  test('times and places are each other’s inverse', () => {
    for (const t of [0, 0.3, 2.9]) expect(xToTime(layout, timeToX(layout, t))).toBeCloseTo(t, 9);
    expect(xToTime({ scale: 0 }, 500)).toBe(0);
  });

  test('the bead runs along the bars and along the easing curve', () => {
    expect(beadHeight(layout, 0.4)).toBe(RAIL.lower);
    expect(beadHeight(layout, 1.6)).toBe(RAIL.upper);
    const shift = piece.shifts[piece.figures.f.rail[0]];
    for (const share of [0.2, 0.5, 0.8]) {
      const risen = (RAIL.lower - beadHeight(layout, 0.8 + 0.6 * share)) / (RAIL.lower - RAIL.upper);
      expect(risen).toBeCloseTo(ease(shift.easing, share), 6);
    }
  });

  test('a gesture may keep the scale', () => {
    expect(layoutRail(piece, piece.figures.f, 1280, 99, 100).bars[0].x1).toBe(RAIL.padding + 80);
  });
});

describe('a long rail', () => {
  test('is as wide as its pane where its cards have room, else as wide as they need, and wider by the zoom', () => {
    expect(railWidth(1280, 3, 1)).toBe(1280);
    expect(railWidth(1280, 3, 2)).toBe(2560);
    expect(railWidth(1280, 3, 1e6)).toBe(1280 * MOST_ZOOM);
    const many = pieceOf(Array.from({ length: 40 }, () => SQUARE));
    const width = railWidth(1280, 40, 1);
    expect(width).toBeGreaterThan(1280);
    const { bars } = layoutRail(many, many.figures.f, width, pieceDuration(many));
    for (let i = 1; i < bars.length; i++)
      expect(bars[i].cardX - bars[i - 1].cardX).toBeGreaterThanOrEqual(RAIL.card + RAIL.cardGap - 1e-9);
    expect(bars[39].cardX + RAIL.card).toBeLessThanOrEqual(width);
  });

  test('is scrolled only where the bead would be out of sight', () => {
    expect(scrollToShow(500, 0, 1280)).toBe(0);
    expect(scrollToShow(1300, 0, 1280)).toBe(1300 - 0.15 * 1280);
    expect(scrollToShow(1400, 1500, 1280)).toBeCloseTo(1400 - 0.85 * 1280, 9);
    expect(scrollToShow(40, 300, 1280)).toBe(0);
  });
});

describe('cards', () => {
  test('hang over their bars, never over each other, and stay inside', () => {
    for (const count of [2, 5, 12]) {
      const many = pieceOf(Array.from({ length: count }, () => SQUARE));
      const short = {
        ...many,
        poses: Object.fromEntries(Object.entries(many.poses).map(([id, pose]) => [id, { ...pose, hold: 0 }])),
      };
      const { bars } = layoutRail(short, short.figures.f, 900, pieceDuration(short));
      bars.forEach(({ cardX }, i) => {
        expect(cardX).toBeGreaterThanOrEqual(4);
        expect(cardX + RAIL.card).toBeLessThanOrEqual(900);
        if (i > 0) expect(cardX - bars[i - 1].cardX).toBeGreaterThanOrEqual(RAIL.card);
      });
    }
  });

  test('spreading moves as little as needed, and shares the room when there is too little', () => {
    expect(spread([10, 200, 400], 50, 0, 500)).toEqual([10, 200, 400]);
    expect(spread([100, 110, 400], 50, 0, 500)).toEqual([100, 150, 400]);
    expect(spread([480, 490], 50, 0, 500)).toEqual([450, 500]);
    expect(spread([0, 0, 0], 50, 0, 60)).toEqual([0, 30, 60]);
    expect(spread([], 50, 0, 60)).toEqual([]);
  });

  test('a drop goes before the card at its right', () => {
    const [a, b, c] = layout.bars;
    expect(insertionStop(layout, a.cardX)).toBe(0);
    expect(insertionStop(layout, (a.cardX + b.cardX) / 2 + 22)).toBe(1);
    expect(insertionStop(layout, c.cardX + RAIL.card)).toBe(3);
  });
});

test('ruler marks are round and at least so far apart', () => {
  expect([rulerStep(100, 64), rulerStep(1000, 64), rulerStep(10, 64), rulerStep(0.001, 64)]).toEqual([
    1, 0.1, 10, 1200,
  ]);
});
