export const UNPAIRED_ORDERS = ['auto', 'together', 'overlap', 'after'] as const;
/**
 * When unpaired contours go and come: all the way; what goes is half gone before something comes; or is gone wholly. auto: all the way,
 * unless they would touch.
 */
export type UnpairedOrder = (typeof UNPAIRED_ORDERS)[number];

type Span = readonly [begin: number, end: number];

/** Progress at which each contour that comes or goes begins and ends to grow or shrink. */
export interface UnpairedTiming {
  readonly unpairedB: readonly Span[];
  readonly unpairedA: readonly Span[];
}

const SPANS: Readonly<
  Record<Exclude<UnpairedOrder, 'auto'>, { readonly unpairedA: Span; readonly unpairedB: Span } | undefined>
> = {
  together: undefined,
  overlap: { unpairedA: [0, 0.65], unpairedB: [0.35, 1] },
  after: { unpairedA: [0, 0.5], unpairedB: [0.5, 1] },
};

/** The timing of so many contours that come and go; undefined: all the way. */
export function unpairedTiming(
  order: Exclude<UnpairedOrder, 'auto'>,
  unpairedB: number,
  unpairedA: number,
): UnpairedTiming | undefined {
  const spans = SPANS[order];
  return (
    spans && {
      unpairedB: Array.from({ length: unpairedB }, () => spans.unpairedB),
      unpairedA: Array.from({ length: unpairedA }, () => spans.unpairedA),
    }
  );
}
