import { isVanished, type PartLanes } from '../frame';
import type { PlanContour } from '../morph';
import type { PathRun } from './compact-path';

/** What one path element shows of a part. */
export interface PartLayer {
  readonly fill: boolean;
  readonly stroke: boolean;
  readonly runs: readonly PathRun[];
  /** Between which progress it is seen; always where it is left out. */
  readonly seen?: { readonly from: number; readonly until: number };
}

const whole = (contours: readonly PlanContour[]): PathRun[] =>
  contours.map(({ at, segments, closed }) => ({ at, segments, closed }));

/** What a stroke follows: the edges of the first, or second, outline, without slits, cuts and chords. */
const edges = (contours: readonly PlanContour[], of: 'bridgesA' | 'bridgesB'): PathRun[] =>
  contours.flatMap((contour): PathRun[] => {
    const bridges = contour[of];
    if (bridges.length === 0) return whole([contour]);
    const runs: PathRun[] = [];
    for (let k = 0, begin = -1; k <= contour.segments; k++) {
      const gap = k === contour.segments || bridges.includes(k);
      if (gap && begin >= 0) runs.push({ at: contour.at + 6 * begin, segments: k - begin, closed: false });
      begin = gap ? -1 : begin < 0 ? k : begin;
    }
    return runs;
  });

/**
 * The path elements of a part, the lowest first. One is enough, unless a stroke must leave something out: bridges, which differ between the
 * halves, and contours that are a mere point while they wait or are gone, at which a pen would leave a dot.
 */
export function partLayers({ plan, fill, stroke }: PartLanes): PartLayer[] {
  const { contours } = plan;
  const bridged = contours.some(({ bridgesA, bridgesB }) => bridgesA.length + bridgesB.length > 0);
  const waiting = contours.some((contour) => isVanished(contour, 0) || isVanished(contour, 1));
  if (!stroke || (!bridged && !waiting)) return [{ fill: true, stroke: true, runs: whole(contours) }];
  const layers: PartLayer[] = fill ? [{ fill: true, stroke: false, runs: whole(contours) }] : [];
  const add = (runs: readonly PathRun[], from: number, until: number): void => {
    if (runs.length === 0 || !(from < until)) return;
    layers.push({
      fill: false,
      stroke: true,
      runs,
      ...(from > -Infinity || until < Infinity ? { seen: { from, until } } : {}),
    });
  };
  for (const [group, from, until] of lifetimes(contours)) {
    const same = group.every(({ bridgesA, bridgesB }) => String(bridgesA) === String(bridgesB));
    if (same) add(edges(group, 'bridgesA'), from, until);
    else {
      add(edges(group, 'bridgesA'), from, Math.min(until, 0.5));
      add(edges(group, 'bridgesB'), Math.max(from, 0.5), until);
    }
  }
  return layers;
}

/** Contours by the progress between which they are more than a point. */
function lifetimes(contours: readonly PlanContour[]): [PlanContour[], number, number][] {
  const groups = new Map<string, [PlanContour[], number, number]>();
  for (const contour of contours) {
    const from = contour.role === 'appears' ? contour.begin : -Infinity;
    const until = contour.role === 'vanishes' ? contour.end : Infinity;
    const key = `${from} ${until}`;
    const group = groups.get(key) ?? [[], from, until];
    group[0].push(contour);
    groups.set(key, group);
  }
  return [...groups.values()];
}
