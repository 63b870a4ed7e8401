import { describe, expect, test } from '@jest/globals';
import { CoreError } from '../../errors';
import type { Gradient } from '../../paint';
import { hostileSvgs } from '../../testing/hostile-svgs';
import { readSvg } from './read-svg';

const HANGING_MS = 5_000;
const NS = 'xmlns="http://www.w3.org/2000/svg"';
const XLINK = 'xmlns:xlink="http://www.w3.org/1999/xlink"';
const good = '<path d="M0 0h9v9z"/>';
const wrap = (body: string, attributes = ''): string => `<svg ${NS} ${attributes}>${body}</svg>`;
const deep = (open: string, close: string, n: number): string => `${open.repeat(n)}${good}${close.repeat(n)}`;

/** Files that want to act, fetch, hide, explode or hang. Each is either refused with a code, or read with a note that holds a word. */
const CORPUS: readonly (readonly [
  name: string,
  text: string,
  outcome: { refused: string } | { noted: string } | 'silent',
])[] = [
  ['script element', wrap(`<script>alert(1)</script>${good}`), { noted: '<script>' }],
  ['script with a source', wrap(`<script href="http://evil.test/x.js"/>${good}`), { noted: '<script>' }],
  ['script in CDATA', wrap(`<script><![CDATA[alert(1)]]></script>${good}`), { noted: '<script>' }],
  ['script nested in a group', wrap(`<g><defs><script>1</script></defs>${good}</g>`), { noted: '<script>' }],
  ['onload on the root', wrap(good, 'onload="alert(1)"'), { noted: 'onload' }],
  ['onclick on a shape', wrap('<path onclick="alert(1)" d="M0 0h9v9z"/>'), { noted: 'onclick' }],
  ['handler in capitals', wrap('<path ONMOUSEOVER="x()" d="M0 0h9v9z"/>'), { noted: 'ONMOUSEOVER' }],
  ['onbegin of an animation', wrap(`<animate onbegin="x()" attributeName="d"/>${good}`), { noted: 'onbegin' }],
  ['javascript link', wrap(`<a href="javascript:alert(1)">${good}</a>`), 'silent'],
  ['javascript in use', wrap(`<use href="javascript:alert(1)"/>${good}`), { noted: 'nothing is fetched' }],
  [
    'foreignObject with HTML',
    wrap(
      `<foreignObject><body xmlns="http://www.w3.org/1999/xhtml"><img src="x" onerror="x()"/></body></foreignObject>${good}`,
    ),
    { noted: '<foreignObject>' },
  ],
  ['iframe of HTML', wrap(`<iframe xmlns="http://www.w3.org/1999/xhtml" src="http://evil.test"/>${good}`), 'silent'],
  ['embed', wrap(`<embed src="x.swf"/>${good}`), { noted: '<embed>' }],
  ['object', wrap(`<object data="x"/>${good}`), { noted: '<object>' }],
  ['audio and video', wrap(`<audio src="x"/><video src="y"/>${good}`), { noted: '<video>' }],
  ['SVG handler element', wrap(`<handler type="application/ecmascript">x()</handler>${good}`), { noted: '<handler>' }],
  [
    'external entity of a file',
    `<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>${wrap(`<text>&x;</text>${good}`)}`,
    { refused: 'svg-unsafe' },
  ],
  [
    'external entity of a host',
    `<!DOCTYPE svg [<!ENTITY x SYSTEM "http://evil.test/a">]>${wrap(`<text>&x;</text>${good}`)}`,
    { refused: 'svg-unsafe' },
  ],
  [
    'parameter entity',
    `<!DOCTYPE svg [<!ENTITY % p SYSTEM "http://evil.test/p">%p;]>${wrap(good)}`,
    { refused: 'svg-unsafe' },
  ],
  [
    'entity bomb',
    `<!DOCTYPE b [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]>${wrap(`<text>&c;</text>${good}`)}`,
    { refused: 'svg-unsafe' },
  ],
  [
    'quadratic entity',
    `<!DOCTYPE q [<!ENTITY a "${'a'.repeat(20_000)}">]>${wrap(`<text>${'&a;'.repeat(2000)}</text>`)}`,
    { refused: 'svg-unsafe' },
  ],
  ['entity that is not declared', wrap(`<text>&nbsp2;</text>${good}`), { refused: 'svg-syntax' }],
  [
    'external document type',
    `<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">${wrap(good)}`,
    'silent',
  ],
  ['style sheet instruction', `<?xml-stylesheet href="http://evil.test/a.css"?>${wrap(good)}`, 'silent'],
  [
    'CSS import',
    wrap(`<style>@import url(http://evil.test/a.css); path{fill:red}</style>${good}`),
    { noted: '@import' },
  ],
  [
    'CSS font from outside',
    wrap(`<style>@font-face{font-family:x;src:url(http://evil.test/f)}</style>${good}`),
    { noted: '@font-face' },
  ],
  [
    'CSS url as paint',
    wrap('<path style="fill:url(http://evil.test/a.svg#g)" d="M0 0h9v9z"/><path d="M0 0h9v9z"/>'),
    { noted: 'nothing is fetched' },
  ],
  ['CSS expression', wrap('<path style="fill:expression(alert(1))" d="M0 0h9v9z"/>'), { noted: 'not understood' }],
  ['image from outside', wrap(`<image href="http://evil.test/beacon.png"/>${good}`), { noted: '<image>' }],
  [
    'image as data',
    wrap(
      `<image href="data:image/svg+xml,<svg onload='x()'/>"/>${good}`.replace(/<svg onload='x\(\)'\/>/, '&lt;svg/&gt;'),
    ),
    { noted: '<image>' },
  ],
  ['use as data', wrap(`<use href="data:image/svg+xml;base64,AAAA#x"/>${good}`), { noted: 'nothing is fetched' }],
  [
    'use with xlink of another host',
    `<svg ${NS} ${XLINK}><use xlink:href="http://evil.test/a.svg#b"/>${good}</svg>`,
    { noted: 'nothing is fetched' },
  ],
  [
    'filter that fetches',
    wrap(`<filter id="f"><feImage href="http://evil.test/x"/></filter><path filter="url(#f)" d="M0 0h9v9z"/>`),
    { noted: 'filter' },
  ],
  ['deep nesting', wrap(deep('<g>', '</g>', 500)), { refused: 'svg-syntax' }],
  ['very deep nesting', wrap(deep('<g>', '</g>', 100_000)), { refused: 'svg-syntax' }],
  ['cyclic use', wrap(`<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>${good}`), { noted: 'itself' }],
  ['use of its own parent', wrap(`<g id="a">${good}<use href="#a"/></g>`), { noted: 'itself' }],
  [
    'cyclic gradients',
    wrap(
      '<linearGradient id="a" href="#b"/><linearGradient id="b" href="#a"/><path fill="url(#a)" stroke="red" d="M0 0h9v9z"/>',
    ),
    'silent',
  ],
  [
    'cyclic clip paths',
    wrap('<clipPath id="a" clip-path="url(#a)"><circle r="4"/></clipPath><path clip-path="url(#a)" d="M0 0h9v9z"/>'),
    { noted: 'clip-path' },
  ],
  [
    'cyclic use in a clip path',
    wrap('<clipPath id="c"><use id="u" href="#u"/></clipPath><path clip-path="url(#c)" d="M0 0h9v9z"/>'),
    { noted: 'itself' },
  ],
  [
    'tower of uses',
    wrap(
      `<defs><g id="u0">${good}</g>${Array.from({ length: 14 }, (_, i) => `<g id="u${i + 1}">${`<use href="#u${i}"/>`.repeat(10)}</g>`).join('')}</defs><use href="#u14"/>`,
    ),
    { noted: 'repeated too often' },
  ],
  ['huge number', wrap('<rect width="1e308" height="1"/>'), { refused: 'number-range' }],
  ['number beyond all numbers', wrap('<path d="M0 0L1e999 5"/>'), { refused: 'number-range' }],
  ['number as long as a book', wrap(`<path d="M0 0L${'9'.repeat(100_000)} 5"/>`), { refused: 'number-range' }],
  [
    'huge transform',
    wrap('<g transform="scale(1e200)"><path transform="scale(1e200)" d="M0 0h9v9z"/></g>'),
    { refused: 'number-range' },
  ],
  ['not a number in a view box', wrap(good, 'viewBox="0 0 NaN 9"'), { refused: 'svg-syntax' }],
  ['a million segments', wrap(`<path d="M0 0${'l1 1'.repeat(1_000_000)}"/>`), { refused: 'too-many-segments' }],
  ['many elements', wrap('<path d="M0 0h1v1z"/>'.repeat(60_000)), { refused: 'file-too-large' }],
  [
    'many attributes',
    wrap(`<path ${Array.from({ length: 20_000 }, (_, i) => `a${i}="1"`).join(' ')} d="M0 0h9v9z"/>`),
    'silent',
  ],
  ['a style sheet that tempts to backtrack', wrap(`<style>${'a{'.repeat(20_000)}</style>${good}`), 'silent'],
  [
    'a selector that tempts to backtrack',
    wrap(`<style>${'.a'.repeat(20_000)}!{fill:red}</style>${good}`),
    { noted: 'Style rule' },
  ],
  [
    'a transform that tempts to backtrack',
    wrap(`<path transform="${'scale('.repeat(20_000)}" d="M0 0h9v9z"/>`),
    { refused: 'svg-syntax' },
  ],
  [
    'prototype names as ids',
    wrap(`<g id="__proto__"><use href="#constructor"/></g>${good}`),
    { noted: 'no such element' },
  ],
  ['null bytes', wrap(`${good}\u0000`), { refused: 'svg-syntax' }],
  ['HTML that ends in SVG', `<html><body>${wrap(good)}</body></html>`, { refused: 'svg-not-svg' }],
  ['binary', '\u0089PNG\r\n\u001a\n'.repeat(1000), { refused: 'svg-not-svg' }],
];

