import {
  blendChoice,
  blendNumbers,
  blendOutline,
  type Lane,
  type PaintLanes,
  PROPERTIES,
  paintLanes,
  type RampTime,
  rampLane,
  STROKE_PROPERTIES,
  type StrokeProperty,
} from '../../lane';
import type { BlendSpace } from '../../paint';
import type { PartPaint, PartPlan } from '../plan';

/** A stroke over time. */
export interface StrokeLanes {
  readonly paint: PaintLanes;
  readonly properties: Readonly<Record<StrokeProperty, Lane>>;
}

/** Everything of a drawn part that changes along a shift, over time. All its lanes run by the shift's own time, but for what `byLanes` says. */
export interface PartLanes extends PartPlan {
  readonly time: RampTime;
  readonly outline: Lane;
  readonly fill: PaintLanes | null;
  readonly stroke: StrokeLanes | null;
  /** Its outline runs by lanes of its figure, and changes while the shift's own time stands still. */
  readonly byLanes?: true;
}

/** Lays the paint of both ends on the way of a part. */
export function partLanes(plan: PartPlan, { fill, stroke }: PartPaint, time: RampTime, space: BlendSpace): PartLanes {
  const property = (id: StrokeProperty): Lane => {
    const { type, range } = PROPERTIES[id];
    const [from, to] = stroke?.[id] ?? [[], []];
    return rampLane(time, type === 'choice' ? blendChoice(from[0], to[0]) : blendNumbers(from, to, range));
  };
  return {
    ...plan,
    time,
    outline: rampLane(time, blendOutline(plan.plan)),
    fill: fill && paintLanes(fill, time, space),
    stroke: stroke && {
      paint: paintLanes(stroke.paint, time, space),
      properties: Object.fromEntries(STROKE_PROPERTIES.map((id) => [id, property(id)])) as Record<StrokeProperty, Lane>,
    },
  };
}
