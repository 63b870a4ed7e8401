import { describe, expect, test } from '@jest/globals';
import { CoreError } from '../../errors';
import { planAndCompile, prepareFrame, sampleFrame } from '../../frame';
import type { PieceDraft } from '../../piece';
import { readSvg } from '../../svg';
import { mutateJson } from '../../testing/mutate-json';
import { mutateText } from '../../testing/mutate-text';
import { countedIds, pieceOf } from '../../testing/pieces';
import { makeTextFiles, TEXT_FORMS } from '../forms/text-forms';
import { writeFrameCsv } from '../frame-data';
import { comparePainted } from '../proof/compare';
import { paintedOfFrame } from '../proof/painted';
import { type MovingFile, movingFileOf, readMovingFile } from './moving-file';

/** A square that becomes an arrow and goes back, and moves while it does. */
const draft = structuredClone(pieceOf(['M0 0H160V160H0Z', 'M0 60H90V0L200 80L90 160V100H0Z'])) as PieceDraft;
draft.lanes.l = {
  id: 'l',
  figure: 'f',
  property: 'turn',
  keys: [
    { id: 'a', stop: { pose: draft.figures.f.poses[0], shift: null }, after: 0, value: [0], easing: null },
    { id: 'b', stop: { pose: draft.figures.f.poses[0], shift: null }, after: 1.4, value: [90], easing: null },
  ],
};
const piece = draft as never;
const compiled = planAndCompile(piece);
const fileOf = (id: string): string => {
  const form = TEXT_FORMS.find((each) => each.id === id);
  if (!form) throw new Error(id);
  return makeTextFiles(form, { piece, compiled }, {})[0].text;
};
const files: Readonly<Record<MovingFile, string>> = {
  'animated-svg': fileOf('animated-svg'),
  'css-svg': fileOf('css'),
  lottie: fileOf('lottie'),
  frames: fileOf('path-data'),
  table: writeFrameCsv(compiled),
};
const read = (text: string) => readMovingFile(text, { id: 'p', name: 'Read', newId: countedIds() });

