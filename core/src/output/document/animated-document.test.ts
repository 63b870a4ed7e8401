import { describe, expect, test } from '@jest/globals';
import type { Track } from '../tree/drawn-element';
import { readAnimatedDocument } from './animated-document';

const svg = (inside: string): string => `<svg xmlns="http://www.w3.org/2000/svg">${inside}</svg>`;
const track = (animation: string, attributes = 'r="2"'): Track => {
  const [circle] = readAnimatedDocument(svg(`<circle ${attributes}>${animation}</circle>`)).root.children;
  return circle.tracks[0];
};

describe('a drawing with animation, read', () => {
  test('elements keep their attributes, their order and what is in them; animations are tracks of what they are in', () => {
    const { root, notes } = readAnimatedDocument(
      svg('<g id="a"><path d="M0 0"/></g><rect><set attributeName="x" to="5" begin="1s"/></rect>'),
    );
    expect(root.children.map(({ name, children, tracks }) => [name, children.length, tracks.length])).toEqual([
      ['g', 1, 0],
      ['rect', 0, 1],
    ]);
    expect(root.children[0].children[0].attributes.d).toBe('M0 0');
    expect(notes).toEqual([]);
  });

  test('values, times and splines by keys; the clock in any of its units (SMIL 3.0, clock values)', () => {
    expect(
      track(
        '<animate attributeName="r" values="1; 5 ;9;" keyTimes="0;.25;1" calcMode="spline" keySplines="0 0 1 1;.4,0,.6,1" begin="-250ms" dur="1.5min" repeatCount="indefinite"/>',
      ),
    ).toEqual({
      attribute: 'r',
      begin: -0.25,
      duration: 90,
      repeats: true,
      jumps: false,
      times: [0, 0.25, 1],
      values: ['1', '5', '9'],
      splines: [
        [0, 0, 1, 1],
        [0.4, 0, 0.6, 1],
      ],
    });
    expect(track('<animate attributeName="r" values="1;2" dur="00:01:02.5"/>').duration).toBe(62.5);
  });

  test('from and to, to alone from what the element has, even times where none are given, and set', () => {
    expect(track('<animate attributeName="r" from="1" to="4" dur="2s"/>').values).toEqual(['1', '4']);
    expect(track('<animate attributeName="r" to="4" dur="2s"/>').values).toEqual(['2', '4']);
    expect(track('<animate attributeName="r" values="1;2;3" dur="2s"/>').times).toEqual([0, 0.5, 1]);
    expect(track('<animate attributeName="r" calcMode="discrete" values="1;2" dur="2s"/>').times).toEqual([0, 0.5]);
    expect(track('<set attributeName="r" to="9"/>')).toMatchObject({ values: ['9'], jumps: true, times: [0] });
    expect(track('<animate attributeName="display" values="none;inline" dur="1s"/>').jumps).toBe(true);
  });

  test('a transform is a step, which replaces those before it or comes after them', () => {
    expect(
      track('<animateTransform attributeName="transform" type="rotate" additive="sum" values="0;90" dur="1s"/>').step,
    ).toEqual({ type: 'rotate', sum: true });
    expect(track('<animateTransform attributeName="transform" type="scale" values="0;1" dur="1s"/>').step?.sum).toBe(
      false,
    );
  });

  test.each([
    ['<animateMotion path="M0 0L5 5" dur="1s"/>', /Motion along a path/],
    ['<animate attributeName="r" values="1;2" dur="1s" begin="a.click"/>', /begins by an event \(a.click\)/],
    ['<animate attributeName="r" values="1;2"/>', /without a duration/],
    ['<animate attributeName="r" values="1;2" keyTimes="0;.5;1" dur="1s"/>', /times do not fit/],
    ['<animate attributeName="r" values="1;2" keyTimes="1;0" dur="1s"/>', /times do not fit/],
    ['<animate attributeName="r" values="1;2" calcMode="spline" keySplines="0 0 1" dur="1s"/>', /splines do not fit/],
    ['<animate attributeName="r" values="1;2" accumulate="sum" dur="1s"/>', /adds up/],
    ['<animateTransform attributeName="transform" type="skewY" values="0;9" dur="1s"/>', /skewYs over time/],
    ['<animate values="1;2" dur="1s"/>', /without attributeName/],
    ['<animate attributeName="cx" dur="1s"/>', /without values/],
  ])('%s is named and left out', (animation, note) => {
    const { root, notes } = readAnimatedDocument(svg(`<circle>${animation}</circle>`));
    expect(root.children[0].tracks).toEqual([]);
    expect(notes).toHaveLength(1);
    expect(notes[0]).toMatch(note);
  });

  test('what is no SVG, is broken, brings entities of its own or is too deep is refused by its code', () => {
    const codeOf = (text: string): string => {
      try {
        readAnimatedDocument(text);
        return 'taken';
      } catch (error) {
        return (error as { code: string }).code;
      }
    };
    expect(codeOf('<html/>')).toBe('svg-not-svg');
    expect(codeOf('')).not.toBe('taken');
    expect(codeOf('<svg><g></svg>')).toBe('svg-syntax');
    expect(codeOf('<!DOCTYPE svg [<!ENTITY a "b">]><svg/>')).toBe('svg-unsafe');
    expect(codeOf(`<svg>${'<g>'.repeat(300)}${'</g>'.repeat(300)}</svg>`)).toBe('svg-too-complex');
  });
});
