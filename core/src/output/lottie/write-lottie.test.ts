import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../../frame';
import { type Part, type Piece, type PieceDraft, type Playback, plainStroke } from '../../piece';
import { countedIds, drawnPose, pieceBetween } from '../../testing/pieces';
import { outlineOf, valueAt } from '../document/lottie-value';
import { readLottieDrawing } from '../proof/read-lottie';
import { propertyOf } from './lottie-property';
import { writeLottie } from './write-lottie';

const SQUARE = 'M10 10H110V110H10Z';
const DIAMOND = 'M60 0L120 60L60 120L0 60Z';
const newId = countedIds();
const part = (d: string, change: Partial<Part> = {}): Part => ({ ...drawnPose(d, newId).parts[0], ...change });
const between = (from: Part[], to: Part[], also?: (draft: PieceDraft) => void): Piece => {
  const draft = structuredClone(
    pieceBetween(from, to, { shift: { easing: { kind: 'cubic-bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } } }),
  ) as PieceDraft;
  also?.(draft);
  return draft as Piece;
};
const file = (piece: Piece) => JSON.parse(writeLottie(planAndCompile(piece)));

/** A group of shapes, as far as it is looked at. */
interface Group {
  readonly it: readonly { ty: string; lc: number; o: { k: readonly { s: number[]; h?: number }[] } }[];
}

describe('a piece as Lottie', () => {
  const plain = between([part(SQUARE)], [part(DIAMOND)]);

  test('says its size, rate and length in frames, and the specification that it follows', () => {
    expect(file(plain)).toMatchObject({ ver: 10000, fr: 60, ip: 0, op: 60, w: 640, h: 640 });
  });

  test('a stretch that is played again is named for its player: where it begins and how long it is, in frames', () => {
    const piece = between([part(SQUARE)], [part(DIAMOND)], (draft) => {
      draft.playback = 'stretch';
      draft.stretch = { from: { at: null, after: 0.25 }, until: { at: null, after: 0.75 } };
    });
    expect(file(piece).markers).toEqual([{ cm: 'again', tm: 15, dr: 30 }]);
    expect(file(plain).markers).toBeUndefined();
  });

  test('the easing stands in the handles of the shape’s first key; both ends are the outlines', () => {
    const [shape] = file(plain).layers[0].shapes[0].it;
    expect(shape.ty).toBe('sh');
    const { k } = shape.ks;
    expect(k[0].o).toEqual({ x: [0.4], y: [0] });
    expect(k[0].i).toEqual({ x: [0.2], y: [1] });
    expect(k[k.length - 1].t).toBe(60);
    const box = (points: Float64Array): number[] =>
      [0, 1].map((axis) => Math.max(...points.filter((_, i) => i % 2 === axis)));
    expect(box(outlineOf(k[0].s).contours[0].points)).toEqual([110, 110]);
    expect(box(outlineOf(k[k.length - 1].s).contours[0].points)).toEqual([120, 120]);
  });

  test('a closed contour has its last point once, an open one has all', () => {
    const closed = file(plain).layers[0].shapes[0].it[0].ks.k[0].s[0];
    expect([closed.c, closed.v.length === closed.i.length, closed.v.length === closed.o.length]).toEqual([
      true,
      true,
      true,
    ]);
    expect(closed.v[closed.v.length - 1]).not.toEqual(closed.v[0]);
    const line = part('M0 0L50 50', {
      fill: null,
      stroke: { paint: '#000000', width: 2, cap: 'butt', join: 'miter', miter: 4, dash: [], dashOffset: 0 } as never,
    });
    const open = file(between([line], [{ ...line, id: 'z' }])).layers[0].shapes[0].it[0].ks.k;
    expect([open.c, open.v.length]).toEqual([false, 2]);
  });

  test.each([
    ['once', 60],
    ['loop', 60],
    ['back', 120],
  ] as const)('%s: it is %i frames long', (playback: Playback, frames) => {
    expect(file({ ...plain, playback }).op).toBe(frames);
  });

  test('what is seen inside another is a composition with a matte over it, which is not seen itself', () => {
    const clipped = between([part(SQUARE)], [part(DIAMOND)], (draft) => {
      const mask = structuredClone(draft.figures.f);
      draft.figures.mask = { ...mask, id: 'mask', name: 'Mask', poses: ['M'], rail: [], hidden: true };
      draft.poses.M = { ...structuredClone(draft.poses.A), id: 'M' };
      draft.figureOrder.push('mask');
      draft.figures.f.clip = 'mask';
    });
    const { layers, assets } = file(clipped);
    const [matte, picture] = layers;
    expect([matte.td, matte.ty, picture.tt, picture.ty]).toEqual([1, 0, 1, 0]);
    expect(assets.map(({ id }: { id: string }) => id).sort()).toEqual([matte.refId, picture.refId].sort());
  });

  test('a cap that becomes another is two strokes, of which one is seen at a time, without a fade', () => {
    const pen = (cap: string) =>
      ({ fill: null, stroke: { ...plainStroke('#000000', 8), cap } }) as unknown as Partial<Part>;
    const { shapes } = file(between([part('M0 0L90 0', pen('butt'))], [part('M0 40L90 40', pen('round'))])).layers[0];
    const item = (group: Group, type: string): Group['it'][number] => {
      const found = group.it.find(({ ty }) => ty === type);
      if (!found) throw new Error(`There is no ${type}.`);
      return found;
    };
    const strokes = (shapes as Group[]).map((group) => [
      item(group, 'st').lc,
      item(group, 'tr').o.k.map(({ s, h }) => [s[0], h ?? 0]),
    ]);
    expect(strokes).toEqual([
      [
        2,
        [
          [0, 1],
          [100, 0],
        ],
      ],
      [
        1,
        [
          [100, 1],
          [0, 0],
        ],
      ],
    ]);
  });

  test('what the format has no words for is refused by its name', () => {
    const soft = between([part(SQUARE)], [part(DIAMOND)], (draft) => {
      draft.lanes.soft = {
        id: 'soft',
        figure: 'f',
        property: 'softness',
        keys: [{ id: 'k', stop: { pose: 'A', shift: null }, after: null, value: [4], easing: null }],
      };
    });
    expect(() => file(soft)).toThrow(/“Figure” is soft, and Lottie 1.0 has no blur/);
  });
});

describe('properties of the format', () => {
  const key = (time: number, v: number, onward: 'hold' | readonly [number, number, number, number]) => ({
    time,
    value: Float64Array.of(v),
    onward,
  });
  test('one key is a value; keys name their frames; equal values hold', () => {
    const say = ([v]: Float64Array): number => v;
    expect(propertyOf([key(0, 5, 'hold')], 30, say)).toEqual({ a: 0, k: 5 });
    expect(propertyOf([key(0, 5, [0, 0, 1, 1]), key(2, 5, [0, 0, 1, 1])], 30, say)).toEqual({ a: 0, k: 5 });
    const moving = propertyOf([key(0, 5, [0.1, 0, 0.9, 1]), key(1, 7, [0, 0, 1, 1]), key(2, 7, 'hold')], 30, say);
    expect(moving).toEqual({
      a: 1,
      k: [
        { t: 0, s: [5], o: { x: [0.1], y: [0] }, i: { x: [0.9], y: [1] } },
        { t: 30, s: [7], h: 1 },
        { t: 60, s: [7] },
      ],
    });
    expect([0, 15, 30, 45, 90].map((frame) => (valueAt(moving, frame) as number[])[0])).toEqual([5, 6, 7, 7, 7]);
  });

  test('a file that is none is refused with what was expected', () => {
    expect(() => readLottieDrawing('{')).toThrow(/in JSON/);
    expect(() => readLottieDrawing('{"layers":[]}')).toThrow(/layers and a frame rate/);
    expect(() => readLottieDrawing('[]')).toThrow(/layers and a frame rate/);
  });
});