describe('files that move', () => {
  test.each(Object.entries(files))('%s out and in again gives the same frames within a tenth of a px', (kind, text) => {
    expect(movingFileOf(text)).toBe(kind);
    const back = read(text).piece;
    const again = planAndCompile(back);
    const [one, two] = [prepareFrame(compiled), prepareFrame(again)];
    for (let k = 0; k < 12; k++) {
      const seconds = Math.round((k / 12) * compiled.duration * compiled.rate) / compiled.rate;
      const wanted = paintedOfFrame(sampleFrame(compiled, seconds, one));
      const found = paintedOfFrame(sampleFrame(again, seconds, two));
      const { largest, missing, extra, colour } = comparePainted(wanted, found);
      expect([largest < 0.1, missing, extra, colour < 0.01]).toEqual([true, 0, 0, true]);
    }
    expect(Object.keys(back.figures)).toHaveLength(1);
  });

  test('frames are few poses again, and the lane is one', () => {
    const back = read(files.frames).piece;
    expect(Object.keys(back.poses).length).toBeLessThan(12);
    expect(Object.values(back.lanes).map(({ property }) => property)).toEqual(['turn']);
  });

  test('still drawings, pieces and other texts are none', () => {
    const others = [
      '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H9"/></svg>',
      JSON.stringify(piece),
      '{"a":1}',
      'name,age\n',
      '',
    ];
    expect(others.map(movingFileOf)).toEqual(others.map(() => null));
  });

  test('where nothing is drawn it says so, and what it left out', () => {
    const text = '<svg xmlns="http://www.w3.org/2000/svg"><text>Quay</text><set attributeName="x" to="1"/></svg>';
    expect(() => read(text)).toThrow(/some shape is drawn; found none. Text was left out/);
  });

  test.each([
    ['no number of a frame', 'frame,time,d\nx,0,M0 0H9\n', 'number of a frame in line 2'],
    ['a column that is missing', 'frame,time,path\n0,0,M0 0\n', 'columns frame, time and d; d is missing'],
    ['a quote that is never closed', 'frame,time,d\n0,0,"M0 0\n', 'every quote to be closed'],
  ])('a table with %s is refused', (_what, text, message) => {
    expect(() => read(text)).toThrow(message);
  });

  test('whatever is spoiled in them, they are read or refused with a reason', () => {
    for (const [kind, text] of Object.entries(files))
      for (let seed = 0; seed < 12; seed++) {
        const spoiled =
          seed % 2 && text.startsWith('{')
            ? JSON.stringify(mutateJson(JSON.parse(text), seed))
            : mutateText(text, seed);
        let failure: unknown;
        try {
          read(spoiled);
        } catch (error) {
          failure = error;
        }
        if (failure !== undefined && !(failure instanceof CoreError))
          throw new Error(`${kind}, seed ${seed}: ${failure}`);
      }
    expect.hasAssertions();
    expect(Object.keys(files)).toHaveLength(5);
  });

  test('times that nobody could watch are told and left out', () => {
    const path = (dur: string): string =>
      `<path d="M0 0H9V9"><animate attributeName="opacity" values="0;1" dur="${dur}" repeatCount="indefinite"/><animate attributeName="fill" values="#000000;#ff0000" dur="1s"/></path>`;
    const svg = (dur: string): string => `<svg xmlns="http://www.w3.org/2000/svg">${path(dur)}</svg>`;
    expect(read(svg('0.00001s')).notes.join()).toContain('opacity');
    expect(read(svg('1e300s')).notes.join()).toContain('opacity');
    // Faster than anyone sees, but read in no time.
    expect(Object.keys(read(svg('0.0002s')).piece.figures)).toHaveLength(1);
  });
});

describe('files that were spoiled', () => {
  test('a curve of CSS that lacks a number is no curve: the value goes evenly', () => {
    const text = files['css-svg'].replace(/cubic-bezier\([^)]*\)/g, 'cubic-bezier(.5,0,.15)');
    expect(text).not.toBe(files['css-svg']);
    const easings = Object.values(read(text).piece.shifts).map(({ easing }) => easing.kind);
    expect(easings).not.toContain('cubic-bezier');
  });

  test('keys of a Lottie file that lie far outside of it are no reason to look at every frame up to there', () => {
    const key = (t: number, x: number) => `{"t":${t},"s":[${x}],"i":{"x":[0.5],"y":[1]},"o":{"x":[0.5],"y":[0]}}`;
    const far = `{"fr":60,"ip":0,"op":60,"w":100,"h":100,"layers":[{"ty":4,"st":0,"ip":0,"op":60,"ks":{},"shapes":[{"ty":"gr","it":[
      {"ty":"rc","p":{"a":1,"k":[${key(0, 0)},${key(10_000_000, 50)}]},"s":{"a":1,"k":[${key(0, 10)},${key(30, 20)}]},"r":{"a":0,"k":0}},
      {"ty":"fl","c":{"a":0,"k":[1,0,0]},"o":{"a":0,"k":100}}]}]}]}`;
    const { piece } = read(far);
    expect(Object.keys(piece.figures)).toHaveLength(1);
    expect(Object.keys(piece.poses).length).toBeLessThan(130);
  });
});

