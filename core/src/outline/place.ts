import { type ArcLengthTable, shareOfAnchor } from './arc-length';

/**
 * Where something is on a contour, told so that it survives resampling: an anchor, or two neighbouring anchors and the share of the
 * length between them (0..1, along the contour's own direction).
 */
export type Place =
  | { readonly anchor: string }
  | { readonly after: string; readonly before: string; readonly share: number };

/** Share of the contour's length at which a place lies, or undefined when its anchors are no longer there or no longer neighbours. */
export function shareOfPlace(table: ArcLengthTable, place: Place): number | undefined {
  const ids = table.contour.anchorIds;
  if (!ids) return undefined;
  if ('anchor' in place) {
    const i = ids.indexOf(place.anchor);
    return i < 0 ? undefined : shareOfAnchor(table, i);
  }
  const i = ids.indexOf(place.after);
  const last = table.contour.closed ? ids.length : ids.length - 1;
  if (i < 0 || i >= last || ids[(i + 1) % ids.length] !== place.before) return undefined;
  const from = shareOfAnchor(table, i);
  return from + (shareOfAnchor(table, i + 1) - from) * place.share;
}

/** The place at a share of the length in [0, 1); an anchor where one lies within 1e-9 of it. Undefined without anchor ids. */
export function placeOfShare(table: ArcLengthTable, share: number): Place | undefined {
  const ids = table.contour.anchorIds;
  if (!ids || ids.length === 0) return undefined;
  const segments = table.cumulative.length - 1;
  let i = 0;
  while (i < segments - 1 && shareOfAnchor(table, i + 1) <= share) i++;
  const from = shareOfAnchor(table, i);
  const to = shareOfAnchor(table, i + 1);
  if (share - from < 1e-9) return { anchor: ids[i] };
  if (to - share < 1e-9) return { anchor: ids[(i + 1) % ids.length] };
  return { after: ids[i], before: ids[(i + 1) % ids.length], share: (share - from) / (to - from) };
}
