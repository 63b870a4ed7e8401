import { planAndCompile } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { OUTPUTS, outputById, outputFileName, readOptions } from './index';

const piece = pieceOf(['M0 0H10V10H0Z', 'M5 0L10 5L5 10L0 5Z']);
const source = { piece, compiled: planAndCompile(piece) };
const calm = new AbortController().signal;

describe('what can be taken out', () => {
  test('forms have ids of their own; one is found by its id, and the first for an unknown one', () => {
    expect(new Set(OUTPUTS.map(({ id }) => id)).size).toBe(OUTPUTS.length);
    for (const form of OUTPUTS) expect(outputById(form.id)).toBe(form);
    expect(outputById('teapot')).toBe(OUTPUTS[0]);
  });

  test.each(OUTPUTS.map((form) => [form.label, form] as const))(
    '%s: every answer of every field makes a file of its type, told to the end',
    async (_label, form) => {
      const every = form.fields.flatMap(({ key, answers }) => answers.map(({ value }) => ({ [key]: value })));
      for (const options of [{}, ...every]) {
        const shares: number[] = [];
        const blob = await form.make(source, readOptions(form, options), (share) => shares.push(share), calm);
        expect(blob.type).toBe(form.type);
        expect(blob.size).toBeGreaterThan(100);
        expect(shares[shares.length - 1]).toBe(1);
      }
    },
  );

  test.each(OUTPUTS.map((form) => [form.label, form] as const))(
    '%s: cancelled work makes nothing',
    async (_l, form) => {
      const controller = new AbortController();
      controller.abort(new Error('Enough.'));
      await expect(form.make(source, readOptions(form), () => {}, controller.signal)).rejects.toThrow('Enough.');
    },
  );

  test('options from anywhere are checked, and left out ones are as they are by default', () => {
    const [form] = OUTPUTS;
    const [field] = form.fields;
    expect(readOptions(form)[field.key]).toBe(field.otherwise);
    expect(() => readOptions(form, { [field.key]: 'teapot' })).toThrow(/expected digits to be one of 1, 2, 3/);
    expect(() => readOptions(form, { colour: 'red' })).toThrow(/found “colour”/);
  });

  test('a file is named after its piece', () => {
    const [form] = OUTPUTS;
    expect(outputFileName(form, 'Quay Mark, 2nd')).toBe('quay-mark-2nd.svg');
    expect(outputFileName(form, '…')).toBe('piece.svg');
  });
});
