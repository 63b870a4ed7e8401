import {
  cutRamp,
  type GradientLanes,
  type GradientPlace,
  type Lane,
  PROPERTIES,
  type Property,
  type SvgStep,
} from '../lane';
import { type RampKeys, rampKeys } from './ramp-keys';
import { heldTracks, rampTracks, type SpanTime } from './run-tracks';
import { type DrawnElement, drawn, type Track, together, type Written } from './tree/drawn-element';

/** Says lanes as attributes and tracks; what stands still has no time. */
export class LaneWriter {
  constructor(
    readonly span: SpanTime | null,
    readonly rate: number,
  ) {}

  /** The value of a lane before its first ramp. */
  first(lane: Lane): Float64Array {
    const out = new Float64Array(lane.size);
    lane.ramps[0].blend.write(0, out, 0);
    return out;
  }

  /** A property by its row of the table. */
  property(property: Property, lane: Lane): Written {
    const { attributes, initial } = property;
    const start = property.texts(this.first(lane));
    const keys = this.keys(lane, property);
    const texts = keys.map(({ values }) => values.map((value) => property.texts(value)));
    const written: Record<string, string> = {};
    const tracks: Track[] = [];
    attributes.forEach((name, i) => {
      const moving = this.tracks(
        name,
        keys,
        texts.map((ramp) => ramp.map((each) => each[i])),
      );
      tracks.push(...moving);
      if (moving.length > 0 || start[i] !== initial?.[i]) written[name] = start[i];
    });
    return { attributes: written, tracks };
  }

  /** The keys of a lane, ramp by ramp; none where it is level all the way. */
  keys(lane: Lane, property: Property): RampKeys[] {
    if (!this.span) return [];
    const { playback, stretch } = this.span;
    const ramps = playback === 'stretch' ? lane.ramps.flatMap((ramp) => cutRamp(ramp, stretch)) : lane.ramps;
    return ramps.map((ramp) => rampKeys(ramp, property, this.rate));
  }

  /** The tracks of an attribute; `texts` are the values at the keys of each ramp. None where nothing changes. */
  tracks(
    attribute: string,
    keys: readonly RampKeys[],
    texts: readonly (readonly string[])[],
    step?: Track['step'],
  ): Track[] {
    if (!this.span || keys.length === 0) return [];
    const ramps = keys.map((ramp, i) => ({ ...ramp, texts: texts[i] }));
    return rampTracks(attribute, ramps, this.span, step);
  }
}

/** The elements of a gradient over time: one, or one for each half where its kind changes. `id` is put in by the caller. */
export function gradientElements(lanes: GradientLanes, writer: LaneWriter): ((id: string) => DrawnElement)[] {
  return lanes.places.map((place) => {
    const { attributes, tracks } = placeOf(place, writer);
    const children = lanes.offsets.map((offset, i) => {
      const stop = together(
        writer.property(PROPERTIES.stopOffset, offset),
        writer.property(PROPERTIES.stopColour, lanes.colours[i]),
      );
      return drawn('stop', stop.attributes, { tracks: stop.tracks });
    });
    return (id) =>
      drawn(`${place.kind}Gradient`, { id, gradientUnits: 'userSpaceOnUse', ...attributes }, { tracks, children });
  });
}

function placeOf(place: GradientPlace, writer: LaneWriter): Written {
  if (place.kind === 'linear') return writer.property(PROPERTIES.line, place.line);
  const row: Property = PROPERTIES.ellipse;
  const start = row.texts(writer.first(place.ellipse));
  const keys = writer.keys(place.ellipse, row);
  const texts = keys.map(({ values }) => values.map((value) => row.texts(value)));
  const steps = row.attributes.map((type, i) => `${type}(${start[i]})`);
  // All steps are written when one of them moves: the first replaces the whole map.
  const moves = texts.flat().some((each) => each.some((text, i) => text !== start[i]));
  const transforms = row.attributes.flatMap((type, i) => {
    if (!moves) return [];
    const step = { type: type as SvgStep, sum: i > 0 };
    const each = texts.map((ramp) => ramp.map((text) => text[i]));
    const moving = writer.tracks('gradientTransform', keys, each, step);
    return moving.length > 0 ? moving : heldTracks('gradientTransform', step, start[i], writer.span);
  });
  return together(
    {
      attributes: { cx: '0', cy: '0', r: '1', gradientTransform: steps.join(' ') },
      tracks: transforms,
    },
    writer.property(PROPERTIES.focus, place.focus),
  );
}
