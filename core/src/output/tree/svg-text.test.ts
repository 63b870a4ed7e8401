import { describe, expect, test } from '@jest/globals';
import { SaxesParser } from 'saxes';
import { readAnimatedDocument } from '../document/animated-document';
import { drawn, type Track } from './drawn-element';
import { svgText } from './svg-text';

const track = (fields: Partial<Track>): Track => ({
  attribute: 'r',
  begin: 0,
  duration: 2,
  repeats: false,
  jumps: false,
  times: [0, 1],
  values: ['1', '9'],
  splines: [],
  ...fields,
});

/** Texts that XML gives no special meaning when another reader has read them. */
function readByXml(text: string): { attributes: string[]; texts: string } {
  const parser = new SaxesParser();
  const attributes: string[] = [];
  let texts = '';
  parser.on('opentag', (tag) => attributes.push(...(Object.values(tag.attributes) as string[])));
  parser.on('text', (part) => (texts += part));
  parser.write(text).close();
  return { attributes, texts };
}

describe('a tree of elements as SVG', () => {
  test('whatever stands in attributes and texts comes out of XML as it went in', () => {
    const odd = 'a < b & "c" > \u2019d\u2019';
    const said = readByXml(svgText(drawn('svg', { id: odd }, { children: [drawn('title', {}, { text: odd })] })));
    expect(said.attributes).toEqual([odd]);
    expect(said.texts.trim()).toBe(odd);
  });

  test('tracks come back as they were: curves, jumps, steps of a transform, ones that began before', () => {
    const tracks = [
      track({ splines: [[0.42, 0, 0.58, 1]] }),
      track({ attribute: 'display', jumps: true, times: [0, 0.25], values: ['none', 'inline'] }),
      track({ attribute: 'transform', step: { type: 'translate', sum: false }, values: ['1 2', '3 4'], begin: -0.5 }),
      track({ attribute: 'transform', step: { type: 'rotate', sum: true }, values: ['8', '8'], repeats: true }),
    ];
    const tree = drawn('svg', {}, { children: [drawn('circle', { r: '1' }, { tracks })] });
    expect(readAnimatedDocument(svgText(tree)).root.children[0].tracks).toEqual(tracks);
  });

  test('a step that is held among others says no times', () => {
    const held = track({ attribute: 'transform', step: { type: 'scale', sum: true }, values: ['2', '2'] });
    expect(svgText(drawn('g', {}, { tracks: [held] }))).toBe(
      '<g><animateTransform attributeName="transform" type="scale" additive="sum" values="2;2" dur="2s" fill="freeze"/>\n</g>\n',
    );
  });

  test('each element has a line, but for stops; a group kept apart shares that of the one in it', () => {
    const stops = drawn('linearGradient', { id: 'p' }, { children: [drawn('stop', { offset: '0' })] });
    const apart = drawn('g', { style: 'x' }, { children: [drawn('g', {}, { children: [drawn('path', {})] })] });
    expect(svgText(drawn('svg', {}, { children: [stops, apart] }))).toBe(
      '<svg>\n<linearGradient id="p"><stop offset="0"/></linearGradient>\n<g style="x"><g>\n<path/>\n</g></g>\n</svg>\n',
    );
  });
});
