import { DEFAULT_RULE } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { PREFERENCES, remember, remembered } from './preferences';

/** What a browser keeps, as text by name. */
const kept = new Map<string, string>();
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, text: string) => void kept.set(key, text),
};
const globals = globalThis as unknown as { localStorage?: unknown };
const before = Object.getOwnPropertyDescriptor(globalThis, 'localStorage');

beforeEach(() => {
  kept.clear();
  Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true, writable: true });
});
afterEach(() => {
  if (before) Object.defineProperty(globalThis, 'localStorage', before);
  else delete globals.localStorage;
});

const DRAWING = {
  snap: { points: true, outlines: false, centres: true, guides: true, grid: false },
  rulers: false,
  together: true,
  drawsAs: 'figure',
  shapeKind: 'rectangle',
  keepTool: true,
  left: true,
  right: true,
  widths: { left: 206, right: 284 },
};

test('where nothing is remembered, or nothing that can be used, there are defaults', () => {
  const defaults = {
    theme: null,
    drawing: DRAWING,
    lanesShare: null,
    placementRule: { centre: DEFAULT_RULE.centre, fit: DEFAULT_RULE.fit, to: DEFAULT_RULE.to },
    font: 'archivo-black',
    recentColours: [],
    outputs: { form: '', options: {} },
    outputPresets: [],
  };
  for (const stored of [undefined, 'null', '7', '"?"', '{"snap":3,"widths":[],"form":1,"options":"x"}', '[1,{}]', '{'])
    for (const id of Object.keys(defaults) as (keyof typeof defaults)[]) {
      kept.clear();
      if (stored) kept.set(PREFERENCES[id].key, stored);
      // A single word is a font's name.
      if (id === 'font' && stored && ['"?"', '{'].includes(stored)) continue;
      expect([id, stored, remembered(id)]).toEqual([id, stored, defaults[id]]);
    }
});

test('what is remembered comes back as it was', () => {
  const drawing = {
    snap: { points: false, outlines: true, centres: false, guides: false, grid: true },
    rulers: true,
    together: false,
    drawsAs: 'pose',
    shapeKind: 'star',
    keepTool: false,
    left: false,
    right: false,
    widths: { left: 100, right: 1000 },
  } as const;
  const preset = { name: 'Letter', form: 'gif', options: { width: '550' } };
  const outputs = { form: 'gif', options: { gif: { width: '9' } } };
  const rule = { centre: 'bounds', fit: 'none', to: 'canvas' } as never;
  remember('theme', 'dark');
  remember('drawing', drawing);
  remember('lanesShare', 10);
  remember('font', 'pacifico');
  remember('recentColours', ['#aa0000']);
  remember('outputs', outputs);
  remember('outputPresets', [preset]);
  expect(remembered('theme')).toBe('dark');
  expect(remembered('drawing')).toEqual(drawing);
  expect(remembered('lanesShare')).toBe(10);
  expect(remembered('font')).toBe('pacifico');
  expect(remembered('recentColours')).toEqual(['#aa0000']);
  expect(remembered('outputs')).toEqual(outputs);
  expect(remembered('outputPresets')).toEqual([preset]);
  remember('placementRule', rule);
  expect(remembered('placementRule').to).toBe('canvas');
});

describe('what is out of its bounds is left out', () => {
  test('widths of columns from 100 to 1000, the share of the lanes from 10 to 75', () => {
    for (const [width, found] of [
      [99, 206],
      [100, 100],
      [1000, 1000],
      [1001, 206],
    ]) {
      remember('drawing', { widths: { left: width } } as never);
      expect(remembered('drawing').widths).toEqual({ left: found, right: 284 });
    }
    for (const [share, found] of [
      [9, null],
      [75, 75],
      [76, null],
    ] as const) {
      remember('lanesShare', share);
      expect(remembered('lanesShare')).toBe(found);
    }
  });

  test('twelve colours at most, and only words', () => {
    remember('recentColours', [1, ...Array.from({ length: 14 }, (_, i) => `c${i}`)] as never);
    expect(remembered('recentColours')).toEqual(Array.from({ length: 12 }, (_, i) => `c${i}`));
  });

  test('settings without a name or a form', () => {
    remember('outputPresets', [{ name: '', form: 'gif' }, { name: 'A' }, { name: 'B', form: 'gif' }, null] as never);
    expect(remembered('outputPresets')).toEqual([{ name: 'B', form: 'gif', options: {} }]);
    remember('outputs', { form: 'gif', options: { gif: { width: '9' }, mp4: 3 } } as never);
    expect(remembered('outputs')).toEqual({ form: 'gif', options: { gif: { width: '9' }, mp4: {} } });
  });
});

test('a word that was kept without quotes is read', () => {
  kept.set(PREFERENCES.theme.key, 'dark');
  kept.set(PREFERENCES.font.key, 'pacifico');
  expect([remembered('theme'), remembered('font')]).toEqual(['dark', 'pacifico']);
});

test('a browser that refuses storage remembers nothing, and nothing breaks', () => {
  globals.localStorage = {
    getItem: () => {
      throw new Error('refused');
    },
    setItem: () => {
      throw new Error('refused');
    },
  };
  expect(() => remember('theme', 'dark')).not.toThrow();
  expect(remembered('theme')).toBeNull();
});
