import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../../frame';
import type { PieceDraft } from '../../piece';
import { countedIds, drawnPose, pieceBetween } from '../../testing/pieces';
import { readOptions } from '../forms/form-options';
import { makeTextFiles, TEXT_FORMS, type TextForm } from '../forms/text-forms';
import { comparePainted } from './compare';
import type { Painted } from './painted';
import { type Proof, proveText } from './prove-text';

const newId = countedIds();
const part = (d: string, fill: string) => ({ ...drawnPose(d, newId).parts[0], fill });
const RED = '#c02040';
const BLUE = '#1040a0';
const draft = structuredClone(
  pieceBetween(
    [part('M20 20H120V120H20Z', RED), part('M200 40L260 100L200 160L140 100Z', BLUE)],
    [part('M40 20H140V120H40Z', RED), part('M200 60L280 100L200 140L120 100Z', BLUE)],
  ),
) as PieceDraft;
const piece = draft as never as Parameters<typeof planAndCompile>[0];
const compiled = planAndCompile(piece);

/** The proof of a form's files, as they were written or after something was done to them. */
function proofOf(form: TextForm, breakIt?: (text: string) => string): Proof {
  const files = makeTextFiles(form, { piece, compiled }, {});
  const read = breakIt ? files.map((file) => ({ ...file, text: breakIt(file.text) })) : files;
  // What is to fail must have been broken.
  if (breakIt) expect(read.some(({ text }, i) => text !== files[i].text)).toBe(true);
  return proveText(form.id, read, compiled, readOptions(form));
}

/** Moves the first point of each shape by 3 px, in the words of any of the forms. */
const shifted =
  (form: TextForm) =>
  (text: string): string => {
    if (form.id === 'lottie') return text.replace(/"v":\[\[(-?[\d.]+)/g, (_, x: string) => `"v":[[${Number(x) + 3}`);
    if (form.id === 'clip-path')
      return text.replace(/(from |move to )(-?[\d.]+)%/g, (_, word: string, x: string) => `${word}${Number(x) + 0.5}%`);
    return text.replace(/([mM])(-?[\d.]+)/g, (_, letter: string, x: string) => `${letter}${Number(x) + 3}`);
  };
/** Each of two colours in place of the other. */
const swapped =
  (form: TextForm) =>
  (text: string): string => {
    const [p, q] = form.id === 'lottie' ? ['[0.7529,0.1255,0.251]', '[0.0627,0.251,0.6275]'] : [RED, BLUE];
    return text.replaceAll(p, '§').replaceAll(q, p).replaceAll('§', q);
  };

describe('files of text, read back', () => {
  test.each(TEXT_FORMS.map((form) => [form.label, form] as const))('%s as it was written is proved', (_label, form) => {
    const { holds, lines } = proofOf(form);
    expect(lines.filter((line) => !line.holds)).toEqual([]);
    expect(holds).toBe(true);
  });

  test.each(TEXT_FORMS.map((form) => [form.label, form] as const))(
    '%s with a point that was shifted fails',
    (_label, form) => {
      const { holds, lines } = proofOf(form, shifted(form));
      expect(holds).toBe(false);
      expect(lines.find(({ what }) => what === 'Largest deviation')?.holds).toBe(false);
    },
  );

  test.each(TEXT_FORMS.filter(({ id }) => id !== 'clip-path').map((form) => [form.label, form] as const))(
    '%s with two colours swapped fails',
    (_label, form) => {
      const { holds, lines } = proofOf(form, swapped(form));
      expect(holds).toBe(false);
      expect(lines.find(({ what }) => what === 'Colours')?.holds).toBe(false);
    },
  );

  test('a frame that was dropped, and a shape that was dropped, fail', () => {
    const data = TEXT_FORMS.find(({ id }) => id === 'path-data') as TextForm;
    const dropped = proofOf(data, (text) => {
      const lines = text.split('\n');
      return [...lines.slice(0, 8), ...lines.slice(9)].join('\n').replace(
        /"time":([\d.]+)/g,
        (() => {
          let k = 0;
          return () => `"time":${k++ / 60}`;
        })(),
      );
    });
    expect(dropped.holds).toBe(false);
    const svg = TEXT_FORMS.find(({ id }) => id === 'animated-svg') as TextForm;
    const { lines } = proofOf(svg, (text) => {
      return text.replace(/<path [^>]*fill="#1040a0".*?<\/path>/g, '');
    });
    expect(lines.find(({ what }) => what === 'Shapes')).toMatchObject({ holds: false });
  });
});

describe('what two pictures paint', () => {
  const square = (x: number, colour: readonly number[] = [1, 0, 0, 1]): Painted => ({
    kind: 'fill',
    lines: [Float64Array.of(x, 0, x + 10, 0, x + 10, 10, x, 10, x, 0)],
    colours: [colour],
    partly: false,
  });
  test('the same is the same, in any order', () => {
    expect(comparePainted([square(0), square(50)], [square(50), square(0)])).toMatchObject({
      largest: 0,
      colour: 0,
      missing: 0,
      extra: 0,
    });
  });
  test('a shift is measured both ways, and its mean is less', () => {
    const { largest, mean } = comparePainted([square(0)], [square(2)]);
    expect(largest).toBeCloseTo(2, 9);
    expect(mean).toBeGreaterThan(0);
    expect(mean).toBeLessThan(2);
  });
  test('what is elsewhere is missing and too many; what nobody sees is neither', () => {
    expect(comparePainted([square(0)], [square(200)])).toMatchObject({ missing: 1, extra: 1 });
    expect(comparePainted([square(0), square(80, [1, 0, 0, 0])], [square(0)])).toMatchObject({ missing: 0, extra: 0 });
  });
  test('things that lie on each other need to be found once', () => {
    expect(comparePainted([square(0), square(0)], [square(0)])).toMatchObject({ missing: 0 });
    expect(comparePainted([square(0), square(0, [0, 0, 1, 1])], [square(0)])).toMatchObject({ missing: 1 });
  });
  test('half as opaque is another colour; what is hardly there may be of any', () => {
    expect(comparePainted([square(0)], [square(0, [1, 0, 0, 0.5])]).colour).toBeCloseTo(0.5, 9);
    expect(comparePainted([square(0, [1, 0, 0, 0.01])], [square(0, [0, 1, 0, 0.01])]).colour).toBeLessThan(0.02);
  });
  test('a part of a line is no deviation, a part of an area is', () => {
    const half: Painted = { ...square(0), lines: [Float64Array.of(0, 0, 10, 0, 10, 10)] };
    expect(
      comparePainted([{ ...square(0), kind: 'stroke', partly: true }], [{ ...half, kind: 'stroke', partly: true }])
        .largest,
    ).toBe(0);
    expect(comparePainted([square(0)], [half]).largest).toBeGreaterThan(5);
  });
});
