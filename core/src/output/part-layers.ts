import { easedKeys, easingSegments } from '../easing';
import { isVanished, type OverLanes, type PartLanes } from '../frame';
import type { PaintLanes, RampTime } from '../lane';
import type { PlanContour } from '../morph';
import type { PathRun } from './compact-path';

/** What one path element shows of a part. */
export interface PartLayer {
  readonly fill: boolean;
  readonly stroke: boolean;
  readonly runs: readonly PathRun[];
  /** Which of the places of its gradient: paint that becomes a gradient of another kind has one for each half. */
  readonly place: 0 | 1;
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
 * The path elements of a part, the lowest first. One is enough, unless a stroke must leave something out. Bridges, which differ between the
 * halves, and contours that are a mere point while they wait or are gone, at which a pen would leave a dot.
 */
export const partLayers = (part: PartLanes): PartLayer[] =>
  outlineLayers(part).flatMap((layer) => paintLayers(layer, part));

/** Animation changes colours, not what a paint refers to: a gradient that becomes one of another kind is two elements. */
function paintLayers(layer: PartLayer, { fill, stroke }: PartLanes): PartLayer[] {
  const fills = layer.fill && changes(fill);
  const strokes = layer.stroke && changes(stroke?.paint ?? null);
  if (!fills && !strokes) return [layer];
  const halves = (one: PartLayer, split: boolean): PartLayer[] => (split ? [half(one, 0), half(one, 1)] : [one]);
  return [
    ...(layer.fill && fill ? halves({ ...layer, stroke: false }, fills) : []),
    ...(layer.stroke && stroke ? halves({ ...layer, fill: false }, strokes) : []),
  ];
}

const changes = (paint: PaintLanes | null): boolean => paint?.kind === 'gradient' && paint.places.length > 1;

function half(layer: PartLayer, place: 0 | 1): PartLayer {
  const { from = -Infinity, until = Infinity } = layer.seen ?? {};
  const seen = place === 0 ? { from, until: Math.min(until, 0.5) } : { from: Math.max(from, 0.5), until };
  return { ...layer, place, seen };
}

function outlineLayers({ plan, fill, stroke }: PartLanes): PartLayer[] {
  const { contours } = plan;
  const bridged = contours.some(({ bridgesA, bridgesB }) => bridgesA.length + bridgesB.length > 0);
  const waiting = contours.some((contour) => isVanished(contour, 0) || isVanished(contour, 1));
  if (!stroke || (!bridged && !waiting)) return [{ fill: true, stroke: true, place: 0, runs: whole(contours) }];
  const layers: PartLayer[] = fill ? [{ fill: true, stroke: false, place: 0, runs: whole(contours) }] : [];
  const add = (runs: readonly PathRun[], from: number, until: number): void => {
    if (runs.length === 0 || !(from < until)) return;
    layers.push({
      fill: false,
      stroke: true,
      place: 0,
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

/** What is drawn of a figure: all of it, or only its areas, for others to be seen inside. */
export type LayerUse = 'picture' | 'clip';

/** The layers of a part; of strokes that are drawn in part one for each run of edges. */
export function layersOf(part: PartLanes, purpose: LayerUse, over: OverLanes | null): PartLayer[] {
  const layers = partLayers(purpose === 'clip' ? { ...part, stroke: null } : part);
  if (purpose === 'clip' || !over?.drawn || !part.stroke) return layers;
  return layers.flatMap((layer) =>
    layer.stroke
      ? [
          ...(layer.fill && part.fill ? [{ ...layer, stroke: false }] : []),
          ...layer.runs.map((run) => ({ ...layer, fill: false, runs: [run] })),
        ]
      : [layer],
  );
}

/** From a share of the shift's duration on: is a layer shown? */
export interface SeenSwitch {
  readonly share: number;
  readonly shown: boolean;
}

/** When a layer is shown that is seen only between two values of progress. */
export function seenSwitches(time: RampTime, { from, until }: NonNullable<PartLayer['seen']>): SeenSwitch[] {
  const cuts = [from, until].filter((p) => p > -Infinity && p < Infinity);
  const keys = easedKeys(easingSegments(time.easing), cuts);
  const switches: SeenSwitch[] = [];
  const add = (share: number, progress: number): void => {
    const shown = progress > from && progress < until;
    if (switches[switches.length - 1]?.shown !== shown) switches.push({ share, shown });
  };
  // During the hold before, then between each two keys, and from the end on.
  add(0, 0);
  for (let k = 0; k + 1 < keys.length; k++) add(keys[k].time, (keys[k].progress + keys[k + 1].progress) / 2);
  add(1, 1);
  return switches;
}
