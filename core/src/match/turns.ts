export const TURNS = ['auto', 'together', 'overlap', 'after'] as const;
/**
 * When contours without a partner go and come: all the way; what goes is half gone before something comes; or is gone wholly. auto: all the way,
 * unless they would touch.
 */
export type Turns = (typeof TURNS)[number];

type Span = readonly [begin: number, end: number];

/** Progress at which each contour that comes or goes begins and ends to grow or shrink. */
export interface TurnTiming {
  readonly births: readonly Span[];
  readonly deaths: readonly Span[];
}

const SPANS: Readonly<Record<Exclude<Turns, 'auto'>, { readonly deaths: Span; readonly births: Span } | undefined>> = {
  together: undefined,
  overlap: { deaths: [0, 0.65], births: [0.35, 1] },
  after: { deaths: [0, 0.5], births: [0.5, 1] },
};

/** The timing of so many contours that come and go; undefined: all the way. */
export function turnTiming(turns: Exclude<Turns, 'auto'>, births: number, deaths: number): TurnTiming | undefined {
  const spans = SPANS[turns];
  return (
    spans && {
      births: Array.from({ length: births }, () => spans.births),
      deaths: Array.from({ length: deaths }, () => spans.deaths),
    }
  );
}
