import type { Ghost } from '@core';

/** The nearest moments are seen this well; those further away fade. */
const NEAREST = 0.34;

/**
 * Moments before and after one, `count` each way and `frames` apart, the furthest and faintest first. In a loop they go on round its end; elsewhere those beyond
 * the ends are left out.
 */
export function onionSkins(
  seconds: number,
  { count, frames }: { readonly count: number; readonly frames: number },
  { duration, loop, rate }: { readonly duration: number; readonly loop: boolean; readonly rate: number },
): readonly Ghost[] {
  const ghosts: Ghost[] = [];
  if (!(duration > 0)) return ghosts;
  for (let k = count; k >= 1; k--)
    for (const way of [-1, 1]) {
      const at = seconds + (way * k * frames) / rate;
      const inside = loop ? at - Math.floor(at / duration) * duration : at;
      if (inside >= 0 && inside <= duration)
        ghosts.push({ seconds: inside, opacity: (NEAREST * (count + 1 - k)) / count });
    }
  return ghosts;
}
