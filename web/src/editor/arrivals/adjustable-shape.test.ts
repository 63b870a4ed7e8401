import type { ShapeSource } from '@core';
import { describe, expect, test } from '@jest/globals';
import { SHIPPED_SHAPES, shippedSvg } from '../../drawer/shipped-shapes';
import { shapeIn, withShape } from './adjustable-shape';

const PAINT = { fill: '#123456', stroke: null };
const SVG = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 0h9v9z"/></svg>';
const STAR: ShapeSource = { kind: 'star', x: 50, y: 53, rotation: 0, radius: 50, points: 5, inner: 0.45, rounding: 0 };

describe('a drawing of an adjustable shape', () => {
  test('comes back as that shape, in the paint it arrived with', () => {
    const part = shapeIn(withShape(SVG, STAR), 'Star', PAINT);
    expect(part).toMatchObject({ name: 'Star', source: STAR, ...PAINT });
    expect(part?.contours[0].anchors).toHaveLength(10);
    expect(shapeIn(SVG, 'Plain', PAINT)).toBeUndefined();
  });

  test.each([
    ['no JSON', 'data-arcshift-shape="{kind}"'],
    ['a kind that is none', 'data-arcshift-shape="{&quot;kind&quot;:&quot;teapot&quot;}"'],
    [
      'numbers beyond what a piece holds',
      `data-arcshift-shape="${JSON.stringify({ ...STAR, radius: 1e300 }).replace(/"/g, '&quot;')}"`,
    ],
    [
      'a count that would never end',
      `data-arcshift-shape="${JSON.stringify({ ...STAR, points: 1e9 }).replace(/"/g, '&quot;')}"`,
    ],
    [
      'a letter of a text that is not there',
      'data-arcshift-shape="{&quot;kind&quot;:&quot;glyph&quot;,&quot;text&quot;:&quot;t&quot;}"',
    ],
    ['nothing', 'data-arcshift-shape="null"'],
  ])('that says %s is a plain drawing', (_what, attribute) => {
    expect(shapeIn(SVG.replace('<svg ', `<svg ${attribute} `), 'Shape', PAINT)).toBeUndefined();
  });

  test('every shape of the drawer that has numbers is one; the others are outlines', () => {
    for (const shape of SHIPPED_SHAPES) {
      const part = shapeIn(shippedSvg(shape), shape.name, PAINT);
      expect([shape.name, part?.source]).toEqual([shape.name, shape.source]);
    }
    expect(SHIPPED_SHAPES.filter(({ source }) => source).length).toBeGreaterThan(12);
  });
});
