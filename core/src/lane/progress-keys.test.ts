import { describe, expect, test } from '@jest/globals';
import type { Blend } from './blend';
import { type ProgressKeys, progressKeys } from './progress-keys';

const blend = (size: number, write: (p: number) => number[], breaks: number[] = []): Blend => ({
  size,
  breaks,
  jumps: false,
  still: false,
  write: (p, out, at) => out.set(write(p), at),
});
/** The value on the straight lines between keys. */
function onLines({ progress, values }: ProgressKeys, p: number): number[] {
  const k = Math.max(
    1,
    progress.findIndex((key) => key >= p),
  );
  const share = (p - progress[k - 1]) / (progress[k] - progress[k - 1]);
  return [...values[k]].map((v, i) => values[k - 1][i] + (v - values[k - 1][i]) * share);
}
function worst(of: Blend, keys: ProgressKeys, low = 0, high = 1): number {
  let most = 0;
  const out = new Float64Array(of.size);
  for (let k = 0; k <= 1000; k++) {
    const p = low + ((high - low) * k) / 1000;
    of.write(p, out, 0);
    onLines(keys, p).forEach((v, i) => void (most = Math.max(most, Math.abs(v - out[i]))));
  }
  return most;
}
const options = { low: 0, high: 1, error: 0.1, together: 1 } as const;

describe('keys in progress', () => {
  test('what goes straight needs its ends only', () => {
    expect(
      progressKeys(
        blend(2, (p) => [p, 3 - 2 * p]),
        options,
      ).progress,
    ).toEqual([0, 1]);
  });

  test('a parabola needs the number that the chord error h²f″/8 says, less what running on both sides saves', () => {
    // f″ = 200: chords alone need √(200 / 0.8) = 16 stretches; half the error on either side needs √(200 / 1.6) = 12, a little more at exact ends.
    const parabola = blend(1, (p) => [100 * p * p]);
    const keys = progressKeys(parabola, options);
    expect(worst(parabola, keys)).toBeLessThanOrEqual(0.1 + 1e-9);
    expect(keys.progress.length - 1).toBeLessThanOrEqual(14);
    expect(keys.progress.length - 1).toBeGreaterThanOrEqual(12);
  });

  test('keys are dense where it bends, both ends are exact, and the error holds everywhere', () => {
    const late = blend(2, (p) => [200 * p ** 6, 5 * p]);
    const keys = progressKeys(late, options);
    expect(worst(late, keys)).toBeLessThanOrEqual(0.11);
    expect([...keys.values[0], ...keys.values[keys.values.length - 1]]).toEqual([0, 0, 200, 5]);
    const early = keys.progress.filter((p) => p < 0.5).length;
    expect(early).toBeLessThan(keys.progress.length / 3);
  });

  test('there are keys at breaks, at 0 and 1 within a wider range, and at its bounds; there the value is exact', () => {
    const bent = blend(1, (p) => [Math.abs(p - 0.35)], [0.35]);
    const keys = progressKeys(bent, { ...options, low: -0.2, high: 1.1, error: 1e-6 });
    expect(keys.progress).toEqual([-0.2, 0, 0.35, 1, 1.1]);
    expect([...keys.values[2]]).toEqual([0]);
  });

  test('points are measured as points', () => {
    // Each axis is off by 0.08 at most, the point by 0.113.
    const diagonal = blend(2, (p) => [0.64 * p * (1 - p), 0.64 * p * (1 - p)].map((v) => v / 2));
    expect(progressKeys(diagonal, { ...options, together: 1 }).progress).toHaveLength(2);
    expect(progressKeys(diagonal, { ...options, together: 2 }).progress.length).toBeGreaterThan(2);
  });
});
