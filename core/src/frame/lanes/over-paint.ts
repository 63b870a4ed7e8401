import type { Lane } from '../../lane';
import type { Id } from '../../piece';
import type { LaneBook } from './lane-book';
import type { PaintSample } from './paint-sample';

/** Lanes of a figure that stand in place of what its parts have: of those that are left out the parts' own is drawn. */
export interface OverLanes {
  readonly fill?: Lane;
  readonly stroke?: Lane;
  readonly strokeWidth?: Lane;
  readonly drawn?: Lane;
  readonly softness?: Lane;
}

/** The same at a moment. */
export interface OverSample {
  readonly fill: PaintSample | null;
  readonly stroke: PaintSample | null;
  readonly strokeWidth: Float64Array | null;
  readonly drawn: Float64Array | null;
  readonly softness: Float64Array | null;
}

export const OVER_PROPERTIES = ['fill', 'stroke', 'strokeWidth', 'drawn', 'softness'] as const;

/** What of a figure's parts its lanes replace; null where nothing. */
export function overLanes(book: LaneBook, figureId: Id): OverLanes | null {
  const lanes = OVER_PROPERTIES.flatMap((property) => {
    const lane = book.lane(figureId, property);
    return lane ? [[property, lane] as const] : [];
  });
  return lanes.length > 0 ? Object.fromEntries(lanes) : null;
}

/** Memory for what `sampleOver` writes. */
export function prepareOver({ fill, stroke, strokeWidth, drawn, softness }: OverLanes): OverSample {
  const paint = (lane: Lane | undefined): PaintSample | null =>
    lane ? { colour: new Float64Array(4), gradient: null } : null;
  const numbers = (lane: Lane | undefined): Float64Array | null => (lane ? new Float64Array(lane.size) : null);
  return {
    fill: paint(fill),
    stroke: paint(stroke),
    strokeWidth: numbers(strokeWidth),
    drawn: numbers(drawn),
    softness: numbers(softness),
  };
}

/** Writes the values at a time in s; allocates nothing. */
export function sampleOver(lanes: OverLanes, seconds: number, out: OverSample): void {
  if (lanes.fill && out.fill) lanes.fill.sample(seconds, out.fill.colour);
  if (lanes.stroke && out.stroke) lanes.stroke.sample(seconds, out.stroke.colour);
  if (lanes.strokeWidth && out.strokeWidth) lanes.strokeWidth.sample(seconds, out.strokeWidth);
  if (lanes.drawn && out.drawn) lanes.drawn.sample(seconds, out.drawn);
  if (lanes.softness && out.softness) lanes.softness.sample(seconds, out.softness);
}
