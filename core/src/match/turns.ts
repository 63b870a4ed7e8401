import type { Match } from './match';

export const TURNS = ['auto', 'together', 'overlap', 'after'] as const;
/**
 * When contours without a partner go and come: all the way; what goes is half gone before something comes; or is gone wholly. auto: all the way,
 * unless they would touch.
 */
export type Turns = (typeof TURNS)[number];

type Span = readonly [number, number];
const SPANS: Readonly<Record<Exclude<Turns, 'auto'>, { readonly deaths: Span; readonly births: Span } | undefined>> = {
  together: undefined,
  overlap: { deaths: [0, 0.65], births: [0.35, 1] },
  after: { deaths: [0, 0.5], births: [0.5, 1] },
};

/** The progress at which each of so many contours begins and ends to grow or shrink; undefined: all the way. */
export function turnTiming(turns: Exclude<Turns, 'auto'>, births: number, deaths: number): Match['timing'] {
  const spans = SPANS[turns];
  return (
    spans && {
      births: Array.from({ length: births }, () => spans.births),
      deaths: Array.from({ length: deaths }, () => spans.deaths),
    }
  );
}
