import { numberText } from '../../svg';
import type { WrittenKey } from '../lane-keys';

/** A property of the format: one value, or keys of it. */
export type LottieProperty = { readonly a: 0; readonly k: unknown } | { readonly a: 1; readonly k: readonly unknown[] };

/** A number as it is written. */
export const rounded = (value: number, digits: number): number => Number(numberText(value, digits));

const TIME_DIGITS = 4;
const HANDLE_DIGITS = 4;

/**
 * Keys as a property of the format: each names its frame, its value, and the handles of the curve to the next. `say` turns a value into the format's own.
 * `framed`: is a value of one number an array of one in a key?
 */
export function propertyOf(
  keys: readonly WrittenKey[],
  frameRate: number,
  say: (value: Float64Array) => unknown,
): LottieProperty {
  if (keys.length < 2) return { a: 0, k: say(keys[0].value) };
  const said = keys.map(({ value }) => say(value));
  const texts = said.map((value) => JSON.stringify(value));
  if (texts.every((text) => text === texts[0])) return { a: 0, k: said[0] };
  return {
    a: 1,
    k: keys.map(({ time, onward }, i) => {
      const s = Array.isArray(said[i]) ? said[i] : [said[i]];
      const key = { t: rounded(time * frameRate, TIME_DIGITS), s };
      if (i === keys.length - 1) return key;
      if (onward === 'hold' || texts[i] === texts[i + 1]) return { ...key, h: 1 };
      const [x1, y1, x2, y2] = onward.map((v) => rounded(v, HANDLE_DIGITS));
      return { ...key, o: { x: [within(x1)], y: [y1] }, i: { x: [within(x2)], y: [y2] } };
    }),
  };
}

const within = (share: number): number => Math.min(1, Math.max(0, share));

/** A value that never changes. */
export const still = (k: unknown): LottieProperty => ({ a: 0, k });
