import type { MotionLanes } from '../frame';
import { isAboutPivot, LANE_KINDS, type Lane, PROPERTIES, type Property, type SvgStep, TRANSFORM_IDS } from '../lane';
import { heldTracks } from './run-tracks';
import type { LaneWriter } from './svg-paint';
import { NOTHING, type Track, type Written } from './tree/drawn-element';

/** A step of a transform: its function, and its value over time as text. */
interface Step {
  readonly name: SvgStep;
  readonly start: string;
  /** The tracks of this step alone, after others or in place of all; none where it never changes. */
  readonly moving: (sum: boolean) => Track[];
}

/**
 * A figure's motion as the transform of an element: moved, turned, scaled and moved back, each step animated by itself, so that what turns goes round and what
 * grows grows evenly. Steps that never do anything are left out.
 */
export function transformOf(motion: MotionLanes, writer: LaneWriter): Written {
  const [px, py] = motion.pivot;
  const about = TRANSFORM_IDS.filter((id) => isAboutPivot(id) && !isInitial(motion[id], PROPERTIES[id]));
  const { position } = PROPERTIES;
  const moved: Property = {
    ...position,
    texts: (value) => position.texts(about.length > 0 ? [value[0] + px, value[1] + py] : value),
  };
  const steps: Step[] = [];
  if (about.length > 0 || !isInitial(motion.position, position))
    steps.push(stepOf('translate', moved, motion.position, writer));
  for (const id of about) steps.push(stepOf(LANE_KINDS[id].step.svg, PROPERTIES[id], motion[id], writer));
  if (about.length > 0) {
    const [back] = position.texts([-px, -py]);
    steps.push({ name: 'translate', start: back, moving: () => [] });
  }
  if (steps.length === 0) return NOTHING;
  const attributes = { transform: steps.map(({ name, start }) => `${name}(${start})`).join(' ') };
  const moves = steps.some(({ moving }) => moving(false).length > 0);
  if (!moves) return { attributes, tracks: [] };
  // All steps are written when one of them moves: the first replaces the whole transform.
  const tracks = steps.flatMap(({ name, start, moving }, i) => {
    const own = moving(i > 0);
    return own.length > 0 ? own : heldTracks('transform', { type: name, sum: i > 0 }, start, writer.span);
  });
  return { attributes, tracks };
}

function stepOf(name: Step['name'], property: Property, lane: Lane, writer: LaneWriter): Step {
  const keys = writer.keys(lane, property);
  const texts = keys.map(({ values }) => values.map((value) => property.texts(value)[0]));
  return {
    name,
    start: property.texts(writer.first(lane))[0],
    moving: (sum) => writer.tracks('transform', keys, texts, { type: name, sum }),
  };
}

/** Is a lane at its initial value all the time? */
export function isInitial({ ramps }: Lane, property: Property): boolean {
  const out = new Float64Array(ramps[0].blend.size);
  return ramps.every(({ blend }) => {
    blend.write(0, out, 0);
    return blend.still && property.texts(out)[0] === property.initial?.[0];
  });
}
