import { type MatchOptions, matchOutlines } from '../match';
import { type Outline, outlineSize } from '../outline';
import type { Alternative } from './alternative';
import { findCrossings } from './crossings';
import type { Method } from './plan';
import { planShift } from './plan-shift';
import { MOST_CROSSINGS } from './probe';

/** How coarsely an outline is looked at, as a share of its size. */
const COARSE_REL = 0.0015;

/** Does an outline cross itself so often that its in-betweens cannot be told apart by how they look? Scribbles and spoiled files do. */
export function isTangled(outline: Outline): boolean {
  const { self, between } = findCrossings(outline, COARSE_REL * outlineSize(outline) || 1, MOST_CROSSINGS);
  return self.length + between.length >= MOST_CROSSINGS;
}

/** What a tangle is done by: the cheapest match, whose in-betweens nobody looks at. */
export function cheapestWay(
  a: Outline,
  b: Outline,
  options: MatchOptions & { readonly method?: Method; readonly smoothing?: number },
): Alternative {
  const found = matchOutlines(a, b, options);
  const match = { ...found, pairs: found.pairs.map((pair) => ({ ...pair, smoothing: options.smoothing })) };
  return { match, plan: planShift(a, b, match, options.method), score: Infinity };
}
