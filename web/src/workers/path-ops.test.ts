import {
  anchorCount,
  applyClips,
  areaCentre,
  combineOutlines,
  contourArea,
  cutAlongLine,
  ellipseContour,
  filledArea,
  fillHoles,
  type Outline,
  outlineOfStroke,
  polygonContour,
  readPathData,
  readSvg,
  removeSpecks,
  seededRandom,
  segmentCount,
  separateSolids,
} from '@core';
import { describe, expect, test } from '@jest/globals';
import { pathEngine } from '../testing/engine';

const disc = (x: number, y: number, r: number): Outline => ({
  contours: [ellipseContour(x, y, r, r)],
  fillRule: 'nonzero',
});
const box = (x: number, y: number, w: number, h: number): Outline => ({
  contours: [polygonContour([x, y, x + w, y, x + w, y + h, x, y + h])],
  fillRule: 'nonzero',
});

describe('combining outlines', () => {
  test('two discs: curves stay curves, points that were there keep their exact numbers', async () => {
    const engine = await pathEngine();
    const a = disc(0, 0, 100);
    const b = disc(120, 0, 100);
    const { outline } = combineOutlines(engine, 'unite', [a, b]);
    expect(outline.contours).toHaveLength(1);
    expect(segmentCount(outline.contours[0])).toBeLessThanOrEqual(8);
    const xs = [...outline.contours[0].points].filter((_, i) => i % 2 === 0);
    expect(xs).toContain(-100);
    expect(xs).toContain(220);
    // The lens of two circles of radius r at distance d: 2r² acos(d/2r) − d/2 √(4r² − d²) (common practice).
    const lens = 2 * 100 ** 2 * Math.acos(0.6) - 60 * Math.sqrt(4 * 100 ** 2 - 120 ** 2);
    expect(Math.abs(filledArea(outline) - (2 * Math.PI * 100 ** 2 - lens)) / 100 ** 2).toBeLessThan(2e-3);
  });

  test('squares: exact corners, no points on straight edges', async () => {
    const engine = await pathEngine();
    const united = combineOutlines(engine, 'unite', [box(0, 0, 10, 10), box(10, 0, 10, 10)]).outline;
    expect(filledArea(united)).toBeCloseTo(200, 9);
    expect(anchorCount(united.contours[0])).toBe(4);
    const cut = combineOutlines(engine, 'subtract', [box(0, 0, 30, 30), box(10, 10, 10, 10)]).outline;
    expect(cut.contours.map((contour) => Math.sign(contourArea(contour))).sort()).toEqual([-1, 1]);
    expect(filledArea(cut)).toBeCloseTo(800, 6);
    expect(filledArea(combineOutlines(engine, 'exclude', [box(0, 0, 10, 10), box(5, 0, 10, 10)]).outline)).toBeCloseTo(
      100,
      5,
    );
  });

  test('inclusion and exclusion of areas holds for 200 random pairs', async () => {
    const engine = await pathEngine();
    const random = seededRandom(7);
    const blob = (): Outline => {
      const n = 3 + Math.floor(random() * 6);
      const [cx, cy] = [random() * 60, random() * 60];
      const d = Array.from({ length: n }, (_, i) => {
        const at = (k: number): string => {
          const angle = ((i + k) / n) * 2 * Math.PI;
          const r = 20 + random() * 30;
          return `${cx + r * Math.cos(angle)} ${cy + r * Math.sin(angle)}`;
        };
        return i === 0 ? `M${at(0)}` : random() < 0.5 ? `L${at(0)}` : `Q${at(-0.5)} ${at(0)}`;
      }).join('');
      return readPathData(`${d}Z`);
    };
    for (let i = 0; i < 200; i++) {
      // The engine first lays each outline clean of its own overlaps, so that its area is that of the picture.
      const [a, b] = [blob(), blob()].map((outline) => combineOutlines(engine, 'unite', [outline]).outline);
      const union = filledArea(combineOutlines(engine, 'unite', [a, b]).outline);
      const both = filledArea(combineOutlines(engine, 'intersect', [a, b]).outline);
      const sum = filledArea(a) + filledArea(b);
      expect(Math.abs(union + both - sum) / sum).toBeLessThan(1e-4);
    }
  });

  test('hairline overlaps and contours open by a little are told', async () => {
    const engine = await pathEngine();
    expect(combineOutlines(engine, 'unite', [box(0, 0, 100, 100), box(99.99, 0, 100, 100)]).notes.join()).toContain(
      'hairline',
    );
    const open = readPathData('M0 0H100V100H0V1');
    expect(combineOutlines(engine, 'unite', [open, box(200, 0, 9, 9)]).notes.join()).toContain('open by 1 px');
    expect(combineOutlines(engine, 'unite', [box(0, 0, 9, 9), box(5, 5, 9, 9)]).notes).toEqual([]);
  });

  test('far from the origin and very small, nothing is lost', async () => {
    const engine = await pathEngine();
    const far = combineOutlines(engine, 'unite', [disc(1e6, 1e6, 0.01), disc(1e6 + 0.01, 1e6, 0.01)]).outline;
    expect(far.contours).toHaveLength(1);
    expect(filledArea(far)).toBeGreaterThan(Math.PI * 1e-4);
  });

  test('an engine that fails is told, not papered over', () => {
    expect(() => combineOutlines({ combine: () => null, stroke: () => null }, 'unite', [box(0, 0, 1, 1)])).toThrow(
      'could not be combined',
    );
    const liar = { combine: (_kind: string, a: Outline) => a, stroke: () => null };
    expect(() => combineOutlines(liar, 'intersect', [box(0, 0, 9, 9), box(100, 0, 4, 4)])).toThrow('cannot be right');
  });
});

