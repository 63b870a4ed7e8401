import { describe, expect, test } from '@jest/globals';
import type { CoreError } from '../../errors';
import { outlineBox } from '../../outline';
import { writePathData } from '../path-data-writer';
import { readSvg, type SvgReading } from './read-svg';

const NS = 'xmlns="http://www.w3.org/2000/svg"';
const wrap = (body: string, attributes = 'width="100" height="100"'): string =>
  `<svg ${NS} ${attributes}>${body}</svg>`;
const paths = (reading: SvgReading): string[] =>
  reading.shapes.map(({ outline }) => writePathData(outline, { digits: 2 }));
const only = (body: string, attributes?: string): string => paths(readSvg(wrap(body, attributes)))[0];
const refusal = (text: string): CoreError => {
  try {
    readSvg(text);
  } catch (error) {
    return error as CoreError;
  }
  throw new Error('was read');
};

describe('basic shapes as their equivalent paths (SVG 2, chapter 10)', () => {
  test.each([
    ['<rect x="1" y="2" width="10" height="5"/>', 'M1 2L11 2L11 7L1 7Z'],
    ['<line x1="1" y1="2" x2="3" y2="4" stroke="red"/>', 'M1 2L3 4'],
    ['<polyline points="0,0 10 0 10,10" />', 'M0 0L10 0L10 10'],
    ['<polygon points="0 0 10 0 10-10"/>', 'M0 0L10 0L10 -10Z'],
    ['<path d="M0 0H5"/>', 'M0 0L5 0'],
  ])('%s', (shape, d) => {
    expect(only(shape)).toBe(d);
  });

  test('circle and ellipse start at their right-most point and run clockwise', () => {
    expect(only('<circle cx="10" cy="10" r="5"/>')).toMatch(/^M15 10C15 12\.76 /);
    expect(only('<ellipse cx="10" cy="10" rx="5" ry="2"/>')).toMatch(/^M15 10C/);
  });

  test('rounded rectangle: a missing radius is the other one, too large ones are cut to the half', () => {
    expect(only('<rect width="20" height="10" rx="2"/>')).toBe(only('<rect width="20" height="10" rx="2" ry="2"/>'));
    expect(only('<rect width="20" height="10" rx="99" ry="99"/>')).toBe(
      only('<rect width="20" height="10" rx="10" ry="5"/>'),
    );
  });

  test.each([
    '<rect width="0" height="5"/>',
    '<circle r="0"/>',
    '<ellipse rx="0" ry="4"/>',
    '<polygon points="1 1"/>',
    '<path d=""/>',
  ])('%s draws nothing', (shape) => {
    expect(refusal(wrap(shape)).code).toBe('svg-no-outline');
  });
});

describe('coordinates', () => {
  test.each([
    ['translate(5 6)', 'M5 6L6 6'],
    ['translate(5)', 'M5 0L6 0'],
    ['scale(2)', 'M0 0L2 0'],
    ['scale(2,3) translate(1,1)', 'M2 3L4 3'],
    ['rotate(90)', 'M0 0L0 1'],
    ['rotate(90 1 0)', 'M1 -1L1 0'],
    ['skewX(45)', 'M0 0L1 0'],
    ['skewY(45)', 'M0 0L1 1'],
    ['matrix(0 1 -1 0 3 4)', 'M3 4L3 5'],
  ])('transform %s', (transform, d) => {
    expect(only(`<path transform="${transform}" d="M0 0h1"/>`)).toBe(d);
  });

  test('transforms nest from the outside in', () => {
    expect(only('<g transform="translate(10 0)"><g transform="scale(2)"><path d="M1 1h1"/></g></g>')).toBe(
      'M12 2L14 2',
    );
  });

  test.each([
    ['width="200" height="100" viewBox="0 0 100 100"', 'M50 0L150 0'],
    ['width="200" height="100" viewBox="0 0 100 100" preserveAspectRatio="xMinYMin"', 'M0 0L100 0'],
    ['width="200" height="100" viewBox="0 0 100 100" preserveAspectRatio="none"', 'M0 0L200 0'],
    ['width="200" height="100" viewBox="0 0 100 100" preserveAspectRatio="xMaxYMax slice"', 'M0 -100L200 -100'],
    ['viewBox="10 20 50 50"', 'M-10 -20L90 -20'],
    ['width="100" viewBox="0 0 50 25"', 'M0 0L200 0'],
  ])('view box: %s', (attributes, d) => {
    expect(only('<path d="M0 0h100"/>', attributes)).toBe(d);
  });

  test('nested svg has a view box of its own', () => {
    expect(only('<svg x="10" y="10" width="20" height="20" viewBox="0 0 2 2"><path d="M0 0h1"/></svg>')).toBe(
      'M10 10L20 10',
    );
  });

  test('lengths in units of CSS Values 4 (96 px an inch) and percentages of the viewport', () => {
    expect(only('<rect width="1in" height="2.54cm"/>')).toBe('M0 0L96 0L96 96L0 96Z');
    expect(only('<rect width="50%" height="10%"/>')).toBe('M0 0L50 0L50 10L0 10Z');
  });

  test('use and symbol', () => {
    expect(only('<defs><path id="p" d="M0 0h1"/></defs><use href="#p" x="5" y="6"/>')).toBe('M5 6L6 6');
    const symbol = '<symbol id="s" viewBox="0 0 1 1"><path d="M0 0h1"/></symbol>';
    expect(only(`${symbol}<use href="#s" width="10" height="10"/>`)).toBe('M0 0L10 0');
    expect(
      only(`${symbol}<use xmlns:xlink="http://www.w3.org/1999/xlink" xlink:href="#s" width="4" height="4"/>`),
    ).toBe('M0 0L4 0');
  });
});

