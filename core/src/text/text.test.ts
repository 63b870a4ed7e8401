import fs from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { parse } from 'opentype.js';
import { contourArea, outlineBox, outlineOfContours } from '../outline';
import { readPathData, writePathData } from '../svg';
import { layoutText, readFont, type TextSetting } from './index';

const FILES = {
  archivo: 'archivo-black/files/archivo-black-latin-400-normal.woff',
  sans: 'public-sans/files/public-sans-latin-600-normal.woff',
  serif: 'libre-baskerville/files/libre-baskerville-latin-700-normal.woff',
  mono: 'dm-mono/files/dm-mono-latin-400-normal.woff',
  script: 'pacifico/files/pacifico-latin-400-normal.woff',
  condensed: 'barlow-condensed/files/barlow-condensed-latin-600-normal.woff',
};
const bytes = (name: keyof typeof FILES): ArrayBuffer => {
  const file = fs.readFileSync(`node_modules/@fontsource/${FILES[name]}`);
  return file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer;
};
const setting: TextSetting = {
  content: 'AV',
  size: 100,
  tracking: 0,
  kerning: true,
  lineSpacing: 1.2,
  align: 'start',
  x: 10,
  y: 200,
};

describe('shipped fonts', () => {
  test.each(Object.keys(FILES) as (keyof typeof FILES)[])('%s: glyphs are the font’s own data', (name) => {
    const font = readFont(bytes(name));
    const theirs = parse(bytes(name));
    for (const character of 'BQ8agf&') {
      const ours = layoutText(font, { ...setting, content: character, x: 0, y: 0, size: 1000 }).glyphs[0];
      const path = theirs.charToGlyph(character).getPath(0, 0, 1000);
      const expected = readPathData(path.toPathData(6));
      expect(ours.outline.contours).toHaveLength(expected.contours.length);
      const [a, b] = [outlineBox(ours.outline), outlineBox(expected)];
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
        expect(Math.abs(a[side] - b[side])).toBeLessThan(1e-3);
      const area = (contours: readonly Parameters<typeof contourArea>[0][]): number =>
        contours.reduce((sum, c) => sum + contourArea(c), 0);
      expect(Math.abs(area(ours.outline.contours) / area(expected.contours) - 1)).toBeLessThan(1e-6);
      // The font's points are our anchors.
      const anchors = new Set(
        ours.outline.contours.flatMap(({ points }) =>
          Array.from(
            { length: points.length / 2 },
            (_, i) => `${points[2 * i].toFixed(3)} ${points[2 * i + 1].toFixed(3)}`,
          ),
        ),
      );
      for (const command of path.commands)
        if (command.type === 'L' || command.type === 'M')
          expect(anchors).toContain(
            `${(command.x + 0).toFixed(3).replace('-0.000', '0.000')} ${command.y.toFixed(3)}`.replace(
              ' -0.000',
              ' 0.000',
            ),
          );
    }
  });
});

describe('setting text', () => {
  const font = readFont(bytes('sans'));
  const theirs = parse(bytes('sans'));
  const left = (content: string, more: Partial<TextSetting> = {}): number[] =>
    layoutText(font, { ...setting, content, ...more }).glyphs.map(({ outline }) => outlineBox(outline).minX);

  test('pairs are kerned as the font says', () => {
    const [a, v] = [theirs.charToGlyph('A'), theirs.charToGlyph('V')];
    const kern = (theirs.getKerningValue(a, v) / theirs.unitsPerEm) * 100;
    expect(kern).toBeLessThan(0);
    expect(left('AV')[1] - left('AV', { kerning: false })[1]).toBeCloseTo(kern, 6);
  });

  test('a font whose kerning cannot be read says so', () => {
    expect(font.kerningUnread).toBe(false);
    const file = fs.readFileSync('node_modules/@fontsource/source-serif-4/files/source-serif-4-latin-600-normal.woff');
    const other = readFont(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
    expect(other.kerningUnread).toBe(true);
    expect(layoutText(other, setting).notes.join()).toContain('kerning');
    expect(layoutText(other, { ...setting, kerning: false }).notes).toEqual([]);
  });

  test('tracking moves each letter by its share of the size', () => {
    const [plain, wide] = [left('HHH', { kerning: false }), left('HHH', { kerning: false, tracking: 50 })];
    expect(wide.map((x, i) => +(x - plain[i]).toFixed(6))).toEqual([0, 5, 10]);
  });

  test('lines stand under each other and are aligned at x', () => {
    const { glyphs, widths } = layoutText(font, { ...setting, content: 'HH\nH', align: 'end' });
    expect(widths).toHaveLength(2);
    const [, , third] = glyphs;
    expect(outlineBox(third.outline).maxY - outlineBox(glyphs[0].outline).maxY).toBeCloseTo(120, 6);
    const advance = ((theirs.charToGlyph('H').advanceWidth ?? 0) / theirs.unitsPerEm) * 100;
    expect(left('H', { align: 'end' })[0]).toBeCloseTo(left('H')[0] - advance, 6);
    expect(left('H', { align: 'middle' })[0]).toBeCloseTo(left('H')[0] - advance / 2, 6);
  });

  test('indices count all characters; spaces only take room; missing letters are named', () => {
    const { glyphs, missing } = layoutText(font, { ...setting, content: 'a b\nc中' });
    expect(glyphs.filter(({ character }) => character !== '中').map(({ index }) => index)).toEqual([0, 2, 4]);
    expect(missing).toEqual(['中']);
    expect(layoutText(font, { ...setting, content: '' }).glyphs).toEqual([]);
  });

  test('counters run against their letter', () => {
    const [o] = layoutText(font, { ...setting, content: 'o' }).glyphs;
    expect(o.outline.contours.map((contour) => Math.sign(contourArea(contour))).sort()).toEqual([-1, 1]);
    expect(writePathData(outlineOfContours(o.outline.contours))).toMatch(/^M/);
  });
});

describe('fonts that cannot be read are refused with a reason', () => {
  test.each([
    ['empty', new ArrayBuffer(0), 'another kind of file'],
    ['WOFF2', new TextEncoder().encode('wOF2aaaaaaaaaaaa').buffer as ArrayBuffer, 'WOFF2'],
    ['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 1, 2, 3, 4]).buffer as ArrayBuffer, 'another kind'],
    ['a torn TTF', new Uint8Array([0, 1, 0, 0, 0, 99, 1, 1, 1, 1, 1, 1]).buffer as ArrayBuffer, 'cannot be read'],
    ['a torn WOFF', bytes('sans').slice(0, 400), 'cannot be read'],
    ['too large', new ArrayBuffer(11 * 1024 * 1024), 'at most 10 MB'],
  ])('%s', (_name, data, word) => {
    expect(() => readFont(data)).toThrow(word);
  });
});
