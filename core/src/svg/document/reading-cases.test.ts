import { describe, expect, test } from '@jest/globals';
import type { CoreError } from '../../errors';
import { outlineBox } from '../../outline';
import { isGradient } from '../../paint';
import { writePathData } from '../path-data-writer';
import { readSvg, type SvgShape } from './read-svg';

/**
 * What each construct must come to. Cases marked with a section are drawn from the text of SVG 2 (W3C, chapter and section given), the others
 * are common practice. An expectation is path data (two decimals), a check of the shapes, or the code of a refusal.
 */
type Check = (shapes: readonly SvgShape[], notes: readonly string[]) => void;
type Case = readonly [
  section: string,
  name: string,
  body: string,
  expected: string | readonly string[] | Check | { readonly refused: string },
];

const D = 'd="M0 0H10V10H0Z"';
const B = 'M0 0L10 0L10 10L0 10Z';
const GRADIENT =
  '<linearGradient id="g"><stop offset="0" stop-color="red"/><stop offset="1" stop-color="blue"/></linearGradient>';
const paints = (shapes: readonly SvgShape[]): unknown[] => shapes.map(({ fill }) => fill);
const gradient = (shape: SvgShape) => {
  if (!isGradient(shape.fill)) throw new Error('no gradient');
  return shape.fill;
};
const near = (values: readonly number[], expected: readonly number[]): void =>
  values.forEach((v, i) => {
    expect(v).toBeCloseTo(expected[i], 4);
  });