describe('paint', () => {
  const paint = (body: string) =>
    readSvg(wrap(body)).shapes.map(({ fill, stroke }) => [fill, stroke?.paint ?? null, stroke?.width ?? null]);
  const d = 'd="M0 0h9v9z"';

  test.each([
    [`<path ${d}/>`, ['#000000', null, null]],
    [`<g fill="red"><path ${d}/></g>`, ['#ff0000', null, null]],
    [`<path ${d} style="fill:#00f;stroke:lime;stroke-width:2"/>`, ['#0000ff', '#00ff00', 2]],
    [`<g color="teal"><path ${d} fill="currentColor"/></g>`, ['#008080', null, null]],
    [`<path ${d} fill="red" fill-opacity=".5"/>`, ['rgb(255 0 0 / 0.5)', null, null]],
    [`<g opacity="0.5"><path ${d} fill="red" opacity="50%"/></g>`, ['rgb(255 0 0 / 0.25)', null, null]],
    [
      `<style>.a{fill:red} path{fill:blue} #b{stroke:black}</style><path id="b" class="x a" ${d}/>`,
      ['#ff0000', '#000000', 1],
    ],
    [`<style>path{fill:blue}</style><path ${d} fill="red"/>`, ['#0000ff', null, null]],
    [`<g transform="scale(3)"><path ${d} stroke="red" fill="none" stroke-width="2"/></g>`, [null, '#ff0000', 6]],
    [`<g fill="red"><path ${d} fill="inherit"/></g>`, ['#ff0000', null, null]],
  ])('%s', (body, expected) => {
    expect(paint(body)).toEqual([expected]);
  });

  test('what is not painted is not a shape', () => {
    expect(
      paint(
        `<path ${d} fill="none"/><path ${d} display="none"/><g visibility="hidden"><path ${d}/></g><path ${d} fill="red"/>`,
      ),
    ).toHaveLength(1);
  });

  test('what cannot be taken is named', () => {
    const { notes } = readSvg(
      wrap(
        `<linearGradient id="g"><stop stop-color="gold"/></linearGradient><path ${d} fill="url(#g)" stroke="red" stroke-dasharray="2 2"/><text>Hi</text><image href="x.png"/><g clip-path="url(#c)"/><use href="other.svg#a"/>`,
      ),
    );
    expect(notes).toHaveLength(4);
    for (const word of ['<text>', '<image>', 'clip-path', 'nothing is fetched']) expect(notes.join()).toContain(word);
  });
});

