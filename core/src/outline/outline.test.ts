import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { svgPathProperties } from 'svg-path-properties';
import { cubicPoint } from '../curve';
import { readPathData } from '../svg';
import { realIcons } from '../testing/icons';
import { measureArcLength, placeAtShare, totalLength } from './arc-length';
import { areaCentre } from './centre';
import { reverseContour } from './change';
import { type Contour, ellipseContour, polygonContour, segmentAt, segmentCount } from './contour';
import { flattenContour, polylineWinding } from './flatten';
import { innerPoint } from './inner-point';
import { contourArea, contourLength, outlineBox, outlineLength, outlineSize } from './measure';
import { nestingOf, orientOutline } from './nesting';
import { placeOfShare, shareOfPlace } from './place';
import { addAnchors } from './split';

const square = (x: number, y: number, size: number): Contour =>
  polygonContour([x, y, x + size, y, x + size, y + size, x, y + size]);

describe('measures', () => {
  test('clockwise on screen is positive, reversing changes the sign', () => {
    expect(contourArea(square(3, 4, 10))).toBeCloseTo(100, 12);
    expect(contourArea(reverseContour(square(3, 4, 10)))).toBeCloseTo(-100, 12);
  });

  test('the four-cubic circle: published radial error 2.7e-4, area to 5e-4', () => {
    const circle = ellipseContour(0, 0, 1, 1);
    const point = new Float64Array(2);
    let worst = 0;
    for (let k = 0; k <= 200; k++) {
      cubicPoint(circle.points, 0, k / 200, point);
      worst = Math.max(worst, Math.abs(Math.hypot(point[0], point[1]) - 1));
    }
    expect(worst).toBeGreaterThan(2.6e-4);
    expect(worst).toBeLessThan(2.75e-4);
    expect(Math.abs(contourArea(circle) / Math.PI - 1)).toBeLessThan(5e-4);
  });

  test('lengths of 200 icons agree with svg-path-properties to 1e-4', () => {
    for (const { name, d } of realIcons(200)) {
      const ours = outlineLength(readPathData(d));
      const theirs = new svgPathProperties(d).getTotalLength();
      expect([name, Math.abs(ours - theirs) / theirs < 1e-4]).toEqual([name, true]);
    }
  });

  test('the box is as tight as a dense sampling', () => {
    for (const { d } of realIcons(60)) {
      const outline = readPathData(d);
      const box = outlineBox(outline);
      const seen = { minX: Infinity, maxX: -Infinity, minY: Infinity, maxY: -Infinity };
      for (const contour of outline.contours) {
        const line = flattenContour(contour, 1e-4);
        for (let i = 0; i < line.length; i += 2) {
          seen.minX = Math.min(seen.minX, line[i]);
          seen.maxX = Math.max(seen.maxX, line[i]);
          seen.minY = Math.min(seen.minY, line[i + 1]);
          seen.maxY = Math.max(seen.maxY, line[i + 1]);
        }
      }
      for (const side of ['minX', 'maxX', 'minY', 'maxY'] as const)
        expect(Math.abs(box[side] - seen[side])).toBeLessThan(2e-3);
    }
  });

  test('centre of a half disc: 4r/3π from its diameter (handbook formula)', () => {
    const { x, y } = areaCentre(readPathData('M-1 0A1 1 0 0 1 1 0Z'));
    expect(x).toBeCloseTo(0, 9);
    expect(y).toBeCloseTo(-4 / (3 * Math.PI), 3);
  });

  test('centre of a plate with a hole, by moments', () => {
    // 10 × 10 plate less a 2 × 2 hole centred at (3, 5): x = (100·5 − 4·3) / 96.
    const { x, y, area } = areaCentre({ contours: [square(0, 0, 10), square(2, 4, 2)], fillRule: 'evenodd' });
    expect(area).toBeCloseTo(96, 9);
    expect(x).toBeCloseTo((500 - 12) / 96, 9);
    expect(y).toBeCloseTo(5, 9);
  });

  test('an inner point of a ring sector lies in it, not in its hollow', () => {
    const horseshoe = readPathData('M0 0A10 10 0 1 0 20 0L16 0A6 6 0 1 1 4 0Z').contours[0];
    const { x, y } = innerPoint(horseshoe);
    expect(polylineWinding(flattenContour(horseshoe, 0.01), x, y)).not.toBe(0);
  });
});

