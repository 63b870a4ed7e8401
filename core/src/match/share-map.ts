import type { ShareMap } from './match';

const GRID = 256;
const PASSES = 24;

/** Knots of an alignment with the ones that must stay where they are. */
export interface RawMap {
  readonly a: readonly number[];
  readonly b: readonly number[];
  readonly pinned: readonly boolean[];
}

/**
 * Smooths the staircase of an alignment. In u = a + b, v = b − a, monotone means |v'| ≤ 1, which averaging keeps: v is laid on an even
 * grid and averaged by (1 2 1)/4. Between pinned knots separately, so that these are met exactly.
 */
export function smoothShareMap(raw: RawMap): ShareMap {
  const last = raw.a.length - 1;
  const a: number[] = [raw.a[0]];
  const b: number[] = [raw.b[0]];
  let from = 0;
  for (let k = 1; k <= last; k++) {
    if (!raw.pinned[k] && k !== last) continue;
    smoothStretch(raw, from, k, a, b);
    from = k;
  }
  a[a.length - 1] = raw.a[last];
  b[b.length - 1] = raw.b[last];
  return { a: Float64Array.from(a), b: Float64Array.from(b) };
}

function smoothStretch(raw: RawMap, from: number, to: number, outA: number[], outB: number[]): void {
  const u0 = raw.a[from] + raw.b[from];
  const u1 = raw.a[to] + raw.b[to];
  // Twelve passes more or less do not matter; what matters is that the kernel keeps its width in share of the length.
  const count = Math.max(2, Math.round((GRID * (u1 - u0)) / 2));
  let v = new Float64Array(count + 1);
  let k = from;
  for (let g = 0; g <= count; g++) {
    const u = u0 + ((u1 - u0) * g) / count;
    while (k < to - 1 && raw.a[k + 1] + raw.b[k + 1] < u) k++;
    const start = raw.a[k] + raw.b[k];
    const width = raw.a[k + 1] + raw.b[k + 1] - start;
    const share = width > 0 ? Math.min(1, Math.max(0, (u - start) / width)) : 0;
    const v0 = raw.b[k] - raw.a[k];
    v[g] = v0 + (raw.b[k + 1] - raw.a[k + 1] - v0) * share;
  }
  for (let pass = 0; pass < PASSES; pass++) {
    const next = v.slice();
    for (let g = 1; g < count; g++) next[g] = (v[g - 1] + 2 * v[g] + v[g + 1]) / 4;
    v = next;
  }
  for (let g = 1; g <= count; g++) {
    const u = u0 + ((u1 - u0) * g) / count;
    outA.push(g === count ? raw.a[to] : (u - v[g]) / 2);
    outB.push(g === count ? raw.b[to] : (u + v[g]) / 2);
  }
}

/** The map with both sides exchanged. */
export const invertShareMap = (map: ShareMap): ShareMap => ({ a: map.b, b: map.a });

/** The map of an even walk along both. */
export const evenShareMap = (): ShareMap => ({ a: Float64Array.of(0, 1), b: Float64Array.of(0, 1) });

/** The share on the second side that belongs to `share` on the first; exchange the arrays for the other way. */
export function mapShare(from: Float64Array, to: Float64Array, share: number): number {
  let low = 0;
  let high = from.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (from[middle] <= share) low = middle;
    else high = middle;
  }
  const width = from[high] - from[low];
  return width > 0 ? to[low] + ((to[high] - to[low]) * (share - from[low])) / width : to[low];
}