describe('hostile and broken files', () => {
  const good = '<path d="M0 0h9v9z"/>';

  test.each([
    ['', 'svg-not-svg'],
    ['just text', 'svg-not-svg'],
    ['{"a":1}', 'svg-not-svg'],
    ['<html><body/></html>', 'svg-not-svg'],
    [`<html><svg ${NS}>${good}</svg></html>`, 'svg-not-svg'],
    [wrap(''), 'svg-no-outline'],
    [wrap('<g/>'), 'svg-no-outline'],
    [`<svg ${NS}><path d="M0 0h9">`, 'svg-syntax'],
    [wrap('<path d="M0 0h9" d="M1 1"/>'), 'svg-syntax'],
    [wrap('<path d="M0 0 Lx"/>'), 'path-data'],
    [wrap('<rect width="1e30" height="5"/>'), 'number-range'],
    [wrap('<rect width="wide" height="5"/>'), 'svg-syntax'],
    [wrap('<polygon points="0 0 NaN 4 5 5"/>'), 'number-range'],
    [wrap('<path d="M0 0h1" transform="spin(4)"/>'), 'svg-syntax'],
    [wrap(good, 'viewBox="0 0 x 4"'), 'svg-syntax'],
    [`<!DOCTYPE svg [<!ENTITY a "b">]>${wrap(good)}`, 'svg-unsafe'],
    [`<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg ${NS}><text>&x;</text></svg>`, 'svg-unsafe'],
    [`<!DOCTYPE lolz [<!ENTITY l "ha"><!ENTITY m "&l;&l;&l;&l;">]><svg ${NS}><text>&m;</text></svg>`, 'svg-unsafe'],
    [wrap('&undefined;'), 'svg-syntax'],
    [wrap(`${'<g>'.repeat(300)}${'</g>'.repeat(300)}`), 'svg-syntax'],
    [wrap(good + ' '.repeat(20 * 1024 * 1024)), 'file-too-large'],
    [wrap(`<path d="M0 0${'h1v1'.repeat(50_000)}"/>`), 'too-many-segments'],
    [wrap('<g/>'.repeat(60_000)), 'file-too-large'],
  ])('case %#: %.40s', (text, code) => {
    const error = refusal(text);
    expect([error.code, error.message.length > 20]).toEqual([code, true]);
  });

  test('scripts, handlers and foreign content are dropped and told; the shapes are read', () => {
    const { shapes, notes } = readSvg(
      wrap(
        `<script>alert(1)</script><foreignObject><p xmlns="http://www.w3.org/1999/xhtml">x</p></foreignObject><path onclick="alert(2)" d="M0 0h9v9z"/>`,
      ),
    );
    expect(shapes).toHaveLength(1);
    expect(JSON.stringify(shapes)).not.toContain('alert');
    for (const what of ['<script>', '<foreignObject>', 'onclick']) expect(notes.join()).toContain(what);
  });

  test('use that refers to itself ends', () => {
    const { shapes, notes } = readSvg(wrap(`<g id="a"><use href="#a"/>${good}</g>`));
    expect(shapes.length).toBeLessThanOrEqual(2);
    expect(notes.join()).toContain('itself');
  });

  test('a tower of use ends at a limit', () => {
    let defs = `<g id="u0">${good}</g>`;
    for (let i = 1; i < 12; i++) defs += `<g id="u${i}">${`<use href="#u${i - 1}"/>`.repeat(10)}</g>`;
    const { shapes } = readSvg(wrap(`<defs>${defs}</defs><use href="#u11"/>`));
    expect(shapes.length).toBeLessThan(3000);
  });

  test('data of editors in other namespaces is passed over silently', () => {
    const { notes, shapes } = readSvg(
      `<svg ${NS} xmlns:x="urn:editor"><x:view zoom="3"/><metadata/><path x:note="1" d="M0 0h9v9z"/></svg>`,
    );
    expect([notes.length, shapes.length]).toEqual([0, 1]);
  });

  test('the box of what was read is where the browser would draw it', () => {
    const { shapes, width } = readSvg(
      wrap('<circle cx="12" cy="12" r="10"/>', 'width="240" height="240" viewBox="0 0 24 24"'),
    );
    const box = outlineBox(shapes[0].outline);
    expect([width, box.minX, box.maxX].map(Math.round)).toEqual([240, 20, 220]);
  });
});

test('shapes are called by their ids, others by what they are and their number among what is drawn', () => {
  const { shapes } = readSvg(
    '<svg xmlns="http://www.w3.org/2000/svg"><path id="hull" d="M0 0h9v9z"/><path d="M0 0h9v9z"/><g><rect width="3" height="3"/></g><circle r="2"/><polyline points="0 0 4 4 8 0" stroke="red"/></svg>',
  );
  expect(shapes.map(({ name }) => name)).toEqual(['hull', 'Shape 2', 'Rectangle 3', 'Circle 4', 'Line 5']);
});