describe('nesting', () => {
  const ring = [square(0, 0, 10), square(2, 2, 6), square(4, 4, 2)];

  test('even-odd: every second contour is a hole, whatever its direction', () => {
    const nesting = nestingOf({ contours: ring, fillRule: 'evenodd' });
    expect(nesting.map(({ depth, hole, parent }) => [depth, hole, parent])).toEqual([
      [0, false, -1],
      [1, true, 0],
      [2, false, 1],
    ]);
  });

  test('nonzero: direction decides', () => {
    expect(nestingOf({ contours: ring, fillRule: 'nonzero' }).map(({ hole }) => hole)).toEqual([false, false, false]);
    const holed = [ring[0], reverseContour(ring[1]), ring[2]];
    expect(nestingOf({ contours: holed, fillRule: 'nonzero' }).map(({ hole }) => hole)).toEqual([false, true, false]);
  });

  test('orienting keeps the picture: same winding answers at a grid of points', () => {
    const outline = {
      contours: [square(0, 0, 10), square(2, 2, 6), reverseContour(square(20, 0, 5))],
      fillRule: 'evenodd' as const,
    };
    const { outline: oriented } = orientOutline(outline);
    for (let x = -1; x < 27; x += 1.37) {
      for (let y = -1; y < 12; y += 1.37) {
        const windings = outline.contours.map((contour) => polylineWinding(flattenContour(contour, 0.01), x, y));
        const before = windings.filter((w) => w !== 0).length % 2 === 1;
        const after =
          oriented.contours.reduce((sum, contour) => sum + polylineWinding(flattenContour(contour, 0.01), x, y), 0) !==
          0;
        expect(after).toBe(before);
      }
    }
  });
});

describe('places', () => {
  const ids = ['a', 'b', 'c', 'd'];
  const named: Contour = { ...square(0, 0, 10), anchorIds: ids };

  test('share to place and back', () => {
    const table = measureArcLength(named);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.999, noNaN: true }), (share) => {
        const place = placeOfShare(table, share);
        expect(place && shareOfPlace(table, place)).toBeCloseTo(share, 7);
      }),
      { seed: 5 },
    );
    expect(placeOfShare(table, 0.25)).toEqual({ anchor: 'b' });
    expect(placeOfShare(table, 0.875)).toEqual({ after: 'd', before: 'a', share: 0.5 });
  });

  test('a place whose anchors are gone has no share', () => {
    const table = measureArcLength(named);
    expect(shareOfPlace(table, { anchor: 'x' })).toBeUndefined();
    expect(shareOfPlace(table, { after: 'a', before: 'c', share: 0.5 })).toBeUndefined();
  });

  test('shares are met by length on real icons', () => {
    for (const { d } of realIcons(30)) {
      const contour = readPathData(d).contours[0];
      const table = measureArcLength(contour);
      const { segment, t } = placeAtShare(table, 0.37);
      const cut = addAnchors(contour, [{ segment, t }]);
      let length = 0;
      const until = t > 1e-9 && t < 1 - 1e-9 ? segment + 1 : segment;
      for (let i = 0; i < until; i++)
        length += contourLength({ points: cut.points.slice(segmentAt(i), segmentAt(i) + 8), closed: false });
      expect(length / totalLength(table)).toBeCloseTo(0.37, 4);
    }
  });
});

describe('adding anchors', () => {
  test('1 to 50 of them anywhere move the outline by less than 1e-9 of its size', () => {
    const icons = realIcons(20);
    fc.assert(
      fc.property(
        fc.nat(icons.length - 1),
        fc.array(fc.tuple(fc.nat(1000), fc.double({ min: 0.001, max: 0.999, noNaN: true })), {
          minLength: 1,
          maxLength: 50,
        }),
        (which, wanted) => {
          const outline = readPathData(icons[which].d);
          const contour = outline.contours[0];
          const n = segmentCount(contour);
          const places = wanted
            .map(([segment, t]) => ({ segment: segment % n, t }))
            .sort((p, q) => p.segment - q.segment || p.t - q.t);
          const cut = addAnchors(contour, places);
          expect(segmentCount(cut)).toBeGreaterThan(n - 1);
          // Every new curve must lie on the old one: compare points at the same parameters.
          const size = outlineSize(outline);
          const a = new Float64Array(2);
          const b = new Float64Array(2);
          let k = 0;
          for (let segment = 0; segment < n; segment++) {
            const cuts = [...new Set(places.filter((place) => place.segment === segment).map(({ t }) => t))];
            const bounds = [0, ...cuts, 1];
            for (let i = 0; i + 1 < bounds.length; i++, k++) {
              if (bounds[i + 1] - bounds[i] <= 1e-12) {
                k--;
                continue;
              }
              for (const s of [0, 0.3, 0.8, 1]) {
                cubicPoint(cut.points, segmentAt(k), s, a);
                cubicPoint(contour.points, segmentAt(segment), bounds[i] + (bounds[i + 1] - bounds[i]) * s, b);
                expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-9 * size);
              }
            }
          }
        },
      ),
      { numRuns: 60, seed: 11 },
    );
  });
});
