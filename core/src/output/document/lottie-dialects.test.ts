import { describe, expect, test } from '@jest/globals';
import { CoreError } from '../../errors';
import type { DrawnElement } from '../tree/drawn-element';
import { readLottieDocument } from './lottie-document';

const file = (shapes: unknown[], ks: unknown = {}): string =>
  JSON.stringify({ fr: 30, ip: 0, op: 30, w: 100, h: 100, layers: [{ ty: 4, st: 0, ip: 0, op: 30, ks, shapes }] });
const SQUARE = {
  v: [
    [0, 0],
    [10, 0],
    [10, 10],
  ],
  i: [
    [0, 0],
    [0, 0],
    [0, 0],
  ],
  o: [
    [0, 0],
    [0, 0],
    [0, 0],
  ],
};
const fill = (k: unknown): unknown => ({ ty: 'fl', c: { k }, o: { k: 100 } });
function pathOf(root: DrawnElement): DrawnElement | undefined {
  if (root.name === 'path') return root;
  for (const child of root.children) {
    const found = pathOf(child);
    if (found) return found;
  }
  return undefined;
}
const read = (shapes: unknown[], ks?: unknown) => {
  const { root, notes } = readLottieDocument(file([{ ty: 'gr', it: shapes }], ks));
  return { path: pathOf(root) as DrawnElement, notes };
};

describe('Lottie by others', () => {
  test('a path that says beside itself whether it is closed', () => {
    const path = (closed: boolean) => read([{ ty: 'sh', closed, ks: { k: SQUARE } }, fill([1, 0, 0, 1])]).path;
    expect(path(true).attributes.d).toMatch(/z$/i);
    expect(path(false).attributes.d).not.toMatch(/z$/i);
  });

  test('a mask that says beside its path whether it is closed', () => {
    const masked = (cl: boolean): string => {
      const { root } = readLottieDocument(
        JSON.stringify({
          ...{ fr: 30, ip: 0, op: 30, w: 100, h: 100 },
          layers: [
            {
              ...{ ty: 4, st: 0, ip: 0, op: 30, ks: {}, hasMask: true },
              masksProperties: [{ cl, inv: false, mode: 'a', pt: { k: SQUARE }, o: { k: 100 } }],
              shapes: [{ ty: 'gr', it: [{ ty: 'sh', ks: { k: { ...SQUARE, c: true } } }, fill([1, 0, 0, 1])] }],
            },
          ],
        }),
      );
      const clips = (element: DrawnElement): string[] => [
        ...(element.name === 'clipPath' ? [pathOf(element)?.attributes.d ?? ''] : []),
        ...element.children.flatMap(clips),
      ];
      return clips(root).join();
    };
    expect(masked(true)).toMatch(/z$/i);
    expect(masked(false)).not.toMatch(/z$/i);
  });

  test('colours from 0 to 255, still and with keys, are the same as shares', () => {
    const of = (k: unknown) => read([{ ty: 'sh', ks: { k: { ...SQUARE, c: true } } }, fill(k)]).path;
    expect(of([255, 102, 0, 255]).attributes.fill).toBe(of([1, 0.4, 0, 1]).attributes.fill);
    const keys = (most: number) => [
      { t: 0, s: [most, 0, 0, most], e: [0, 0, most, most] },
      { t: 30, s: [0, 0, most, most] },
    ];
    expect(of(keys(255)).tracks).toEqual(of(keys(1)).tracks);
    // What may be a share is one.
    expect(of([1, 1, 1, 1]).attributes.fill).toBe('#ffffff');
  });

  test('expressions are told, and how many', () => {
    const shapes = [{ ty: 'sh', ks: { k: { ...SQUARE, c: true } } }, fill([1, 0, 0, 1])];
    const moved = { p: { k: [0, 0], x: 'wiggle(2, 30)' }, o: { k: 100, x: 'value' } };
    expect(read(shapes, moved).notes.join()).toContain('2 values are worked out by an expression');
    expect(read(shapes).notes).toEqual([]);
  });

  test('values inside each other without end are refused', () => {
    const deep = `${'[{"a":'.repeat(600)}1${'}]'.repeat(600)}`;
    const text = file([]).replace('"shapes":[]', `"shapes":${deep}`);
    expect(() => readLottieDocument(text)).toThrow(CoreError);
  });
});