describe('holes, specks, solids, cuts and strokes', () => {
  const ring = readPathData('M0 0H100V100H0ZM20 20V80H80V20ZM200 0H203V3H200Z');

  test('holes are filled, specks go, solids come apart', () => {
    expect(filledArea(fillHoles(ring))).toBeCloseTo(10_009, 6);
    expect(removeSpecks(ring, 1e-3).contours).toHaveLength(2);
    expect(separateSolids(ring).map(({ contours }) => contours.length)).toEqual([2, 1]);
  });

  test('a cut divides closed outlines into closed halves and open ones where they cross', async () => {
    const engine = await pathEngine();
    const { left, right } = cutAlongLine(engine, disc(50, 50, 50), 50, -10, 50, 110);
    // Looking down the canvas, left is where x is larger (y down).
    expect(areaCentre(left).x).toBeGreaterThan(50);
    expect(filledArea(left)).toBeCloseTo(filledArea(right), 1);
    const line = readPathData('M0 0C30 60 60 -60 100 0');
    const cut = cutAlongLine(engine, line, 50, -99, 50, 99);
    expect([cut.left.contours.length, cut.right.contours.length]).toEqual([1, 1]);
    expect(cut.right.contours[0].points[0]).toBe(0);
  });

  test('a stroke becomes an outline with few points: a straight line with round ends, a ring', async () => {
    const engine = await pathEngine();
    const line = outlineOfStroke(engine, readPathData('M0 0H100'), {
      width: 20,
      cap: 'round',
      join: 'round',
      miter: 4,
      dash: [],
      dashOffset: 0,
    });
    expect(filledArea(line) / (2000 + Math.PI * 100)).toBeCloseTo(1, 2);
    expect(anchorCount(line.contours[0])).toBeLessThanOrEqual(14);
    const ringed = outlineOfStroke(engine, disc(0, 0, 50), {
      width: 10,
      cap: 'butt',
      join: 'miter',
      miter: 4,
      dash: [],
      dashOffset: 0,
    });
    expect(ringed.contours).toHaveLength(2);
    expect(filledArea(ringed) / (Math.PI * (55 ** 2 - 45 ** 2))).toBeCloseTo(1, 2);
  });

  test('a dashed stroke becomes its dashes, whatever the list; dots become discs', async () => {
    const engine = await pathEngine();
    const pen = { width: 8, cap: 'butt', join: 'miter', miter: 4, dashOffset: 0 } as const;
    const dashed = outlineOfStroke(engine, readPathData('M0 0H100'), { ...pen, dash: [20, 10, 5] });
    expect(dashed.contours).toHaveLength(4);
    expect(filledArea(dashed)).toBeCloseTo(8 * (20 + 5 + 10 + 20), 1);
    const dots = outlineOfStroke(engine, readPathData('M0 0H100'), { ...pen, cap: 'round', dash: [0, 20] });
    expect(dots.contours).toHaveLength(5);
    // Refitted to a two-hundredth of the width, a disc may be larger or smaller by 2 %.
    expect(Math.abs(filledArea(dots) / (5 * Math.PI * 16) - 1)).toBeLessThan(0.02);
    const none = outlineOfStroke(engine, readPathData('M0 0H100'), { ...pen, dash: [0, 20] });
    expect(none.contours).toEqual([]);
    const ring = outlineOfStroke(engine, disc(0, 0, 50), { ...pen, dash: [Math.PI * 12.5] });
    expect(filledArea(ring) / (8 * Math.PI * 50)).toBeCloseTo(1, 2);
  });
});

describe('clip paths of a file', () => {
  const wrap = (body: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100">${body}</svg>`;
  const CLIP = '<clipPath id="c"><circle cx="50" cy="50" r="40"/></clipPath>';

  test('a fill becomes what is seen of it, a stroke an area, what lies outside goes', async () => {
    const engine = await pathEngine();
    const reading = applyClips(
      readSvg(
        wrap(
          `${CLIP}<g clip-path="url(#c)"><rect width="50" height="100" fill="red"/><path d="M0 50H100" stroke="blue" stroke-width="10"/><rect x="95" y="95" width="5" height="5"/></g>`,
        ),
      ),
      engine,
    );
    expect(reading.shapes.map(({ fill, stroke }) => [fill, stroke])).toEqual([
      ['#ff0000', null],
      ['#0000ff', null],
    ]);
    expect(filledArea(reading.shapes[0].outline) / ((Math.PI * 1600) / 2)).toBeCloseTo(1, 2);
    expect(filledArea(reading.shapes[1].outline)).toBeLessThan(800);
    expect(reading.notes).toEqual([]);
  });

  test('several outlines of a clip are one area; clips inside each other leave what both leave', async () => {
    const engine = await pathEngine();
    const two = '<clipPath id="two"><rect width="20" height="100"/><rect x="10" width="20" height="100"/></clipPath>';
    const { shapes } = applyClips(
      readSvg(wrap(`${CLIP}${two}<g clip-path="url(#c)"><rect clip-path="url(#two)" width="100" height="100"/></g>`)),
      engine,
    );
    expect(shapes[0].outline.contours).toHaveLength(1);
    expect(Math.max(...shapes[0].outline.contours[0].points.filter((_, i) => i % 2 === 0))).toBeCloseTo(30, 5);
  });

  test('without an engine the shape stays whole, and that is told', () => {
    const { shapes, notes } = applyClips(
      readSvg(wrap(`${CLIP}<rect clip-path="url(#c)" width="100" height="100"/>`)),
      null,
    );
    expect(shapes[0].clips).toEqual([]);
    expect(notes.join()).toContain('could not be applied');
  });
});
