import { attributesAt } from '../document/attributes-at';
import type { DrawnElement, Track } from '../tree/drawn-element';
import type { Chain, StillTree } from './still-tree';

/** How soft something is over time: the standard deviation of a blur, px of the canvas. */
export interface Softness {
  readonly tracks: readonly Track[];
  at(seconds: number): number;
}

/** The blur that the elements of a chain ask for (Filter Effects 1, feGaussianBlur); undefined for none. Other filters are told. */
export function softnessOf(
  chain: Chain,
  byId: ReadonlyMap<string, DrawnElement>,
  still: StillTree,
  note: (text: string) => void,
): Softness | undefined {
  for (const [i, { attributes }] of chain.entries()) {
    const value = attributes.filter;
    if (!value || value === 'none') continue;
    const filter = byId.get(/^url\(\s*['"]?#([^'")]+)['"]?\s*\)/.exec(value)?.[1] ?? '');
    const [blur, ...more] = filter?.children ?? [];
    if (blur?.name !== 'feGaussianBlur' || more.length > 0) {
      note('A filter other than one blur was left out.');
      continue;
    }
    const matrix = still.matrixAt(chain.slice(0, i + 1), 0) ?? [1, 0, 0, 1, 0, 0];
    const scale = Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2]));
    return {
      tracks: blur.tracks.filter(({ attribute }) => attribute === 'stdDeviation'),
      at: (seconds) => scale * Math.max(0, Number.parseFloat(attributesAt(blur, seconds).stdDeviation ?? '0') || 0),
    };
  }
  return undefined;
}
