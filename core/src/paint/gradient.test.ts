import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { invert, type Matrix, mapPoint, multiply, rotation, scaling } from '../vec';
import { cssText, hexText } from './colour';
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
import { isGradientBlend, planPaintBlend, prepareGradient, sampleGradient } from './paint-blend';

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

describe('blending paints', () => {
  const sample = (a: Parameters<typeof planPaintBlend>[0], b: Parameters<typeof planPaintBlend>[0], p: number) => {
    const blend = planPaintBlend(a, b, 'srgb');
    if (!blend || !isGradientBlend(blend)) throw new Error('no gradient');
    const out = sampleGradient(blend, p, prepareGradient(blend));
    return {
      kind: out.kind,
      geometry: [...out.geometry],
      colours: Array.from({ length: out.at.length }, (_, i) =>
        cssText(out.colours[4 * i], out.colours[4 * i + 1], out.colours[4 * i + 2], out.colours[4 * i + 3]),
      ),
      at: [...out.at],
    };
  };

  test('two of one kind: geometry and stops go straight', () => {
    const other: LinearGradient = { ...linear, from: [3, 4], to: [9, 9] };
    expect(sample(linear, other, 0.5)).toMatchObject({ kind: 'linear', geometry: [2, 3, 8, 7, 0, 0, 0] });
    expect(sample(linear, other, 0).geometry.slice(0, 4)).toEqual([1, 2, 7, 5]);
    expect(sample(linear, other, 1.4).geometry.slice(0, 4)).toEqual([3, 4, 9, 9]);
  });

  test('a colour joins in as a gradient of that colour', () => {
    expect(sample('#00ff00', linear, 0).colours).toEqual(['#00ff00', '#00ff00']);
    expect(sample('#00ff00', linear, 1).colours).toEqual(['#ff0000', '#0000ff']);
    expect(sample(linear, '#00ff00', 0.5).geometry.slice(0, 4)).toEqual([1, 2, 7, 5]);
  });

  test('linear to radial: over one common colour, so that nothing jumps', () => {
    const before = sample(linear, radial, 0.499999);
    const after = sample(linear, radial, 0.5);
    expect([before.kind, after.kind]).toEqual(['linear', 'radial']);
    // Just before the middle all stops are within a level of the common colour.
    const levels = [...before.colours, ...after.colours].map((c) =>
      [1, 3, 5].map((i) => Number.parseInt(c.slice(i, i + 2), 16)),
    );
    for (const level of levels) level.forEach((v, k) => expect(Math.abs(v - levels[0][k])).toBeLessThanOrEqual(1));
    expect(sample(linear, radial, 1).colours).toEqual(['#ff0000', '#0000ff']);
  });

  test('another number of stops: both get all of them, and the ends are as they were', () => {
    const three = { ...linear, stops: [stops[0], { at: 0.5, colour: '#ffffff' }, stops[1]] };
    expect(sample(linear, three, 0)).toMatchObject({ at: [0, 0.5, 1], colours: ['#ff0000', '#800080', '#0000ff'] });
    expect(sample(linear, three, 1).colours).toEqual(['#ff0000', '#ffffff', '#0000ff']);
  });

  test('what cannot be read gives no blend', () => {
    expect(planPaintBlend('no colour', '#ffffff', 'oklab')).toBeUndefined();
  });
});
