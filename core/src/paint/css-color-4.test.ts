import { describe, expect, test } from '@jest/globals';
import { blendColour, planColourBlend } from './blend';
import { readColour } from './colour';

/**
 * CSS Color Module Level 4: the examples of sections 9.3 (lab), 9.4 (lch) and 9.5 (oklab, oklch), in which the same colours stand in several notations; and what web-platform-tests hold
 * green, black and white to. Values from memory, to the digits that stand there.
 */
const SAME: readonly (readonly [hex: string, ...notations: string[]])[] = [
  ['#7d2329', 'lab(29.2345% 39.3825 20.0664)', 'oklab(40.101% 0.1147 0.0453)', 'oklch(40.101% 0.12332 21.555)'],
  ['#c65d06', 'lab(52.2345% 40.1645 59.9971)', 'oklab(59.686% 0.1009 0.1192)', 'oklch(59.686% 0.15619 49.7694)'],
  ['#9d9318', 'lab(60.2345% -5.3654 58.956)', 'oklab(65.125% -0.0320 0.1274)', 'oklch(0.65125 0.13138 104.097)'],
  ['#68a639', 'lab(62.2345% -34.9638 47.7721)', 'oklab(66.016% -0.1084 0.1114)', 'oklch(0.66016 0.15546 134.231)'],
  ['#62acef', 'lab(67.5345% -8.6911 -41.6019)', 'oklab(72.322% -0.0465 -0.1150)', 'oklch(72.322% 0.12403 247.996)'],
  ['#008000', 'oklab(51.975% -0.1403 0.10768)', 'lab(46.2775% -47.5621 48.5837)', 'color(srgb 0 0.50196 0)'],
  ['#000000', 'oklab(0% 0 0)', 'lab(0% 0 0)'],
  ['#ffffff', 'oklab(100% 0 0)', 'lab(100% 0 0)'],
];

const channels = (css: string): number[] => {
  const c = readColour(css);
  if (!c) throw new Error(`${css} was not read.`);
  return [c.r, c.g, c.b].map((v) => 255 * v);
};

describe('colours as CSS Color 4 has them', () => {
  test.each(SAME)('%s is the same in every notation, to a level of 255', (hex, ...notations) => {
    const wanted = channels(hex);
    for (const notation of notations)
      channels(notation).forEach((v, k) => expect([notation, Math.abs(v - wanted[k]) < 1]).toEqual([notation, true]));
  });

  test('halfway between two in OKLab is the mean of their lightness, a and b (section 12.1)', () => {
    const [red, blue] = [SAME[0], SAME[4]].map(([hex]) => readColour(hex));
    if (!red || !blue) throw new Error('A colour was not read.');
    const out = new Float64Array(4);
    blendColour(planColourBlend(red, blue, 'oklab'), 0.5, out, 0);
    const mean = channels(`oklab(${(40.101 + 72.322) / 2}% ${(0.1147 - 0.0465) / 2} ${(0.0453 - 0.115) / 2})`);
    mean.forEach((v, k) => expect(Math.abs(255 * out[k] - v)).toBeLessThan(1));
  });
});