describe('hostile SVG', () => {
  test.each(CORPUS)(
    '%s',
    (_name, text, outcome) => {
      const started = performance.now();
      let refused: CoreError | undefined;
      let reading: ReturnType<typeof readSvg> | undefined;
      try {
        reading = readSvg(text);
      } catch (error) {
        refused = error as CoreError;
      }
      // A limit against hanging, not a measure of speed: a synchronous loop is not ended by the runner.
      expect(performance.now() - started).toBeLessThan(HANGING_MS);
      if (typeof outcome === 'object' && 'refused' in outcome) {
        expect([refused?.code, (refused?.message.length ?? 0) > 20]).toEqual([outcome.refused, true]);
        return;
      }
      expect(refused).toBeUndefined();
      if (outcome !== 'silent') expect(reading?.notes.join(' | ')).toContain(outcome.noted);
      // Nothing of what could act is in what was read: numbers, colours and names only.
      const kept = JSON.stringify(reading?.shapes);
      for (const word of ['javascript', 'alert', 'http', 'onload', 'expression']) expect(kept).not.toContain(word);
    },
    2 * HANGING_MS,
  );

  test('the corpus is large enough', () => {
    expect(CORPUS.length).toBeGreaterThanOrEqual(40);
  });
});

describe('small files that ask for much work', () => {
  // Each took from ten seconds to minutes, or never ended, when work was not counted; the runner's own limit is five seconds.
  test.each([...hostileSvgs(100_000)])('%s: read or refused with a code', (_name, text) => {
    let outcome: string;
    try {
      const { shapes, notes } = readSvg(text);
      expect(shapes.length).toBeGreaterThan(0);
      expect(notes.length).toBeLessThanOrEqual(61);
      outcome = 'read';
    } catch (error) {
      expect(error).toBeInstanceOf(CoreError);
      outcome = (error as CoreError).code;
    }
    expect(['read', 'svg-too-complex', 'svg-syntax', 'too-many-segments']).toContain(outcome);
  });
});

