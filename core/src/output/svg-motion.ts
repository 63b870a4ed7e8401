import type { MotionLanes } from '../frame';
import { type Lane, PROPERTIES, type Property } from '../lane';
import { stillTransform } from './smil';
import type { LaneWriter, Written } from './svg-paint';

/** A step of a transform: its function, and its value over time as text. */
interface Step {
  readonly name: 'translate' | 'rotate' | 'scale';
  readonly start: string;
  /** The animation of this step alone; '' where it stands still. */
  readonly moving: (extra: string) => string;
}

const NOTHING: Written = { attributes: '', inside: '' };

/**
 * A figure's motion as the transform of an element: moved, turned, scaled and moved back, each step animated by itself, so that what turns goes round and what
 * grows grows evenly. Steps that never do anything are left out.
 */
export function transformOf({ position, turn, scale, pivot }: MotionLanes, writer: LaneWriter): Written {
  const [px, py] = pivot;
  const turns = !isInitial(turn, PROPERTIES.turn);
  const scales = !isInitial(scale, PROPERTIES.scale);
  const about = turns || scales;
  const moved: Property = {
    ...PROPERTIES.position,
    texts: (value) => PROPERTIES.position.texts(about ? [value[0] + px, value[1] + py] : value),
  };
  const steps: Step[] = [];
  if (about || !isInitial(position, PROPERTIES.position)) steps.push(stepOf('translate', moved, position, writer));
  if (turns) steps.push(stepOf('rotate', PROPERTIES.turn, turn, writer));
  if (scales) steps.push(stepOf('scale', PROPERTIES.scale, scale, writer));
  if (about) {
    const [back] = PROPERTIES.position.texts([-px, -py]);
    steps.push({ name: 'translate', start: back, moving: () => '' });
  }
  if (steps.length === 0) return NOTHING;
  const attributes = ` transform="${steps.map(({ name, start }) => `${name}(${start})`).join(' ')}"`;
  const moves = steps.some(({ moving }) => moving('') !== '');
  if (!moves) return { attributes, inside: '' };
  // All steps are written when one of them moves: the first replaces the whole transform.
  const inside = steps.map(({ name, start, moving }, i) => {
    const additive = i === 0 ? 'replace' : 'sum';
    const written = moving(` type="${name}" additive="${additive}"`).replaceAll('<animate ', '<animateTransform ');
    return written || stillTransform('transform', name, start, additive, writer.span);
  });
  return { attributes, inside: inside.join('') };
}

function stepOf(name: Step['name'], property: Property, lane: Lane, writer: LaneWriter): Step {
  const keys = writer.keys(lane, property);
  const texts = keys.map(({ values }) => values.map((value) => property.texts(value)[0]));
  return {
    name,
    start: property.texts(writer.first(lane))[0],
    moving: (extra) => writer.animate('transform', keys, texts, extra),
  };
}

/** Is a lane at its initial value all the time? */
function isInitial({ ramps }: Lane, property: Property): boolean {
  const out = new Float64Array(ramps[0].blend.size);
  return ramps.every(({ blend }) => {
    blend.write(0, out, 0);
    return blend.still && property.texts(out)[0] === property.initial?.[0];
  });
}
