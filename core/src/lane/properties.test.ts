import { describe, expect, test } from '@jest/globals';
import { RecordingTarget } from '../testing/recording-target';
import { PROPERTIES, type PropertyId, STROKE_PROPERTIES } from './properties';
import type { Property } from './property';

const row = (id: PropertyId): Property => PROPERTIES[id];

describe('the table of properties', () => {
  // Attributes and what they are when left out: SVG 2, chapters 8.4, 13.3 to 13.5 and 14.2; SVG opacity: CSS Color 4, section 5.
  test.each<[PropertyId, readonly number[], readonly string[], readonly string[] | undefined]>([
    ['opacity', [0.5], ['opacity="0.5"'], ['1']],
    ['fill', [1, 0, 0.2, 0.25], ['fill="#f03"', 'fill-opacity="0.25"'], ['', '1']],
    ['stroke', [1, 0.01, 0.2, 1], ['stroke="#ff0333"', 'stroke-opacity="1"'], ['', '1']],
    ['strokeWidth', [2.12345], ['stroke-width="2.1235"'], ['1']],
    ['cap', [1], ['stroke-linecap="round"'], ['butt']],
    ['join', [2], ['stroke-linejoin="bevel"'], ['miter']],
    ['miter', [10], ['stroke-miterlimit="10"'], ['4']],
    ['dash', [6, 2.5], ['stroke-dasharray="6 2.5"'], ['none']],
    ['dash', [], ['stroke-dasharray="none"'], ['none']],
    ['dashOffset', [-3], ['stroke-dashoffset="-3"'], ['0']],
    ['line', [1, 2, 3, 4], ['x1="1"', 'y1="2"', 'x2="3"', 'y2="4"'], undefined],
    ['ellipse', [1, 2, 3, 0, 45], ['translate="1 2"', 'rotate="45"', 'scale="3 0.0001"'], undefined],
    ['focus', [0.3, -0.2], ['fx="0.3"', 'fy="-0.2"'], ['0', '0']],
    ['stopOffset', [0.25], ['offset="0.25"'], undefined],
    ['stopColour', [0, 0.2, 0.4, 0.5], ['stop-color="#036"', 'stop-opacity="0.5"'], ['', '1']],
  ])('%s of %j is written as SVG has it', (id, value, wanted, initial) => {
    const { attributes, texts, initial: left } = row(id);
    const written = texts(Float64Array.from(value));
    expect(attributes.map((name, i) => `${name}="${written[i]}"`)).toEqual(wanted);
    expect(left).toEqual(initial);
  });

  test('a colour is short only where every channel says the same twice', () => {
    const hex = (r: number, g: number, b: number): string => row('fill').texts([r / 255, g / 255, b / 255, 1])[0];
    expect([hex(0x11, 0x22, 0x33), hex(0x12, 0x22, 0x33), hex(0x11, 0x23, 0x33), hex(0x11, 0x22, 0x34)]).toEqual([
      '#123',
      '#122233',
      '#112333',
      '#112234',
    ]);
  });

  test('how rows go on outside 0..1, and what they never fall below', () => {
    const ranges = Object.fromEntries(
      Object.entries(PROPERTIES).map(([id, { range }]) => [id, `${range.beyond} ${range.least}`]),
    );
    expect(ranges).toEqual({
      background: 'held 0',
      drawn: 'held -Infinity',
      softness: 'on 0',
      position: 'on -Infinity',
      turn: 'on -Infinity',
      skew: 'on -Infinity',
      scale: 'on -Infinity',
      opacity: 'held 0',
      outline: 'on -Infinity',
      fill: 'held 0',
      stroke: 'held 0',
      strokeWidth: 'on 0',
      cap: 'held 0',
      join: 'held 0',
      miter: 'held 1',
      dash: 'held 0',
      dashOffset: 'held -Infinity',
      line: 'held -Infinity',
      ellipse: 'held -Infinity',
      focus: 'held -Infinity',
      stopOffset: 'held 0',
      stopColour: 'held 0',
    });
  });

  test('the properties of a stroke are set on a target, each by itself', () => {
    const target = new RecordingTarget();
    const values: Record<(typeof STROKE_PROPERTIES)[number], number[]> = {
      strokeWidth: [3],
      cap: [2],
      join: [1],
      miter: [7],
      dash: [5, 1],
      dashOffset: [2],
    };
    for (const id of STROKE_PROPERTIES) row(id).apply?.(target, Float64Array.from(values[id]));
    expect(target).toMatchObject({
      lineWidth: 3,
      lineCap: 'square',
      lineJoin: 'round',
      miterLimit: 7,
      lineDashOffset: 2,
    });
    expect(target.calls).toEqual(['dash 5,1 0']);
    for (const id of STROKE_PROPERTIES) expect(row(id).of).toBe('stroke');
  });
});