describe('files that ask for too much, or for nothing that can be', () => {
  const repeat = (count: number, one: (i: number) => string): string =>
    Array.from({ length: count }, (_, i) => one(i)).join('');
  const svg = (inside: string, size = 'width="100" height="100"'): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inside}</svg>`;
  const moving = '<animate attributeName="x" values="0;5" dur="1s"/>';
  const refused = (text: string): string => {
    let count = 0;
    try {
      readMovingFile(text, { id: 'p', name: 'P', newId: (prefix) => `${prefix}${++count}` });
    } catch (error) {
      return `${(error as CoreError).code}: ${(error as Error).message}`;
    }
    return 'read';
  };
  const lottie = (fr: number): string =>
    JSON.stringify({
      v: '5.7.0',
      fr,
      ip: 0,
      op: 60,
      w: 100,
      h: 100,
      layers: [
        {
          ty: 4,
          ip: 0,
          op: 60,
          st: 0,
          ks: {},
          shapes: [
            { ty: 'rc', s: { a: 0, k: [50, 50] }, p: { a: 0, k: [50, 50] }, r: { a: 0, k: 0 } },
            { ty: 'fl', c: { a: 0, k: [1, 0, 0] }, o: { a: 0, k: 100 } },
          ],
        },
      ],
    });

  test('refusals speak of the file: rates, sizes and lengths that no picture has', () => {
    expect(refused(lottie(30))).toBe('read');
    expect(refused(lottie(1e-20))).toBe(
      'number-range: Expected a Lottie file of 0.1 to 1,000 frames a second (fr); this one has 1e-20.',
    );
    expect(refused(lottie(1e9))).toContain('this one has 1000000000');
    const rect = `<rect width="9" height="9">${moving}</rect>`;
    expect(refused(svg(rect, 'width="1e-308" height="100" viewBox="0 0 9 9"'))).toContain(
      'number-range: Expected a width of the svg of at least 0.001 px, or none; found 1e-308.',
    );
    expect(refused(svg(rect, 'width="100" height="0.5"'))).toContain('the height of this one is 0.5 px');
    const path = '<path pathLength="1e-308" stroke="red" stroke-dasharray="1 2" d="M0 0L9 9"/>';
    expect(refused(svg(`${path}${rect}`))).toContain('Expected a pathLength of at least 0.000001; found 1e-308.');
    expect(() => readSvg(svg(path))).toThrow('Expected a pathLength');
    expect(() => readSvg(svg(rect, 'width="1e-308" height="9"'))).toThrow('Expected a width of the svg');
  });

  test('keys, shapes and work are counted: what has too many of them is refused by name', () => {
    const keys = repeat(20_001, (i) => `${i % 7};`);
    expect(
      refused(svg(`<rect width="9" height="9"><animate attributeName="x" dur="9s" values="${keys}0"/></rect>`)),
    ).toBe('svg-too-complex: Expected at most 20,000 keys of an animation; that of x has 20,002.');
    const style = repeat(3_000, (i) => `a${i}:b;`);
    const shapes = repeat(
      900,
      (i) => `<rect width="9" height="9"><animate attributeName="opacity" to="0.${i % 9}" dur="1s"/></rect>`,
    );
    expect(refused(svg(`<g style="${style}">${shapes}</g>`))).toContain('can be read in some seconds');
  });

  test('an animation that begins 100,000 times is that of its first times; a link is a group like any other', () => {
    let count = 0;
    const read = (text: string) =>
      readMovingFile(text, { id: 'p', name: 'P', newId: (prefix) => `${prefix}${++count}` }).piece;
    const begins = repeat(100_000, (i) => `${2 * i}s;`);
    const often = read(
      svg(`<rect width="9" height="9"><animate attributeName="x" begin="${begins}" dur="1s" values="0;5"/></rect>`),
    );
    const few = read(
      svg(
        '<rect width="9" height="9"><animate attributeName="x" begin="0s;2s;4s;6s;8s" dur="1s" values="0;5"/></rect>',
      ),
    );
    const timing = ({ poses, shifts, playback }: typeof few) => [
      Object.values(poses).map(({ hold }) => hold),
      Object.values(shifts).map(({ duration }) => duration),
      playback,
    ];
    expect(timing(often)).toEqual(timing(few));
    expect(Object.keys(read(svg(`<a><rect width="9" height="9">${moving}</rect></a>`)).figures)).toHaveLength(1);
  });
});
