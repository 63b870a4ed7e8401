import { describe, expect, test } from '@jest/globals';
import {
  type Contour,
  contourArea,
  contourLength,
  ellipseContour,
  type Outline,
  outlineOfContours,
  polygonContour,
  reverseContour,
  startAt,
  subdivide,
  withoutIdleAnchors,
} from '../outline';
import { outlineDistance } from '../testing/outline-distance';
import { cutContour, cutSolid } from './cut-contour';
import { automaticCut } from './cuts';
import { joinBySlits } from './joined-contour';
import { runContour, runShare, writtenShare } from './run-contour';
import { slitChoices } from './slits';

const disc = ellipseContour(50, 50, 40, 40);
const ring: Outline = outlineOfContours([disc, reverseContour(ellipseContour(50, 50, 20, 20))]);
const whole = (contour: typeof disc) => ({ contour, bridges: [] });

describe('idle anchors', () => {
  test('points on straight lines and split curves go, the shape and its length stay', () => {
    for (const contour of [disc, polygonContour([0, 0, 60, 0, 90, 40, 20, 80])]) {
      const dense = subdivide(contour, 4);
      const found = withoutIdleAnchors(dense);
      expect(found.contour.points.length).toBe(contour.points.length);
      expect(contourLength(found.contour)).toBeCloseTo(contourLength(contour), 4);
      expect(outlineDistance(outlineOfContours([found.contour]), outlineOfContours([contour]))).toBeLessThan(0.01);
    }
  });

  test('a file that starts in the middle of a line starts at its corner, and says where that is', () => {
    const square = polygonContour([0, 0, 100, 0, 100, 100, 0, 100]);
    const { contour, start } = withoutIdleAnchors(startAt(subdivide(square, 2), 1));
    expect((contour.points.length / 2 - 1) / 3).toBe(4);
    expect([contour.points[0], contour.points[1]]).toEqual([0, 0]);
    expect(start).toBeCloseTo(7 / 8, 6);
  });

  test('corners and smooth joints of other curves stay', () => {
    const kinked = polygonContour([0, 0, 50, 1, 100, 0, 100, 100, 0, 100]);
    expect(withoutIdleAnchors(kinked).contour).toBe(kinked);
    expect(withoutIdleAnchors(disc).contour).toBe(disc);
  });
});

describe('slits', () => {
  test('join hole and solid to one contour of the same area, whose added edges lie on each other', () => {
    const choices = slitChoices(ring, 0, [1]);
    expect(choices.length).toBe(8);
    for (const slits of choices) {
      const { contour, bridges } = joinBySlits(ring.contours, 0, slits);
      expect(contourArea(contour)).toBeCloseTo(contourArea(ring.contours[0]) + contourArea(ring.contours[1]), 4);
      expect(bridges).toHaveLength(2);
      const added = bridges.map((k) => contour.points.slice(6 * k, 6 * k + 8));
      expect(Math.hypot(added[0][0] - added[1][6], added[0][1] - added[1][7])).toBeLessThan(1e-6);
      expect(contourLength(contour)).toBeCloseTo(
        contourLength(ring.contours[0]) + contourLength(ring.contours[1]) + 40,
        3,
      );
    }
  });

  test('do not cross other contours; several holes are joined at places of their own', () => {
    const face = outlineOfContours([
      ellipseContour(50, 50, 48, 48),
      reverseContour(ellipseContour(32, 40, 8, 8)),
      reverseContour(ellipseContour(68, 40, 8, 8)),
    ]);
    for (const slits of slitChoices(face, 0, [1, 2])) {
      expect(slits.map(({ hole }) => hole).sort()).toEqual([1, 2]);
      expect(Math.abs(slits[0].at - slits[1].at)).toBeGreaterThan(1e-3);
      const joined = joinBySlits(face.contours, 0, slits);
      expect(joined.bridges).toHaveLength(4);
      expect(contourArea(joined.contour)).toBeCloseTo(Math.PI * (48 * 48 - 2 * 64), -1);
    }
  });
});

