import { describe, expect, test } from '@jest/globals';
import { clampChroma, interpolate, oklch, parse, rgb } from 'culori';
import { blendColour, changeColour, planColourBlend } from './blend';
import { cssText, hexText, type Rgba, readColour } from './colour';

const read = (css: string): Rgba => readColour(css) as Rgba;

describe('reading CSS Color 4', () => {
  // Equal colours as the standard's sections give them; values of the last three from the text of CSS Color 4.
  test.each([
    ['red', '#ff0000'],
    ['#0f0', '#00ff00'],
    ['RGB(0 0 255)', '#0000ff'],
    ['rgb(50%, 50%, 50%)', '#808080'],
    ['hsl(120 100% 25%)', '#008000'],
    ['hwb(90 10% 10%)', '#80e61a'],
    ['rebeccapurple', '#663399'],
  ])('%s is %s', (css, hex) => {
    expect(hexText(read(css))).toBe(hex);
  });

  test('alpha and colours out of range', () => {
    expect(read('rgb(0 0 0 / 50%)').alpha).toBeCloseTo(0.5, 6);
    expect(read('#11223380').alpha).toBeCloseTo(128 / 255, 6);
    const wide = read('color(display-p3 0 1 0)');
    expect([wide.r, wide.g]).toEqual([0, 1]);
  });

  test.each(['', 'no-colour', '#12', 'url(#x)', 'var(--x)', 'x'.repeat(500)])('“%s” is none', (css) => {
    expect(readColour(css)).toBeUndefined();
  });
});

describe('blending', () => {
  test.each([
    ['#1c7c8c', '#eeb03a'],
    ['#ff0000', '#0000ff'],
    ['#000000', '#ffffff'],
  ])('%s to %s in OKLab agrees with culori to half a level of 255', (a, b) => {
    const blend = planColourBlend(read(a), read(b));
    const theirs = interpolate([a, b], 'oklab');
    const out = new Float64Array(4);
    for (let p = 0; p <= 1; p += 0.125) {
      blendColour(blend, p, out);
      const expected = rgb(theirs(p));
      for (const [ours, other] of [
        [out[0], expected.r],
        [out[1], expected.g],
        [out[2], expected.b],
      ]) {
        expect(Math.abs(ours - Math.min(1, Math.max(0, other)))).toBeLessThan(0.5 / 255);
      }
    }
  });

  test('sRGB is the mean of the channels', () => {
    const out = blendColour(planColourBlend(read('#000000'), read('#ff8040'), 'srgb'), 0.5, new Float64Array(4));
    expect(hexText({ r: out[0], g: out[1], b: out[2] })).toBe('#804020');
  });

  test('premultiplied: fading in from clear keeps the hue (CSS Color 4, section 12.3)', () => {
    const clear = { ...read('#0000ff'), alpha: 0 };
    const out = blendColour(planColourBlend(clear, read('#ff0000')), 0.25, new Float64Array(4));
    expect(out[3]).toBeCloseTo(0.25, 9);
    expect(hexText({ r: out[0], g: out[1], b: out[2] })).toBe('#ff0000');
  });

  test('progress outside 0..1 stays at the end, ends are the colours themselves', () => {
    const blend = planColourBlend(read('#123456'), read('#fedcba'));
    const at = (p: number): string => {
      const out = blendColour(blend, p, new Float64Array(4));
      return cssText(out[0], out[1], out[2], out[3]);
    };
    expect([at(-0.4), at(0), at(1), at(1.7)]).toEqual(['#123456', '#123456', '#fedcba', '#fedcba']);
    expect(rgb(parse(at(0.5)))?.r).toBeGreaterThan(0.3);
  });
});

describe('colours that are changed', () => {
  const changed = (css: string, how: 'lighter' | 'darker' | 'complementary'): Float64Array => {
    const { r, g, b } = read(css);
    const out = Float64Array.of(r, g, b);
    changeColour(out, 0, how);
    return out;
  };
  test.each(['#1c7c8c', '#ff0000', '#eeb03a', '#2040d0', '#ffffff', '#777777', '#00ff00', '#17324d'])(
    'the complement of %s agrees with culori: opposite hue in OKLCH, chroma taken back until it fits',
    (css) => {
      const own = oklch(parse(css));
      const wanted = rgb(
        clampChroma({ ...own, mode: 'oklch', l: own?.l ?? 0, c: own?.c ?? 0, h: (own?.h ?? 0) + 180 }, 'oklch'),
      );
      const out = changed(css, 'complementary');
      [wanted?.r, wanted?.g, wanted?.b].forEach((v, i) => expect(Math.abs(out[i] - (v ?? 0))).toBeLessThan(1.5 / 255));
    },
  );
  test('lighter and darker go a third of the way in lightness, as culori measures it', () => {
    const lightness = (c: Float64Array): number => oklch({ mode: 'rgb', r: c[0], g: c[1], b: c[2] })?.l ?? 0;
    const own = oklch(parse('#1c7c8c'))?.l ?? 0;
    expect(lightness(changed('#1c7c8c', 'lighter'))).toBeCloseTo(own + (1 - own) / 3, 3);
    expect(lightness(changed('#1c7c8c', 'darker'))).toBeCloseTo((own * 2) / 3, 3);
  });
});
