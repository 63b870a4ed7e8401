import { describe, expect, test } from '@jest/globals';
import { cubicPoint } from '../curve';
import { matchOutlines } from '../match';
import { contourArea, ellipseContour, measureArcLength, type Outline, outlineOfContours } from '../outline';
import { readPathData } from '../svg';
import { realIcons } from '../testing/icons';
import { outlineDistance } from '../testing/outline-distance';
import { endOutline } from './end-outline';
import { evaluate } from './evaluate';
import { measureHealth } from './health';
import type { ShiftPlan } from './plan';
import { inBetweenOutline } from './plan-outline';
import { planShift } from './plan-shift';
import { rankAlternatives } from './rank';

const NOTHING: Outline = { contours: [], fillRule: 'nonzero' };
const RIGHT = 0;
const DOWN = Math.PI / 2;

/** A shift in which the only contour comes, or goes, by wiping. */
function wipedPlan(outline: Outline, angle: number, role: 'appears' | 'vanishes'): ShiftPlan {
  const [a, b] = role === 'appears' ? [NOTHING, outline] : [outline, NOTHING];
  const side = role === 'appears' ? 'b' : 'a';
  return planShift(a, b, matchOutlines(a, b, { wipes: [{ side, contour: 0, angle }] }));
}

const areaAt = (plan: ShiftPlan, p: number): number =>
  Math.abs(contourArea(inBetweenOutline(plan, evaluate(plan, p)).contours[0]));

/** Area of a finely flattened contour on one side of a line, by clipping edge by edge (Sutherland & Hodgman, 1974). */
function clippedArea(outline: Outline, x: number, y: number, level: number): number {
  const { points } = outline.contours[0];
  const polygon: [number, number][] = [];
  for (let i = 0; i + 6 < points.length; i += 6)
    for (let s = 0; s < 200; s++) {
      const [px, py] = cubicPoint(points, i, s / 200, new Float64Array(2));
      polygon.push([px, py]);
    }
  const kept: [number, number][] = [];
  polygon.forEach((p, k) => {
    const q = polygon[(k + 1) % polygon.length];
    const sp = p[0] * x + p[1] * y - level;
    const sq = q[0] * x + q[1] * y - level;
    if (sp <= 0) kept.push(p);
    if (sp <= 0 !== sq <= 0) {
      const t = sp / (sp - sq);
      kept.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]);
    }
  });
  let double = 0;
  kept.forEach(([px, py], k) => {
    const [qx, qy] = kept[(k + 1) % kept.length];
    double += px * qy - qx * py;
  });
  return Math.abs(double / 2);
}

