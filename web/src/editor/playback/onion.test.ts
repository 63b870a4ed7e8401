import { describe, expect, test } from '@jest/globals';
import { onionSkins } from './onion';

const TWO = { count: 2, frames: 6, strength: 0.34, tint: false };

describe('onion skins', () => {
  test('lie before and after, the furthest first and faintest', () => {
    const skins = onionSkins(1, TWO, { duration: 3, loop: false, rate: 60 });
    expect(skins.map(({ seconds, opacity }) => [+seconds.toFixed(6), +opacity.toFixed(3)])).toEqual([
      [0.8, 0.17],
      [1.2, 0.17],
      [0.9, 0.34],
      [1.1, 0.34],
    ]);
  });
  test('go on round the end of a loop; elsewhere there is nothing beyond the ends', () => {
    const loop = onionSkins(0.05, TWO, { duration: 3, loop: true, rate: 60 });
    expect(loop.map(({ seconds }) => +seconds.toFixed(6))).toEqual([2.85, 0.25, 2.95, 0.15]);
    const once = onionSkins(0.05, TWO, { duration: 3, loop: false, rate: 60 });
    expect(once.map(({ seconds }) => +seconds.toFixed(6))).toEqual([0.25, 0.15]);
  });
  test('are tinted by whether they lie before or after, where that is wanted', () => {
    const skins = onionSkins(1, { ...TWO, count: 1, tint: true }, { duration: 3, loop: false, rate: 60 });
    const [before, after] = skins;
    expect([before.seconds < 1, after.seconds > 1, before.tint !== after.tint]).toEqual([true, true, true]);
    expect(onionSkins(1, TWO, { duration: 3, loop: false, rate: 60 }).every(({ tint }) => tint === undefined)).toBe(
      true,
    );
  });
  test('are none where none are wanted, or nothing plays', () => {
    expect(onionSkins(1, { ...TWO, count: 0 }, { duration: 3, loop: true, rate: 60 })).toEqual([]);
    expect(onionSkins(0, TWO, { duration: 0, loop: true, rate: 60 })).toEqual([]);
  });
});
