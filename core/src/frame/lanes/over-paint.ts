import { type LANE_KINDS, type Lane, OVER_IDS, type OverId } from '../../lane';
import { type Id, isColourLane } from '../../piece';
import type { LaneBook } from './lane-book';
import type { PaintSample } from './paint-sample';

/** Lanes of a figure that stand in place of what its parts have: of those that are left out the parts' own is drawn. */
export type OverLanes = { readonly [K in OverId]?: Lane };

/** The same at a moment: colours as paint, all else as numbers. */
export type OverSample = {
  readonly [K in OverId]: ((typeof LANE_KINDS)[K]['type'] extends 'colour' ? PaintSample : Float64Array) | null;
};

/** What of a figure's parts its lanes replace; null where nothing. */
export function overLanes(book: LaneBook, figureId: Id): OverLanes | null {
  const lanes = OVER_IDS.flatMap((property) => {
    const lane = book.lane(figureId, property);
    return lane ? [[property, lane] as const] : [];
  });
  return lanes.length > 0 ? Object.fromEntries(lanes) : null;
}

/** Memory for what `sampleOver` writes. */
export function prepareOver(lanes: OverLanes): OverSample {
  const memory = OVER_IDS.map((id) => {
    const lane = lanes[id];
    if (!lane) return [id, null];
    return [id, isColourLane(id) ? { colour: new Float64Array(4), gradient: null } : new Float64Array(lane.size)];
  });
  return Object.fromEntries(memory) as OverSample;
}

/** Writes the values at a time in s; allocates nothing. */
export function sampleOver(lanes: OverLanes, seconds: number, out: OverSample): void {
  for (let i = 0; i < OVER_IDS.length; i++) {
    const id = OVER_IDS[i];
    const lane = lanes[id];
    const to = out[id];
    if (lane && to) lane.sample(seconds, to instanceof Float64Array ? to : to.colour);
  }
}
