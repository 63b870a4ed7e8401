import { describe, expect, test } from '@jest/globals';
import { readSvg } from './read-svg';

const D = 'd="M0 0H10V10H0Z"';
const fills = (body: string): unknown[] =>
  readSvg(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10">${body}</svg>`).shapes.map(({ fill }) => fill);

/** Sections of Selectors 4 (W3C). */
const CASES: readonly (readonly [name: string, body: string, fills: readonly string[]])[] = [
  [
    'elements inside others, and only right under them (Selectors 4, 16.1 and 16.2)',
    `<style>.a path{fill:red}.b>path{fill:blue}</style><g class="a"><g><path ${D}/></g></g><g class="b"><path ${D}/><g><path ${D}/></g></g>`,
    ['#ff0000', '#0000ff', '#000000'],
  ],
  [
    'several classes, and what is not (Selectors 4, 4.3 and 6.6)',
    `<style>.a.b{fill:red}path:not(.a):not(#x){fill:blue}</style><path class="a b" ${D}/><path class="a" ${D}/><path ${D}/><path id="x" ${D}/>`,
    ['#ff0000', '#000000', '#0000ff', '#000000'],
  ],
  [
    'the weightier selector wins, not the later one (Selectors 4, 17)',
    `<style>g .a{fill:red}.a{fill:blue}#x{fill:lime}g path{fill:black}</style><g><path class="a" ${D}/><path id="x" class="a" ${D}/></g>`,
    ['#ff0000', '#00ff00'],
  ],
  [
    'attributes, neighbours, the first and the last',
    `<style>[data-k^="in"]{fill:red}path+path{fill:blue}rect:last-child{fill:lime}</style><g><path data-k="ink" ${D}/><path ${D}/><rect width="1" height="1"/></g>`,
    ['#ff0000', '#0000ff', '#00ff00'],
  ],
  [
    'of a list with one that cannot be read the others hold',
    `<style>.a:hover,.a{fill:red}</style><path class="a" ${D}/>`,
    ['#ff0000'],
  ],
];

describe('selectors of style rules', () => {
  test.each(CASES)('%s', (_name, body, expected) => {
    expect(fills(body)).toEqual(expected);
  });
});
