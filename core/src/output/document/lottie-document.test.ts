import { describe, expect, test } from '@jest/globals';
import { planAndCompile, prepareFrame, sampleFrame } from '../../frame';
import type { Piece } from '../../piece';
import { countedIds } from '../../testing/pieces';
import { paintedOfFrame } from '../proof/painted';
import { readMovingFile } from '../reading/moving-file';
import { readLottieDocument } from './lottie-document';

/** Values that stand, and that have keys. */
const still = (k: unknown) => ({ a: 0, k });
const keyed = (...k: unknown[]) => ({ a: 1, k });
const square = (x: number, size: number) => ({
  c: true,
  v: [
    [x, 0],
    [x + size, 0],
    [x + size, size],
    [x, size],
  ],
  i: Array(4).fill([0, 0]),
  o: Array(4).fill([0, 0]),
});
const FILL = { ty: 'fl', c: still([1, 0, 0]), o: still(100) };
const layer = (shapes: unknown[], ks: object = {}, more: object = {}) => ({
  ty: 4,
  nm: 'Quay',
  ip: 0,
  op: 60,
  ks,
  shapes: [{ ty: 'gr', it: shapes }],
  ...more,
});
const file = (layers: unknown[], more: object = {}): string =>
  JSON.stringify({ v: '5.7.0', fr: 30, ip: 0, op: 60, w: 200, h: 100, layers, ...more });
const read = (layers: unknown[], more: object = {}) =>
  readMovingFile(file(layers, more), { id: 'p', name: 'Read', newId: countedIds() });

/** Left, top, right, bottom of each thing that a piece paints at a time, s. */
function boxesAt(piece: Piece, seconds: number): number[][] {
  const compiled = planAndCompile(piece);
  return paintedOfFrame(sampleFrame(compiled, seconds, prepareFrame(compiled))).map(({ lines }) => {
    const xs = lines.flatMap((line) => [...line].filter((_, i) => i % 2 === 0));
    const ys = lines.flatMap((line) => [...line].filter((_, i) => i % 2 === 1));
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map((v) => Math.round(100 * v) / 100);
  });
}
const EASE = { o: { x: [0.4], y: [0] }, i: { x: [0.6], y: [1] } };

