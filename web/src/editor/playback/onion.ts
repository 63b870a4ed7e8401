import type { Ghost } from '@core';

/** How onion skins are shown. */
export interface OnionChoice {
  /** How many each way, and how far apart. */
  readonly count: number;
  readonly frames: number;
  /** How well the nearest are seen, 0 to 1; those further away fade. */
  readonly strength: number;
  /** Moments before in one colour, moments after in another; else all in their own. */
  readonly tint: boolean;
}

/** As outlines are shown everywhere: what is left in plum, what is reached in cobalt. */
const [BEFORE, AFTER] = ['#7d2a63', '#2147b5'];

/**
 * Moments before and after one, `count` each way and `frames` apart, the furthest and faintest first. In a loop they go on round its end; elsewhere those beyond
 * the ends are left out.
 */
export function onionSkins(
  seconds: number,
  { count, frames, strength, tint }: OnionChoice,
  { duration, loop, rate }: { readonly duration: number; readonly loop: boolean; readonly rate: number },
): readonly Ghost[] {
  const ghosts: Ghost[] = [];
  if (!(duration > 0)) return ghosts;
  for (let k = count; k >= 1; k--)
    for (const way of [-1, 1]) {
      const at = seconds + (way * k * frames) / rate;
      const inside = loop ? at - Math.floor(at / duration) * duration : at;
      if (inside >= 0 && inside <= duration)
        ghosts.push({
          seconds: inside,
          opacity: (strength * (count + 1 - k)) / count,
          ...(tint && { tint: way < 0 ? BEFORE : AFTER }),
        });
    }
  return ghosts;
}
