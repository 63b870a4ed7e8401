const svg = (inside: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${inside}</svg>`;
const times = (count: number, make: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => make(i)).join('');
const DOT = '<path d="M0 0H9V9Z"/>';

/** Small files that ask for much work, by name; `n` is the size of the trap. */
export function hostileSvgs(n = 100_000): ReadonlyMap<string, string> {
  const few = Math.round(Math.sqrt(n) * 6.4);
  return new Map([
    ['style text of letters', svg(`<style>${'a'.repeat(n)}</style>${DOT}`)],
    ['style text of at-signs', svg(`<style>${'@'.repeat(n)}</style>${DOT}`)],
    ['style text of letters and at-signs', svg(`<style>a${'@ '.repeat(n)}</style>${DOT}`)],
    ['style text of opened comments', svg(`<style>${'/*'.repeat(n)}</style>${DOT}`)],
    ['style text of blocks without end', svg(`<style>${'@a{'.repeat(n)}</style>${DOT}`)],
    ['a long selector', svg(`<style>${'.a'.repeat(n)}{fill:red}</style>${DOT}`)],
    [
      'many rules for many elements',
      svg(
        `<style>${times(few, (i) => `.a{fill:#${String(i % 1000).padStart(3, '0')}}`)}</style>${times(few, () => '<path class="a" d="M0 0H9V9Z"/>')}`,
      ),
    ],
    [
      'a selector that looks for ten groups around, in deep ones',
      svg(
        `<style>b ${'g '.repeat(10)}path{fill:red}</style>${'<g>'.repeat(150)}${times(few, () => '<path d="M0 0H9V9Z"/>')}${'</g>'.repeat(150)}`,
      ),
    ],
    [
      'a selector that looks among all before it',
      svg(`<style>b~path{fill:red}</style>${times(few, () => '<path d="M0 0H9V9Z"/>')}`),
    ],
    ['a transform of letters', svg(`<path transform="${'a'.repeat(n)}" d="M0 0H9V9Z"/>`)],
    ['a transform of many steps', svg(`<path transform="${'scale(1) '.repeat(n)}" d="M0 0H9V9Z"/>`)],
    ['a number of many digits', svg(`<rect width="${'1'.repeat(n)}x" height="9"/>`)],
    ['a paint of blanks', svg(`<path fill="url(${' '.repeat(n)}" d="M0 0H9V9Z"/>`)],
    ['a colour of letters', svg(`<path fill="rgb(${'1'.repeat(n)}" d="M0 0H9V9Z"/>`)],
    [
      'a dash pattern for many shapes',
      svg(`<g stroke="red" stroke-dasharray="${'1 '.repeat(n)}">${times(few, () => DOT)}</g>`),
    ],
    [
      'many stops for many shapes',
      svg(
        `<linearGradient id="g">${times(2_000, (i) => `<stop offset="${i / 2_000}" stop-color="#${(i % 4096).toString(16).padStart(3, '0')}"/>`)}</linearGradient>${times(4_000, () => '<path fill="url(#g)" d="M0 0H9V9Z"/>')}`,
      ),
    ],
    [
      'a clip of many groups for many shapes',
      svg(
        `<clipPath id="c">${times(2_000, () => '<g/>')}<path d="M0 0H5V5Z"/></clipPath>${times(2_000, () => '<path clip-path="url(#c)" d="M0 0H9V9Z"/>')}`,
      ),
    ],
    [
      'a clip of many shapes',
      svg(
        `<clipPath id="c">${times(4_000, () => '<path d="M0 0H5V5Z"/>')}</clipPath><g clip-path="url(#c)">${times(2_000, () => DOT)}</g>`,
      ),
    ],
    [
      'uses of uses',
      svg(`${times(12, (i) => `<g id="u${i}">${i === 0 ? DOT : `<use href="#u${i - 1}"/>`.repeat(8)}</g>`)}`),
    ],
    [
      'a long path used often',
      svg(`<defs><path id="p" d="M0 0${'m1 1'.repeat(n)}"/></defs>${times(2_000, () => '<use href="#p"/>')}`),
    ],
    ['foreign elements in each other', svg(`${'<x:a xmlns:x="urn:x">'.repeat(Math.min(n, 40_000))}`)],
    ['attributes without end', svg(`<path ${times(Math.min(n, 50_000), (i) => `a${i}="1" `)} d="M0 0H9V9Z"/>`)],
    ['as many elements as are read', svg(times(Math.min(n / 2, 49_000), () => '<g/>') + DOT)],
    ['a path of the largest size', svg(`<path d="M0 0${'m1 1'.repeat(Math.min(20 * n, 2_000_000))}H9V9Z"/>`)],
    [
      'classes without end',
      svg(`<style>.b{fill:red}</style><path class="${times(n, (i) => `c${i} `)}" d="M0 0H9V9Z"/>`),
    ],
  ]);
}