const CASES: readonly Case[] = [
  // Basic shapes.
  ['10.2', 'rect', '<rect x="1" y="2" width="3" height="4"/>', 'M1 2L4 2L4 6L1 6Z'],
  ['10.2', 'rect without a height draws nothing', '<rect width="5"/>', { refused: 'svg-no-outline' }],
  [
    '10.2',
    'rect with rx only: ry is the same',
    '<rect width="10" height="10" rx="5"/>',
    (shapes) => expect(writePathData(shapes[0].outline, { digits: 2 })).toMatch(/^M5 0C/),
  ],
  [
    '10.2',
    'rect radii are cut to the half side',
    '<rect width="10" height="4" rx="9" ry="9"/>',
    (shapes) => expect(outlineBox(shapes[0].outline)).toMatchObject({ minX: 0, maxX: 10, minY: 0, maxY: 4 }),
  ],
  ['10.2', 'rect with a negative width draws nothing', '<rect width="-4" height="4"/>', { refused: 'svg-no-outline' }],
  [
    '10.3',
    'circle starts at its right and runs clockwise',
    '<circle cx="5" cy="5" r="5"/>',
    (shapes) => expect(writePathData(shapes[0].outline, { digits: 2 })).toMatch(/^M10 5C10 7\.76 7\.76 10 5 10/),
  ],
  ['10.3', 'circle of radius zero draws nothing', '<circle r="0"/>', { refused: 'svg-no-outline' }],
  [
    '10.4',
    'ellipse with rx only: auto is the other radius',
    '<ellipse rx="3"/>',
    (shapes) => expect(outlineBox(shapes[0].outline).maxY).toBeCloseTo(3, 9),
  ],
  ['10.5', 'line', '<line x1="1" y1="1" x2="5" y2="2" stroke="black"/>', 'M1 1L5 2'],
  ['10.5', 'line has no fill', '<line x2="5" fill="red"/>', { refused: 'svg-no-outline' }],
  ['10.6', 'polyline stays open', '<polyline points="0 0 10 0 10 10"/>', 'M0 0L10 0L10 10'],
  ['10.7', 'polygon closes', '<polygon points="0,0 10,0 10,10"/>', 'M0 0L10 0L10 10Z'],
  [
    '10.7',
    'an odd number of coordinates leaves the last out',
    '<polygon points="0 0 10 0 10 10 7"/>',
    'M0 0L10 0L10 10Z',
  ],
  // Paths.
  ['9.3', 'path: relative commands, implicit lines after move', '<path d="m1 1 2 0 0 2z"/>', 'M1 1L3 1L3 3Z'],
  ['9.3', 'path: H, V and several contours', '<path d="M0 0H4V4zM10 10h2v2z"/>', 'M0 0L4 0L4 4ZM10 10L12 10L12 12Z'],
  [
    '9.3.6',
    'path: S reflects the handle before it',
    '<path d="M0 0C0 2 2 4 4 4S8 6 8 8z"/>',
    'M0 0C0 2 2 4 4 4C6 4 8 6 8 8Z',
  ],
  ['9.3.7', 'path: Q is raised to a cubic exactly', '<path d="M0 0Q3 0 3 3z"/>', 'M0 0C2 0 3 1 3 3Z'],
  [
    '9.3.8',
    'path: arc flags may stand together',
    '<path d="M0 0a5 5 0 015 5z"/>',
    (shapes) => expect(outlineBox(shapes[0].outline).maxX).toBeCloseTo(5, 6),
  ],
  ['9.3.9', 'path: an error in the data is refused with its place', '<path d="M0 0L5"/>', { refused: 'path-data' }],
  // Coordinates.
  [
    '8.5',
    'transform on a group and on the shape',
    `<g transform="translate(5,5)"><path transform="scale(2)" ${D}/></g>`,
    'M5 5L25 5L25 25L5 25Z',
  ],
  [
    '8.5',
    'transform list: the first is outermost',
    `<path transform="translate(10) rotate(90)" ${D}/>`,
    'M10 0L10 10L0 10L0 0Z',
  ],
  ['8.5', 'skewX', `<path transform="skewX(45)" ${D}/>`, 'M0 0L10 0L20 10L10 10Z'],
  [
    '8.5',
    'transform as a style property',
    `<path style="transform: translate(3px, 4px)" ${D}/>`,
    'M3 4L13 4L13 14L3 14Z',
  ],
  [
    '8.6',
    'viewBox scales to the size',
    `<svg viewBox="0 0 10 10" width="100" height="100"><path ${D}/></svg>`,
    'M0 0L100 0L100 100L0 100Z',
  ],
  [
    '8.7',
    'preserveAspectRatio keeps proportions in the middle',
    `<svg viewBox="0 0 10 10" width="100" height="50" overflow="visible"><path ${D}/></svg>`,
    'M25 0L75 0L75 50L25 50Z',
  ],
  [
    '8.7',
    'preserveAspectRatio none stretches',
    `<svg viewBox="0 0 10 10" width="100" height="50" preserveAspectRatio="none"><path ${D}/></svg>`,
    'M0 0L100 0L100 50L0 50Z',
  ],
  [
    '5.1',
    'nested svg is placed',
    `<svg x="20" y="30" width="10" height="10"><path ${D}/></svg>`,
    'M20 30L30 30L30 40L20 40Z',
  ],
  [
    '14.2',
    'nested svg cuts off what lies outside it',
    `<svg width="5" height="5"><path ${D}/></svg>`,
    (shapes) => expect(shapes[0].clips).toHaveLength(1),
  ],
  // Structure.
  ['5.5', 'defs are not drawn', `<defs><path ${D}/></defs><rect width="1" height="1"/>`, 'M0 0L1 0L1 1L0 1Z'],
  [
    '5.6',
    'use is placed by x and y',
    `<defs><path id="p" ${D}/></defs><use href="#p" x="1" y="2"/>`,
    'M1 2L11 2L11 12L1 12Z',
  ],
  [
    '5.6',
    'use of a group, with a transform',
    `<defs><g id="p"><path ${D}/></g></defs><use href="#p" transform="scale(.5)"/>`,
    'M0 0L5 0L5 5L0 5Z',
  ],
  [
    '5.6',
    'what is used inherits from the use',
    `<defs><path id="p" ${D}/></defs><use href="#p" fill="red"/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#ff0000']),
  ],
  [
    '5.6',
    'use of a symbol with a viewBox',
    `<symbol id="s" viewBox="0 0 10 10"><path ${D}/></symbol><use href="#s" width="50" height="50"/>`,
    'M0 0L50 0L50 50L0 50Z',
  ],
  [
    '5.6',
    'use of another document is named',
    `<use href="a.svg#p"/><path ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('nothing is fetched'),
  ],
  ['5.9', 'switch draws its first child', `<switch><path ${D}/><rect width="3" height="3"/></switch>`, B],
  [
    '5.7',
    'title and desc are silent',
    `<title>T</title><desc>D</desc><path ${D}/>`,
    (_s, notes) => expect(notes).toEqual([]),
  ],
  // Styling.
  [
    '6.4',
    'presentation attributes',
    `<path fill="#00f" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#0000ff']),
  ],
  [
    '6.2',
    'style attribute over presentation attribute',
    `<path fill="red" style="fill: lime" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#00ff00']),
  ],
  [
    '6.2',
    'element rule over presentation attribute',
    `<style>path { fill: lime }</style><path fill="red" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#00ff00']),
  ],
  [
    '6.2',
    'class over element, id over class',
    `<style>#i{fill:blue}.c{fill:lime}path{fill:red}</style><path class="c" ${D}/><path id="i" class="c" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#00ff00', '#0000ff']),
  ],
  [
    '6.2',
    'important rule over style attribute',
    `<style>path{fill:lime !important}</style><path style="fill:red" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#00ff00']),
  ],
  [
    '6.5',
    'inherited paint',
    `<g fill="red"><g><path ${D}/></g></g>`,
    (shapes) => expect(paints(shapes)).toEqual(['#ff0000']),
  ],
  [
    '6.5',
    'opacity is not inherited but multiplies',
    `<g opacity=".5"><path opacity=".5" fill="red" ${D}/></g>`,
    (shapes) => expect(paints(shapes)).toEqual(['rgb(255 0 0 / 0.25)']),
  ],
  [
    '6.6',
    'a style rule that is not understood is named',
    `<style>path:hover{fill:red}</style><path id="wing" ${D}/>`,
    (shapes, notes) => {
      expect(notes.join()).toContain('Style rule “path:hover” was not applied to wing');
      expect(paints(shapes)).toEqual(['#000000']);
    },
  ],
  ['11.2', 'display none is not drawn', `<path display="none" ${D}/><rect width="1" height="1"/>`, 'M0 0L1 0L1 1L0 1Z'],
  [
    '11.2',
    'visibility of a child may be visible again',
    `<g visibility="hidden"><path visibility="visible" ${D}/><rect width="1" height="1"/></g>`,
    B,
  ],
  [
    '13.2',
    'currentColor',
    `<g color="red"><path fill="currentColor" ${D}/></g>`,
    (shapes) => expect(paints(shapes)).toEqual(['#ff0000']),
  ],
  [
    '13.2',
    'a paint that is missing falls back to its colour',
    `<path fill="url(#none) red" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#ff0000']),
  ],
  [
    '13.4',
    'fill-rule',
    `<path fill-rule="evenodd" ${D}/>`,
    (shapes) => expect(shapes[0].outline.fillRule).toBe('evenodd'),
  ],
  [
    '13.4',
    'fill-opacity',
    `<path fill="red" fill-opacity="50%" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['rgb(255 0 0 / 0.5)']),
  ],
  [
    '13.5',
    'stroke width, cap, join and mitre limit',
    `<path fill="none" stroke="red" stroke-width="3" stroke-linecap="round" stroke-linejoin="bevel" stroke-miterlimit="7" ${D}/>`,
    (shapes) => expect(shapes[0].stroke).toMatchObject({ width: 3, cap: 'round', join: 'bevel', miter: 7 }),
  ],
  [
    '13.5.4',
    'stroke width is scaled',
    `<path transform="scale(3)" fill="none" stroke="red" stroke-width="2" ${D}/>`,
    (shapes) => expect(shapes[0].stroke?.width).toBeCloseTo(6, 9),
  ],
  [
    '13.5.6',
    'dashes: an odd list is repeated',
    `<path fill="none" stroke="red" stroke-dasharray="5 3 2" ${D}/>`,
    (shapes) => expect(shapes[0].stroke?.dash).toEqual([5, 3, 2, 5, 3, 2]),
  ],
  [
    '13.5.6',
    'dashes: all zero is a solid line',
    `<path fill="none" stroke="red" stroke-dasharray="0 0" ${D}/>`,
    (shapes) => expect(shapes[0].stroke?.dash).toEqual([]),
  ],
  [
    '9.6',
    'dashes count in units of pathLength',
    `<path fill="none" stroke="red" pathLength="4" stroke-dasharray="1" ${D}/>`,
    (shapes) => near(shapes[0].stroke?.dash ?? [], [10, 10]),
  ],
  [
    '13.5',
    'vector-effect: the stroke is not scaled',
    `<path transform="scale(3)" vector-effect="non-scaling-stroke" fill="none" stroke="red" ${D}/>`,
    (shapes) => expect(shapes[0].stroke?.width).toBe(1),
  ],
  [
    '13.8',
    'paint-order is named',
    `<path paint-order="stroke" fill="red" stroke="blue" ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('paint-order'),
  ],
  [
    '13.7',
    'markers are named',
    `<path marker-end="url(#m)" stroke="red" ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('Markers'),
  ],
  // Gradients.
  [
    '14.2.2',
    'linear gradient over the box',
    `${GRADIENT}<path fill="url(#g)" ${D}/>`,
    (shapes) =>
      expect(gradient(shapes[0])).toMatchObject({ kind: 'linear', from: [0, 0], to: [expect.closeTo(10, 9), 0] }),
  ],
  [
    '14.2.2',
    'linear gradient in user space',
    `<linearGradient id="u" gradientUnits="userSpaceOnUse" x1="2" y1="0" x2="2" y2="8"><stop/><stop offset="1"/></linearGradient><path fill="url(#u)" ${D}/>`,
    (shapes) => expect(gradient(shapes[0])).toMatchObject({ from: [2, 0], to: [2, 8] }),
  ],
  [
    '14.2.2',
    'gradient transform, and the shape’s own',
    `<linearGradient id="u" gradientUnits="userSpaceOnUse" x2="4" gradientTransform="translate(1)"><stop/><stop offset="1"/></linearGradient><path transform="scale(2)" fill="url(#u)" ${D}/>`,
    (shapes) => expect(gradient(shapes[0])).toMatchObject({ from: [2, 0], to: [10, 0] }),
  ],
  [
    '14.2.3',
    'radial gradient over the box',
    '<radialGradient id="r"><stop/><stop offset="1"/></radialGradient><rect width="20" height="10" fill="url(#r)"/>',
    (shapes) => {
      const paint = gradient(shapes[0]);
      if (paint.kind !== 'radial') throw new Error('not radial');
      near([...paint.centre, ...paint.radii], [10, 5, 10, 5]);
    },
  ],
  [
    '14.2.4',
    'stops: offsets are clamped and may not go back',
    '<linearGradient id="u"><stop offset="60%"/><stop offset=".2"/><stop offset="7"/></linearGradient><rect width="9" height="9" fill="url(#u)"/>',
    (shapes) => expect(gradient(shapes[0]).stops.map(({ at }) => at)).toEqual([0.6, 0.6, 1]),
  ],
  [
    '14.2.4',
    'stop-opacity',
    '<linearGradient id="u"><stop stop-color="red" stop-opacity=".5"/><stop offset="1"/></linearGradient><rect width="9" height="9" fill="url(#u)"/>',
    (shapes) => expect(gradient(shapes[0]).stops[0].colour).toBe('rgb(255 0 0 / 0.5)'),
  ],
  [
    '14.2.1',
    'stops and attributes through href',
    `${GRADIENT}<linearGradient id="h" href="#g" x2="0" y2="1"/><path fill="url(#h)" ${D}/>`,
    (shapes) =>
      expect(gradient(shapes[0])).toMatchObject({
        to: [0, expect.closeTo(10, 9)],
        stops: [{ colour: '#ff0000' }, { colour: '#0000ff' }],
      }),
  ],
  [
    '14.2.4',
    'a single stop is a colour',
    `<linearGradient id="u"><stop stop-color="red"/></linearGradient><path fill="url(#u)" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#ff0000']),
  ],
  [
    '14.2.2',
    'a vector without length is the last colour',
    `<linearGradient id="u" x2="0"><stop stop-color="red"/><stop offset="1" stop-color="blue"/></linearGradient><path fill="url(#u)" ${D}/>`,
    (shapes) => expect(paints(shapes)).toEqual(['#0000ff']),
  ],
  [
    '14.2.2',
    'spread methods are named',
    `<linearGradient id="u" spreadMethod="reflect"><stop/><stop offset="1"/></linearGradient><path fill="url(#u)" ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('reflect'),
  ],
  [
    '14.3',
    'a pattern is named',
    `<pattern id="q"/><path fill="url(#q) red" ${D}/>`,
    (shapes, notes) =>
      expect([paints(shapes), notes.join()]).toEqual([['#ff0000'], expect.stringContaining('<pattern>')]),
  ],
  // What cannot be taken.
  [
    'css-masking 5',
    'a clip path that holds the whole shape changes nothing',
    `<clipPath id="c"><rect width="99" height="99"/></clipPath><path clip-path="url(#c)" ${D}/>`,
    (shapes) => expect(shapes[0].clips).toEqual([]),
  ],
  [
    'css-masking 5',
    'a clip path that cuts is handed on',
    `<clipPath id="c"><circle r="4"/></clipPath><path clip-path="url(#c)" ${D}/>`,
    (shapes) => expect(shapes[0].clips[0]).toHaveLength(1),
  ],
  [
    'css-masking 5',
    'clip paths nest through groups',
    `<clipPath id="c"><circle r="4"/></clipPath><g clip-path="url(#c)"><path clip-path="url(#c)" ${D}/></g>`,
    (shapes) => expect(shapes[0].clips).toHaveLength(2),
  ],
  [
    'css-masking 5',
    'clip path in units of the box',
    `<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath><path clip-path="url(#c)" ${D}/>`,
    (shapes) => expect(outlineBox(shapes[0].clips[0][0]).maxX).toBeCloseTo(5, 9),
  ],
  [
    'css-masking 6',
    'a mask is named',
    `<path mask="url(#m)" ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('mask'),
  ],
  [
    'filter-effects',
    'a filter is named',
    `<path style="filter: blur(2px)" ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('filter'),
  ],
  [
    '11.5',
    'text without outlines is named',
    `<text>Hi</text><path ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('<text>'),
  ],
  [
    '12.3',
    'an image is named',
    `<image href="data:image/png;base64,AA"/><path ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('<image>'),
  ],
  [
    'common',
    'groups are told, the outermost first',
    `<g id="eye"><g id="lid"><path ${D}/></g></g>`,
    (shapes) => expect(shapes[0].groups).toEqual(['eye', 'lid']),
  ],
  [
    'common',
    'a see-through group of several shapes is named',
    `<g opacity=".5"><path ${D}/><path ${D}/></g>`,
    (_s, notes) => expect(notes.join()).toContain('see-through group'),
  ],
  [
    'common',
    'uneven scaling of a stroke is named',
    `<path transform="scale(1 3)" fill="none" stroke="red" ${D}/>`,
    (_s, notes) => expect(notes.join()).toContain('unevenly'),
  ],
  ['css-values 5', 'lengths in millimetres', '<rect width="25.4mm" height="1in"/>', 'M0 0L96 0L96 96L0 96Z'],
];

const wrap = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100">${body}</svg>`;

describe('reading SVG, construct by construct', () => {
  test.each(CASES)('%s: %s', (_section, _name, body, expected) => {
    if (typeof expected === 'object' && 'refused' in expected) {
      let code = '';
      try {
        readSvg(wrap(body));
      } catch (error) {
        code = (error as CoreError).code;
      }
      expect(code).toBe(expected.refused);
      return;
    }
    const { shapes, notes } = readSvg(wrap(body));
    if (typeof expected === 'function') expected(shapes, notes);
    else {
      const data = shapes.map(({ outline }) => writePathData(outline, { digits: 2 }));
      expect(data).toEqual(typeof expected === 'string' ? [expected] : expected);
    }
  });

  test('there are enough of them, and half come from the standard', () => {
    expect(CASES.length).toBeGreaterThanOrEqual(60);
    expect(CASES.filter(([section]) => /^\d/.test(section)).length).toBeGreaterThanOrEqual(CASES.length / 2);
  });
});