describe('style rules in one pass', () => {
  const fillOf = (css: string, element = '<path class="a" id="i" d="M0 0H9V9Z"/>'): unknown =>
    readSvg(`<svg xmlns="http://www.w3.org/2000/svg"><style>${css}</style>${element}</svg>`).shapes[0].fill;

  // CSS Syntax 3, section 5, and the cascade of CSS Cascade 4, section 6: weight first, then order.
  test.each([
    ['comments between, inside selectors and inside blocks', '/* x */.a/**/{/* y */fill:#010203/* z */}', '#010203'],
    ['a comment that never ends hides the rest', '.a{fill:#010203}/*.a{fill:#fff}', '#010203'],
    [
      'an at-rule with blocks inside ends with its own block',
      '@media print{.a{fill:#fff}.b{fill:#fff}}.a{fill:#010203}',
      '#010203',
    ],
    ['an at-rule without block ends with its semicolon', '@import "x";.a{fill:#010203}', '#010203'],
    [
      'an id goes before a later class, a class before a later element',
      '#i{fill:#010203}.a{fill:#fff}path{fill:#eee}',
      '#010203',
    ],
    ['of equal weight the later rule goes before', '.a{fill:#fff}.a{fill:#010203}', '#010203'],
    ['element and class together', 'path.a{fill:#010203}.a{fill:#fff}', '#010203'],
    ['a rule for all', '*{fill:#010203}', '#010203'],
    ['a stray closing brace spoils nothing', '}.a{fill:#010203}', '#010203'],
    ['a block that never ends still counts', '.a{fill:#010203', '#010203'],
  ])('%s', (_name, css, fill) => {
    expect(fillOf(css)).toBe(fill);
  });

  test('classes of another element, and rules that need two, do not apply', () => {
    expect(fillOf('.a.b{fill:#fff}.b{fill:#fff}circle.a{fill:#fff}')).toBe('#000000');
  });
});

describe('gradients with more stops than can be stored', () => {
  const stops = (count: number, colour: (i: number) => string): string =>
    Array.from({ length: count }, (_, i) => `<stop offset="${i / (count - 1)}" stop-color="${colour(i)}"/>`).join('');
  const read = (inside: string) =>
    readSvg(
      `<svg xmlns="http://www.w3.org/2000/svg"><linearGradient id="g">${inside}</linearGradient><path fill="url(#g)" d="M0 0H9V9Z"/></svg>`,
    );

  test('128 of a smooth run become 100 with both ends and a note; a single stop that stands out stays', () => {
    const { shapes, notes } = read(stops(128, (i) => (i === 64 ? '#ff0000' : `rgb(0,0,${2 * i})`)));
    const { stops: kept } = shapes[0].fill as Gradient;
    expect(kept).toHaveLength(100);
    expect([kept[0].at, kept[99].at]).toEqual([0, 1]);
    expect(kept.some(({ colour }) => colour === '#ff0000')).toBe(true);
    expect(notes.join()).toMatch(/more than 100 stops.*28 were left out/);
  });

  test('a hundred are taken as they are', () => {
    const { shapes, notes } = read(stops(100, (i) => `rgb(${i},0,0)`));
    expect((shapes[0].fill as Gradient).stops).toHaveLength(100);
    expect(notes).toEqual([]);
  });
});
