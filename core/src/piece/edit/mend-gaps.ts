import type { Anchor, ContourRecord } from '../records';
import { movedAnchor } from '../records';

/** Ends that are nearer to each other than this share of what they belong to were meant to touch. */
const GAP_SHARE = 0.03;
/** Of more open contours than this each is only closed, not joined with others: every end is compared with every other. */
const MOST_JOINED = 60;

/** Contours with their small gaps closed, and how many gaps that were. */
export interface MendedGaps {
  readonly contours: readonly ContourRecord[];
  readonly gaps: number;
}

interface Gap {
  readonly distance: number;
  /** Indices of the contours; the same one twice where it closes. */
  readonly i: number;
  readonly j: number;
  readonly endI: 'first' | 'last';
  readonly endJ: 'first' | 'last';
}

/**
 * Closes what looks closed and is open by a little, and joins open contours whose ends nearly touch, the smallest gap first. Both ends move to the middle of
 * their gap. The records are not changed; the same list comes back where there is no gap.
 */
export function mendGaps(contours: readonly ContourRecord[]): MendedGaps {
  let now = contours;
  let gaps = 0;
  for (let gap = smallestGap(now); gap; gap = smallestGap(now)) {
    now = withoutGap(now, gap);
    gaps++;
  }
  return { contours: now, gaps };
}

function smallestGap(contours: readonly ContourRecord[]): Gap | undefined {
  const open = contours.flatMap(({ closed, anchors }, i) =>
    closed || anchors.length < 2 ? [] : [{ i, anchors, reach: GAP_SHARE * sizeOf(anchors) }],
  );
  let best: Gap | undefined;
  const consider = (distance: number, reach: number, gap: Omit<Gap, 'distance'>): void => {
    if (distance < reach && !(best && best.distance <= distance)) best = { ...gap, distance };
  };
  for (const [k, { i, anchors, reach }] of open.entries()) {
    const [first, last] = [anchors[0], anchors[anchors.length - 1]];
    // Two points are a line, however short.
    if (anchors.length > 2) consider(apart(first, last), reach, { i, j: i, endI: 'last', endJ: 'first' });
    if (open.length > MOST_JOINED) continue;
    for (const other of open.slice(k + 1))
      for (const endI of ['first', 'last'] as const)
        for (const endJ of ['first', 'last'] as const)
          consider(apart(endOf(anchors, endI), endOf(other.anchors, endJ)), Math.min(reach, other.reach), {
            i,
            j: other.i,
            endI,
            endJ,
          });
  }
  return best;
}

function withoutGap(contours: readonly ContourRecord[], { i, j, endI, endJ }: Gap): readonly ContourRecord[] {
  const one = endI === 'last' ? contours[i].anchors : reversed(contours[i].anchors);
  if (i === j) {
    const seam = merged(one[one.length - 1], one[0]);
    const anchors = [seam, ...one.slice(1, -1)];
    return contours.map((contour, k) => (k === i ? { ...contour, anchors, closed: true } : contour));
  }
  const two = endJ === 'first' ? contours[j].anchors : reversed(contours[j].anchors);
  const anchors = [...one.slice(0, -1), merged(one[one.length - 1], two[0]), ...two.slice(1)];
  return contours.flatMap((contour, k) => (k === j ? [] : [k === i ? { ...contour, anchors } : contour]));
}

/** One anchor in the middle of two, which the outline reaches as the first and leaves as the second. */
function merged(into: Anchor, out: Anchor): Anchor {
  const [dx, dy] = [(out.at[0] - into.at[0]) / 2, (out.at[1] - into.at[1]) / 2];
  const { out: _before, ...reached } = movedAnchor(into, dx, dy);
  const left = movedAnchor(out, -dx, -dy);
  return { ...reached, ...(left.out && { out: left.out }), kind: undefined };
}

const reversed = (anchors: readonly Anchor[]): Anchor[] =>
  [...anchors].reverse().map(({ in: into, out, ...anchor }) => ({
    ...anchor,
    ...(out && { in: out }),
    ...(into && { out: into }),
  }));
const endOf = (anchors: readonly Anchor[], end: 'first' | 'last'): Anchor =>
  anchors[end === 'first' ? 0 : anchors.length - 1];
const apart = (p: Anchor, q: Anchor): number => Math.hypot(p.at[0] - q.at[0], p.at[1] - q.at[1]);

/** The longer side of the box of all anchors and handles. */
function sizeOf(anchors: readonly Anchor[]): number {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { at, in: into, out } of anchors)
    for (const point of [at, into, out]) {
      if (!point) continue;
      minX = Math.min(minX, point[0]);
      maxX = Math.max(maxX, point[0]);
      minY = Math.min(minY, point[1]);
      maxY = Math.max(maxY, point[1]);
    }
  return Math.max(maxX - minX, maxY - minY);
}