describe('cuts', () => {
  test('divide a disc into halves that run the same way and whose new edges run against each other', () => {
    const halves = cutContour(whole(disc), [[50, 0, 50, 100]]);
    expect(halves).toHaveLength(2);
    for (const { contour, bridges } of halves) {
      expect(contourArea(contour)).toBeCloseTo(contourArea(disc) / 2, 3);
      expect(bridges).toHaveLength(1);
    }
    const [first, second] = halves.map(({ contour, bridges }) =>
      contour.points.slice(6 * bridges[0], 6 * bridges[0] + 8),
    );
    expect(first[0]).toBeCloseTo(second[6], 6);
    expect(first[1]).toBeCloseTo(second[7], 6);
  });

  test('a line through a bent shape may leave more than two parts; one beside it leaves it whole', () => {
    const arch = polygonContour([0, 0, 100, 0, 100, 100, 70, 100, 70, 30, 30, 30, 30, 100, 0, 100]);
    const parts = cutContour(whole(arch), [[0, 60, 100, 60]]);
    expect(parts).toHaveLength(3);
    expect(parts.reduce((sum, { contour }) => sum + contourArea(contour), 0)).toBeCloseTo(contourArea(arch), 6);
    expect(cutContour(whole(arch), [[0, 200, 100, 200]])).toHaveLength(1);
    expect(cutContour(whole(arch), [[5, 5, 5, 5]])).toHaveLength(1);
  });

  test('made automatically they share the area out as the targets do, in their order', () => {
    const targets = [polygonContour([80, 0, 100, 0, 100, 60, 80, 60]), polygonContour([0, 0, 10, 0, 10, 40, 0, 40])];
    const cut = automaticCut([whole(disc)], targets);
    const order = cut?.order ?? [];
    expect([...order].sort()).toEqual([0, 1]);
    const parts = cutContour(whole(disc), cut?.lines ?? []);
    const areas = parts.map(({ contour }) => contourArea(contour));
    const wanted = order.map((i) => Math.abs(contourArea(targets[i])));
    expect(areas[0] / areas[1]).toBeCloseTo(wanted[0] / wanted[1], 2);
    // Targets on one spot have no direction to cut across.
    expect(automaticCut([whole(disc)], [disc, disc])).toBeUndefined();
  });
});

describe('runs', () => {
  test('shares of the written contour and of the run tell each other, either way round', () => {
    const outline = outlineOfContours([startAt(subdivide(polygonContour([0, 0, 70, 0, 90, 50, 10, 60]), 3), 2)]);
    for (const reversed of [false, true]) {
      const run = runContour(outline, 0, undefined, reversed, false);
      for (const share of [0, 0.1, 0.35, 0.5, 0.83]) {
        const along = runShare(run, share);
        const back = writtenShare(run, along);
        expect(Math.min(Math.abs(back - share), 1 - Math.abs(back - share))).toBeLessThan(1e-9);
      }
    }
    const line = outlineOfContours([polygonContour([0, 0, 50, 20, 100, 0], false)]);
    const run = runContour(line, 0, undefined, true, false);
    expect(runShare(run, 0.2)).toBeCloseTo(0.8, 12);
    expect(writtenShare(run, 0.8)).toBeCloseTo(0.2, 12);
  });

  test('a joined run reversed keeps its bridges', () => {
    const slits = slitChoices(ring, 0, [1])[0];
    const forward = runContour(ring, 0, { slits }, false, false);
    const backward = runContour(ring, 0, { slits }, true, false);
    expect(contourArea(backward.contour)).toBeCloseTo(-contourArea(forward.contour), 6);
    const lengths = ({ contour, bridges }: typeof forward): number[] =>
      bridges.map((k) =>
        Math.hypot(
          contour.points[6 * k + 6] - contour.points[6 * k],
          contour.points[6 * k + 7] - contour.points[6 * k + 1],
        ),
      );
    expect(lengths(backward).sort()).toEqual(
      lengths(forward)
        .sort()
        .map((v) => expect.closeTo(v, 6)),
    );
  });
});

describe('cuts of solids with holes', () => {
  const rings = [disc, reverseContour(ellipseContour(50, 50, 15, 15))].map(whole);
  const areaOf = (part: readonly { contour: Contour }[]): number =>
    part.reduce((sum, { contour }) => sum + contourArea(contour), 0);

  test('through the hole leave two halves without one, each with two new edges', () => {
    const parts = cutSolid(rings, [[50, 0, 50, 100]]);
    expect(parts.map((part) => part.length)).toEqual([1, 1]);
    for (const part of parts) {
      expect(areaOf(part)).toBeCloseTo(areaOf(rings) / 2, 3);
      expect(part[0].bridges).toHaveLength(2);
    }
  });

  test('beside the hole leave it in its part; two lines open it into four quarters', () => {
    const beside = cutSolid(rings, [[20, 0, 20, 100]]);
    expect(beside.map((part) => part.length).sort()).toEqual([1, 2]);
    expect(beside.reduce((sum, part) => sum + areaOf(part), 0)).toBeCloseTo(areaOf(rings), 3);
    const quarters = cutSolid(rings, [
      [50, 0, 50, 100],
      [0, 50, 100, 50],
    ]);
    expect(quarters).toHaveLength(4);
    for (const part of quarters) expect(areaOf(part)).toBeCloseTo(areaOf(rings) / 4, 3);
  });
});
