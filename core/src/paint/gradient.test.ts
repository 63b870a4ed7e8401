import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { invert, type Matrix, mapPoint, multiply, rotation, scaling } from '../vec';
import { cssText, hexText } from './colour';
import { commonPaint } from './common-paint';
import {
  colourAt,
  coloursOf,
  fadePaint,
  type Gradient,
  type LinearGradient,
  type RadialGradient,
  readStops,
  transformPaint,
} from './gradient';

const stops = [
  { at: 0, colour: '#ff0000' },
  { at: 1, colour: '#0000ff' },
];
const linear: LinearGradient = { kind: 'linear', from: [1, 2], to: [7, 5], stops };
const radial: RadialGradient = {
  kind: 'radial',
  centre: [4, 3],
  radii: [5, 2],
  rotation: 30,
  focus: [0.3, -0.2],
  stops,
};

/** The share of a gradient at a point, by the definition of SVG 2, chapter 14.2, without the focus. */
function shareAt(gradient: Gradient, x: number, y: number): number {
  if (gradient.kind === 'linear') {
    const [dx, dy] = [gradient.to[0] - gradient.from[0], gradient.to[1] - gradient.from[1]];
    return ((x - gradient.from[0]) * dx + (y - gradient.from[1]) * dy) / (dx * dx + dy * dy);
  }
  const m = multiply(rotation((gradient.rotation * Math.PI) / 180), scaling(...gradient.radii));
  const [u, v] = mapPoint(invert(m) as Matrix, x - gradient.centre[0], y - gradient.centre[1]);
  return Math.hypot(u, v);
}
/** Where the focus lies in px. */
const focusOf = (g: RadialGradient): [number, number] => {
  const m = multiply(rotation((g.rotation * Math.PI) / 180), scaling(...g.radii));
  const [x, y] = mapPoint(m, ...g.focus);
  return [x + g.centre[0], y + g.centre[1]];
};

const matrices = fc
  .tuple(...Array.from({ length: 6 }, () => fc.double({ min: -3, max: 3, noNaN: true })))
  .filter(([a, b, c, d]) => Math.abs(a * d - b * c) > 0.2)
  .map((m) => m as unknown as Matrix);

describe('gradients under maps', () => {
  test('every point keeps its colour when gradient and point are mapped together', () => {
    fc.assert(
      fc.property(
        matrices,
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        (m, x, y) => {
          const [mx, my] = mapPoint(m, x, y);
          for (const gradient of [linear, radial]) {
            const mapped = transformPaint(gradient, m) as Gradient;
            expect(shareAt(mapped, mx, my)).toBeCloseTo(shareAt(gradient, x, y), 5);
          }
          const [fx, fy] = mapPoint(m, ...focusOf(radial));
          const [gx, gy] = focusOf(transformPaint(radial, m) as RadialGradient);
          expect(Math.hypot(fx - gx, fy - gy)).toBeLessThan(1e-6);
        },
      ),
      { seed: 2, numRuns: 200 },
    );
  });

  test('colours stay, maps without area change nothing', () => {
    expect(transformPaint('#123456', scaling(3))).toBe('#123456');
    expect(transformPaint(linear, scaling(0))).toBe(linear);
    expect(transformPaint(null, scaling(3))).toBeNull();
  });

  test('colours between stops are blended in sRGB; the ends go on', () => {
    const read = readStops(linear);
    expect([-1, 0, 0.5, 1, 2].map((at) => hexText(colourAt(read, at)))).toEqual([
      '#ff0000',
      '#ff0000',
      '#800080',
      '#0000ff',
      '#0000ff',
    ]);
    expect(coloursOf(radial)).toEqual(['#ff0000', '#0000ff']);
    expect(fadePaint(linear, 0.5, cssText)).toMatchObject({ stops: [{ colour: 'rgb(255 0 0 / 0.5)' }, {}] });
    expect(fadePaint('#ff0000', 0, cssText)).toBeNull();
  });
});

describe('two paints of one structure', () => {
  const ends = (paint: ReturnType<typeof commonPaint>, end: 0 | 1) =>
    paint && paint.kind !== 'colour'
      ? paint.stops.map(({ at, colours }) => [at[end], hexText(colours[end])])
      : undefined;

  test('a colour joins in as the other gradient in that one colour', () => {
    const paint = commonPaint('#00ff00', linear);
    expect(paint).toMatchObject({ kind: 'linear', ends: [linear, linear] });
    expect(ends(paint, 0)).toEqual([
      [0, '#00ff00'],
      [1, '#00ff00'],
    ]);
    expect(ends(commonPaint(radial, '#00ff00'), 1)).toEqual([
      [0, '#00ff00'],
      [1, '#00ff00'],
    ]);
  });

  test('linear to radial: over one common colour, the mean of all stops', () => {
    const paint = commonPaint(linear, radial);
    expect(paint).toMatchObject({ kind: 'changing', ends: [linear, radial] });
    expect(paint?.kind === 'changing' && hexText(paint.middle)).toBe('#800080');
  });

  test('another number of stops: both get all of them, and the ends are as they were', () => {
    const three = { ...linear, stops: [stops[0], { at: 0.5, colour: '#ffffff' }, stops[1]] };
    const paint = commonPaint(linear, three);
    expect(ends(paint, 0)).toEqual([
      [0, '#ff0000'],
      [0.5, '#800080'],
      [1, '#0000ff'],
    ]);
    expect(ends(paint, 1)).toEqual([
      [0, '#ff0000'],
      [0.5, '#ffffff'],
      [1, '#0000ff'],
    ]);
  });

  test('what cannot be read gives none', () => {
    expect(commonPaint('no colour', '#ffffff')).toBeUndefined();
    expect(commonPaint('#000000', '#ffffff')?.kind).toBe('colour');
  });
});