describe('an unpaired contour that is wiped', () => {
  test('a circle shows the circular segment that the handbook says (Bronstein & Semendjajew: area r²(α − sin α)/2)', () => {
    const r = 40;
    const plan = wipedPlan(outlineOfContours([ellipseContour(50, 50, r, r)]), RIGHT, 'appears');
    for (const p of [0.1, 0.3, 0.5, 0.8]) {
      const alpha = 2 * Math.acos(1 - 2 * p);
      const segment = (r * r * (alpha - Math.sin(alpha))) / 2;
      // Four cubics are a circle to 0.03 % of the radius.
      expect(areaAt(plan, p) / segment).toBeCloseTo(1, 2);
    }
  });

  test('shows exactly what lies on one side of the edge: real icons in four directions against clipped polygons', () => {
    const icons = realIcons(60, 11)
      .map(({ d }) => readPathData(d))
      .filter(({ contours }) => contours.length === 1)
      .slice(0, 12);
    icons.forEach((icon, n) => {
      const angle = (n % 4) * DOWN + (n > 6 ? 0.4 : 0);
      const plan = wipedPlan(icon, angle, 'appears');
      const { wipe } = plan.contours[0];
      if (wipe?.kind !== 'edge') throw new Error('Expected an edge.');
      for (const p of [0.15, 0.4, 0.65, 0.9]) {
        const level = wipe.first + (wipe.last - wipe.first) * p;
        expect(areaAt(plan, p)).toBeCloseTo(clippedArea(icon, wipe.x, wipe.y, level), 1);
      }
    });
  });

  test('what goes is covered from the side that what comes is uncovered from', () => {
    const square = readPathData('M0 0H100V100H0Z');
    const going = wipedPlan(square, RIGHT, 'vanishes');
    const inBetween = inBetweenOutline(going, evaluate(going, 0.25));
    expect(Math.min(...inBetween.contours[0].points.filter((_, i) => i % 2 === 0))).toBeCloseTo(25, 9);
    expect(areaAt(going, 0.25)).toBeCloseTo(7500, 6);
    const coming = wipedPlan(square, DOWN, 'appears');
    const shown = inBetweenOutline(coming, evaluate(coming, 0.25));
    expect(Math.max(...shown.contours[0].points.filter((_, i) => i % 2 === 1))).toBeCloseTo(25, 9);
  });

  test('is nothing at one end and the outline at the other; moves without jumps in between', () => {
    const outline = readPathData('M10 50C10 20 40 0 60 30S110 60 90 90 30 110 10 50Z');
    for (const role of ['appears', 'vanishes'] as const) {
      const plan = wipedPlan(outline, 0.7, role);
      const whole = role === 'appears' ? 1 : 0;
      expect(outlineDistance(endOutline(plan, whole === 1 ? 'second' : 'first'), outline)).toBeLessThan(0.01);
      expect(areaAt(plan, 1 - whole)).toBeLessThan(0.1);
      let before = evaluate(plan, 0);
      for (let k = 1; k <= 400; k++) {
        const now = evaluate(plan, k / 400);
        // A number that is none fails this too.
        expect(now.every((v, i) => Math.abs(v - before[i]) < 12)).toBe(true);
        before = now;
      }
      expect(measureHealth(plan).folds).toBe(0);
    }
  });

  test('a stroke does not follow the wiping edge', () => {
    const plan = wipedPlan(readPathData('M0 0H100V100H0Z'), RIGHT, 'appears');
    const [contour] = plan.contours;
    const inBetween = evaluate(plan, 0.5);
    for (let k = 0; k < contour.segments; k++) {
      const [x0, x1] = [inBetween[6 * k], inBetween[6 * k + 6]];
      const [y0, y1] = [inBetween[6 * k + 1], inBetween[6 * k + 7]];
      const onEdge = Math.abs(x0 - 50) < 1e-9 && Math.abs(x1 - 50) < 1e-9 && Math.abs(y1 - y0) > 1e-9;
      if (onEdge) expect(contour.bridgesA).toContain(k);
    }
  });

  test('an open line is drawn from its start and taken back to it', () => {
    const line = readPathData('M0 0H60V80');
    const length = (plan: ShiftPlan, p: number): number =>
      measureArcLength({
        points: inBetweenOutline(plan, evaluate(plan, p)).contours[0].points,
        closed: false,
      }).cumulative.slice(-1)[0];
    expect(length(wipedPlan(line, RIGHT, 'appears'), 0.25)).toBeCloseTo(35, 3);
    expect(length(wipedPlan(line, RIGHT, 'appears'), 0.75)).toBeCloseTo(105, 3);
    expect(length(wipedPlan(line, RIGHT, 'vanishes'), 0.75)).toBeCloseTo(35, 3);
  });

  test('a choice of wiping keeps a hole from being opened by a slit, and is told', () => {
    const ring = readPathData('M0 0H100V100H0ZM30 30V70H70V30Z');
    const disc = readPathData('M0 0H100V100H0Z');
    const free = rankAlternatives(ring, disc)[0];
    expect(free.match.pairs[0].joiningA?.slits).toHaveLength(1);
    const wiped = rankAlternatives(ring, disc, { wipes: [{ side: 'a', contour: 1, angle: RIGHT }] })[0];
    expect(wiped.match.unpairedA).toEqual([1]);
    expect(wiped.plan.contours[1].wipe?.kind).toBe('edge');
    expect(wiped.match.reasons.map(({ code }) => code)).toContain('wiped');
    expect(wiped.match.reasons.map(({ code }) => code)).not.toContain('contour-dies');
  });
});

describe('an open line that becomes a closed one', () => {
  const line = readPathData('M0 100C20 0 80 0 100 100');
  const blob = readPathData('M0 100C0 20 100 20 100 100C100 120 0 120 0 100Z');

  test('the closed one is cut open, or the line is closed by its chord, as was chosen', () => {
    const cut = rankAlternatives(line, blob)[0];
    expect(cut.plan.contours[0].closed).toBe(false);
    const chord = rankAlternatives(line, blob, { opening: 'chord' })[0];
    expect(chord.plan.contours[0].closed).toBe(true);
    expect(chord.match.reasons.map(({ code }) => code)).toContain('closed-by-chord');
    expect(measureHealth(chord.plan).verdict).not.toBe('broken');
    for (const { plan } of [cut, chord]) expect(outlineDistance(endOutline(plan, 'second'), blob)).toBeLessThan(0.01);
  });

  test('the chord is no edge of the line: no stroke follows it, and the end is the line alone', () => {
    for (const [a, b, end] of [
      [line, blob, 'first'],
      [blob, line, 'second'],
    ] as const) {
      const { plan } = rankAlternatives(a, b, { opening: 'chord' })[0];
      const [contour] = plan.contours;
      expect((end === 'first' ? contour.bridgesA : contour.bridgesB).length).toBeGreaterThan(0);
      const back = endOutline(plan, end);
      expect(back.contours).toHaveLength(1);
      expect(back.contours[0].closed).toBe(false);
      expect(outlineDistance(back, line)).toBeLessThan(0.01);
    }
  });
});
