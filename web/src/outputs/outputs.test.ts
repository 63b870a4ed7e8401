import { FORM_IDS, type OutputField, planAndCompile, readOptions, TEXT_FORMS } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { OUTPUTS, outputById, outputFileName, PURPOSES } from './index';

const piece = pieceOf(['M0 0H10V10H0Z', 'M5 0L10 5L5 10L0 5Z']);
const source = { piece, compiled: planAndCompile(piece) };
const calm = new AbortController().signal;
const TEXTS = OUTPUTS.filter(({ id }) => TEXT_FORMS.some((form) => form.id === id));

/** Every answer of a field that has a few. */
const answersOf = (field: OutputField): string[] =>
  field.kind === 'choice'
    ? field.answers.map(({ value }) => value)
    : field.kind === 'switch'
      ? ['yes', 'no']
      : field.kind === 'number'
        ? [String(field.least), ...(field.empty === undefined ? [] : [''])]
        : [];

describe('what can be taken out', () => {
  test('every form of the matrix has one entry and is found by its id; the first stands for an unknown one', () => {
    expect([...OUTPUTS.map(({ id }) => id)].sort()).toEqual([...FORM_IDS].sort());
    for (const form of OUTPUTS) expect(outputById(form.id)).toBe(form);
    expect(outputById('teapot')).toBe(OUTPUTS[0]);
  });

  test.each(TEXTS.map((form) => [form.label, form] as const))(
    '%s: every answer of every field makes a file, told to the end',
    async (_label, form) => {
      const every = form.fields.flatMap((field) => answersOf(field).map((value) => ({ [field.key]: value })));
      for (const options of [{}, ...every]) {
        const shares: number[] = [];
        const { blob, extension } = await form.make(
          source,
          readOptions(form, options),
          (share) => shares.push(share),
          calm,
        );
        expect(blob.size).toBeGreaterThan(100);
        expect(extension).toMatch(/^[a-z.]+$/);
        expect(shares[shares.length - 1]).toBe(1);
      }
    },
  );

  test.each(TEXTS.map((form) => [form.label, form] as const))('%s: cancelled work makes nothing', async (_l, form) => {
    const controller = new AbortController();
    controller.abort(new Error('Enough.'));
    await expect(form.make(source, readOptions(form), () => {}, controller.signal)).rejects.toThrow('Enough.');
  });

  test.each(OUTPUTS.map((form) => [form.label, form] as const))(
    '%s: what is left out is as it is by default, and every field refuses nonsense by its name',
    (_label, form) => {
      const defaults = readOptions(form);
      for (const field of form.fields) {
        expect(defaults[field.key]).toBe(field.otherwise);
        const nonsense = field.kind === 'figure' ? 'x'.repeat(200) : 'teapot';
        expect(() => readOptions(form, { [field.key]: nonsense })).toThrow(`expected ${field.key} to be`);
        expect(() => readOptions(form, { [field.key]: 7 })).toThrow('a text');
        if (field.kind !== 'number') continue;
        for (const beyond of [field.least - 1, field.most + 1])
          expect(() => readOptions(form, { [field.key]: String(beyond) })).toThrow(`to ${field.most}`);
      }
      expect(() => readOptions(form, { teapot: 'red' })).toThrow(/found “teapot”/);
    },
  );

  test('a purpose chooses forms that are there, by options that they have', () => {
    for (const { choices } of PURPOSES)
      for (const { form, options } of choices) {
        const found = OUTPUTS.find(({ id }) => id === form);
        expect(found?.id).toBe(form);
        if (found) expect(readOptions(found, options)).toMatchObject(options);
      }
  });

  test('a file is named after its piece', () => {
    expect(outputFileName('svg', 'Quay Mark, 2nd')).toBe('quay-mark-2nd.svg');
    expect(outputFileName('zip', '…')).toBe('piece.zip');
  });
});