describe('a Lottie file, read (Lottie Specification 1.0)', () => {
  test('size, rate and length; shape keys with their handles', () => {
    const ks = keyed({ t: 0, s: [square(0, 10)], ...EASE }, { t: 30, s: [square(40, 20)] });
    const { piece, notes } = read([layer([{ ty: 'sh', ks }, FILL])]);
    expect(notes).toEqual([]);
    expect([piece.canvas.width, piece.canvas.height, piece.canvas.rate]).toEqual([200, 100, { num: 30, den: 1 }]);
    const [shift] = Object.values(piece.shifts);
    expect(shift).toMatchObject({ duration: 1, easing: { kind: 'cubic-bezier', x1: 0.4, y1: 0, x2: 0.6, y2: 1 } });
    expect(boxesAt(piece, 0.5)).toEqual([[20, 0, 35, 15]]);
    expect(Object.values(piece.figures)[0].name).toBe('Quay');
  });

  test('a layer is moved to its place, turned and grown about its anchor, inside the layers that carry it', () => {
    const ks = {
      a: still([5, 5]),
      p: still([50, 50]),
      s: still([200, 200]),
      r: keyed({ t: 0, s: [0] }, { t: 60, s: [180] }),
    };
    const carried = { ...layer([{ ty: 'sh', ks: still(square(0, 10)) }, FILL], ks), parent: 7 };
    const { piece } = read([carried, { ty: 3, ind: 7, ip: 0, op: 60, ks: { p: still([10, 0]) } }]);
    expect(boxesAt(piece, 0)).toEqual([[50, 40, 70, 60]]);
    const half = 10 * Math.SQRT2;
    expect(boxesAt(piece, 0.5)[0].map((v) => Math.round(v))).toEqual(
      [60 - half, 50 - half, 60 + half, 50 + half].map(Math.round),
    );
    expect(Object.values(piece.lanes).map(({ property }) => property)).toEqual(['turn']);
  });

  test('keys that hold jump; older files say where a key arrives; two numbers may run by curves of their own', () => {
    const p = keyed(
      { t: 0, s: [0, 0], h: 1 },
      { t: 30, s: [40, 0], e: [80, 20], o: { x: [0.4, 0], y: [0, 0] }, i: { x: [0.6, 1], y: [1, 1] } },
      { t: 60 },
    );
    const { piece } = read([layer([{ ty: 'sh', ks: still(square(0, 10)) }, FILL], { p })]);
    expect(boxesAt(piece, 0.9)).toEqual([[0, 0, 10, 10]]);
    // Half-way in time both are half-way; after a quarter only the second, which goes evenly, is a quarter of the way.
    expect(boxesAt(piece, 1.5)[0].map(Math.round)).toEqual([60, 10, 70, 20]);
    const [[left, top]] = boxesAt(piece, 1.25);
    expect([Math.round(top * 10) / 10, left > 44 && left < 47]).toEqual([5, true]);
  });

  test('what stands until its next key jumps there', () => {
    const o = keyed({ t: 0, s: [100], h: 1 }, { t: 30, s: [40], h: 1 }, { t: 45, s: [40] });
    const { piece } = read([layer([{ ty: 'sh', ks: still(square(0, 10)) }, FILL], { o })]);
    const compiled = planAndCompile(piece);
    const at = (seconds: number): number =>
      sampleFrame(compiled, seconds, prepareFrame(compiled)).figures[0].opacity[0];
    expect([at(0.5), at(0.95), at(1.1)]).toEqual([1, 1, 0.4]);
  });

  test('a place on a curve goes by the length of the way', () => {
    const p = keyed({ t: 0, s: [0, 50], to: [0, -50], ti: [0, -50] }, { t: 60, s: [100, 50] });
    const [[left, top]] = boxesAt(read([layer([{ ty: 'sh', ks: still(square(0, 10)) }, FILL], { p })]).piece, 1);
    // The middle of that arc: t = ½ of the cubic.
    expect([left, top]).toEqual([expect.closeTo(50, 1), expect.closeTo(12.5, 1)]);
  });

  test('one style paints all paths before it as one area; groups have their own place; strokes have width, ends and dashes', () => {
    const hole = { ty: 'sh', ks: still({ ...square(0, 30) }) };
    const inner = { ty: 'sh', ks: still({ ...square(10, 10) }) };
    const line = {
      ty: 'st',
      c: still([0, 0, 1]),
      o: still(50),
      w: still(3),
      lc: 1,
      lj: 3,
      d: [
        { n: 'd', v: still(4) },
        { n: 'g', v: still(2) },
      ],
    };
    const { piece } = read([
      layer([hole, inner, { ...FILL, r: 2 }, { ty: 'tr', p: still([5, 5]) }]),
      layer([hole, line]),
    ]);
    const parts = Object.values(piece.parts);
    expect(parts.map(({ contours, fillRule, fill }) => [contours.length, fillRule, fill])).toEqual([
      [1, 'nonzero', null],
      [2, 'evenodd', '#ff0000'],
    ]);
    expect(parts[0].stroke).toMatchObject({
      width: 3,
      cap: 'butt',
      join: 'bevel',
      dash: [4, 2],
      paint: 'rgb(0 0 255 / 0.5)',
    });
    expect(boxesAt(piece, 0)[1]).toEqual([5, 5, 35, 35]);
  });

  test('rectangles and ellipses that grow', () => {
    const s = keyed({ t: 0, s: [10, 20] }, { t: 60, s: [30, 40] });
    const { piece } = read([
      layer([{ ty: 'rc', p: still([50, 50]), s, r: still(2) }, FILL]),
      layer([{ ty: 'el', p: still([150, 50]), s }, FILL]),
    ]);
    expect(boxesAt(piece, 1)).toEqual([
      [140, 35, 160, 65],
      [40, 35, 60, 65],
    ]);
  });

  test('a composition in a composition has its own time, a layer is there between its frames', () => {
    const inside = layer([{ ty: 'sh', ks: keyed({ t: 0, s: [square(0, 10)] }, { t: 30, s: [square(50, 10)] }) }, FILL]);
    const { piece } = read([{ ty: 0, refId: 'a', st: 15, ip: 15, op: 60, w: 200, h: 100, ks: {} }], {
      assets: [{ id: 'a', layers: [inside] }],
    });
    expect([boxesAt(piece, 0.3), boxesAt(piece, 1)]).toEqual([[], [[25, 0, 35, 10]]]);
  });

  test('a matte is a clip; what a part of a line is drawn is a lane', () => {
    const matte = { ...layer([{ ty: 'sh', ks: still(square(0, 20)) }, FILL]), td: 1, nm: 'Hole' };
    const seen = { ...layer([{ ty: 'sh', ks: still(square(10, 50)) }, FILL]), tt: 1 };
    const trim = { ty: 'tm', s: still(0), e: keyed({ t: 0, s: [0] }, { t: 60, s: [100] }), o: still(0), m: 1 };
    const drawn = layer([
      { ty: 'sh', ks: still(square(10, 50)) },
      trim,
      { ty: 'st', c: still([0, 0, 0]), o: still(100), w: still(2) },
    ]);
    const { piece, notes } = read([matte, seen, drawn]);
    expect(notes).toEqual([]);
    const figures = piece.figureOrder.map((id) => piece.figures[id]);
    expect(figures.map(({ hidden, clip }) => [hidden, clip === null ? null : piece.figures[clip].hidden])).toEqual([
      [true, null],
      [false, null],
      [false, true],
    ]);
    expect(
      Object.values(piece.lanes).map(({ property, keys }) => [property, keys.map(({ value }) => value[1])]),
    ).toEqual([['drawn', [0, 1]]]);
  });

  test('gradients have their stops with alphas', () => {
    const k = [0, 1, 0, 0, 1, 0, 0, 1, 0, 1, 1, 0.5];
    const gradient = { ty: 'gf', o: still(100), t: 1, s: still([0, 0]), e: still([50, 0]), g: { p: 2, k: still(k) } };
    const { piece } = read([layer([{ ty: 'sh', ks: still(square(0, 50)) }, gradient])]);
    expect(Object.values(piece.parts)[0].fill).toEqual({
      kind: 'linear',
      from: [0, 0],
      to: [50, 0],
      stops: [
        { at: 0, colour: '#ff0000' },
        { at: 1, colour: 'rgb(0 0 255 / 0.5)' },
      ],
    });
  });

  test('what is not taken is told, and what is no such file is refused', () => {
    const { notes } = readLottieDocument(
      file(
        [
          { ty: 5, ip: 0, op: 60, ks: {} },
          { ...layer([{ ty: 'sh', ks: still(square(0, 9)) }, { ty: 'rp' }, FILL]), ef: [{}], tt: 2 },
          { ty: 0, refId: 'a', tm: still(0), ip: 0, op: 60, ks: {} },
        ],
        { assets: [{ id: 'a', layers: [] }] },
      ),
    );
    expect(notes.join(' ')).toMatch(/Text.*time.*Effects.*repeating.*brightness|brightness/s);
    expect(notes).toHaveLength(5);
    expect(() => readLottieDocument('{"layers":[]}')).toThrow('layers and a frame rate');
    expect(() => readLottieDocument('{')).toThrow('JSON');
  });

  test('compositions that hold themselves, and more layers than anyone draws, come to an end', () => {
    const loop = { assets: [{ id: 'a', layers: [{ ty: 0, refId: 'a', ip: 0, op: 60, ks: {} }] }] };
    expect(readLottieDocument(file([{ ty: 0, refId: 'a', ip: 0, op: 60, ks: {} }], loop)).notes.join()).toContain(
      'deep',
    );
    const twice = Array.from({ length: 20 }, (_, i) => ({
      id: `a${i}`,
      layers: Array(3).fill(
        i < 19
          ? { ty: 0, refId: `a${i + 1}`, ip: 0, op: 60, ks: {} }
          : layer([{ ty: 'sh', ks: still(square(0, 9)) }, FILL]),
      ),
    }));
    expect(() => readLottieDocument(file([{ ty: 0, refId: 'a0', ip: 0, op: 60, ks: {} }], { assets: twice }))).toThrow(
      'at most',
    );
  });
});
