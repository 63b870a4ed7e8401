import { attributesAt } from '../document/attributes-at';
import type { Track } from '../tree/drawn-element';
import type { Chain } from './still-tree';

/**
 * What of a stroke is drawn over time, where a file says it by one dash in shares of the whole length (`pathLength`): from, to, and how far both are shifted
 * along. Undefined where dashes are dashes.
 */
export function drawnOf(chain: Chain, tracks: readonly Track[]): ((seconds: number) => number[]) | undefined {
  const length = Number(chain[chain.length - 1].attributes.pathLength);
  if (!(length > 0) || !tracks.some(({ attribute }) => attribute.startsWith('stroke-dash'))) return undefined;
  const dashAt = (seconds: number): { dash: number; gap: number; offset: number } | null => {
    let [list, offset] = ['none', '0'];
    for (const element of chain) {
      const own = attributesAt(element, seconds);
      list = own['stroke-dasharray'] ?? list;
      offset = own['stroke-dashoffset'] ?? offset;
    }
    const [dash, gap, ...more] = list.split(/[\s,]+/).map(Number);
    return more.length === 0 && dash >= 0 && gap >= 0 && dash + gap >= length * 0.999
      ? { dash, gap, offset: Number(offset) }
      : null;
  };
  if (!dashAt(0)) return undefined;
  return (seconds) => {
    const now = dashAt(seconds);
    return now ? [0, Math.min(1, now.dash / length), -now.offset / (now.dash + now.gap)] : [0, 1, 0];
  };
}
