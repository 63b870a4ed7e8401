import { cutRamp, type GradientLanes, type GradientPlace, type Lane, PROPERTIES, type Property } from '../lane';
import { animateElement, type SpanTime, stillTransform } from './smil';
import { type RampKeys, rampKeys } from './tracks';

/** Text made safe for XML content and attributes. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** What an element gets from a property: attributes, and animation elements inside it. */
export interface Written {
  readonly attributes: string;
  readonly inside: string;
}

/** Writes lanes as attributes and animations; what stands still has no time. */
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
    let written = '';
    let inside = '';
    attributes.forEach((name, i) => {
      const animation = this.animate(
        name,
        keys,
        texts.map((ramp) => ramp.map((each) => each[i])),
      );
      inside += animation;
      if (animation || start[i] !== initial?.[i]) written += ` ${name}="${start[i]}"`;
    });
    return { attributes: written, inside };
  }

  /** The keys of a lane, ramp by ramp; none where it is level all the way. */
  keys(lane: Lane, property: Property): RampKeys[] {
    if (!this.span) return [];
    const { playback, stretch } = this.span;
    const ramps = playback === 'stretch' ? lane.ramps.flatMap((ramp) => cutRamp(ramp, stretch)) : lane.ramps;
    return ramps.map((ramp) => rampKeys(ramp, property, this.rate));
  }

  /** An animation element; `texts` are the values at the keys of each ramp. '' where nothing changes. */
  animate(name: string, keys: readonly RampKeys[], texts: readonly (readonly string[])[], extra = ''): string {
    if (!this.span || keys.length === 0) return '';
    const ramps = keys.map((ramp, i) => ({ ...ramp, texts: texts[i] }));
    return animateElement(name, ramps, this.span, extra);
  }
}

/** The elements of a gradient over time: one, or one for each half where its kind changes. `id` is put in by the caller. */
export function gradientElements(lanes: GradientLanes, writer: LaneWriter): ((id: string) => string)[] {
  return lanes.places.map((place) => {
    const { attributes, inside } = placeOf(place, writer);
    const stops = lanes.offsets.map((offset, i) => {
      const at = writer.property(PROPERTIES.stopOffset, offset);
      const colour = writer.property(PROPERTIES.stopColour, lanes.colours[i]);
      const inner = at.inside + colour.inside;
      return `<stop${at.attributes}${colour.attributes}${inner ? `>${inner}</stop>` : '/>'}`;
    });
    return (id) =>
      `<${place.kind}Gradient id="${id}" gradientUnits="userSpaceOnUse"${attributes}>${inside}${stops.join('')}</${place.kind}Gradient>\n`;
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
  const transforms = row.attributes.map((type, i) => {
    const each = texts.map((ramp) => ramp.map((text) => text[i]));
    const extra = ` type="${type}" additive="${i === 0 ? 'replace' : 'sum'}"`;
    const moving = moves ? writer.animate('gradientTransform', keys, each, extra) : '';
    const still =
      moves && !moving
        ? stillTransform('gradientTransform', type, start[i], i === 0 ? 'replace' : 'sum', writer.span)
        : '';
    return moving.replaceAll('<animate ', '<animateTransform ') + still;
  });
  const focus = writer.property(PROPERTIES.focus, place.focus);
  return {
    attributes: ` cx="0" cy="0" r="1" gradientTransform="${steps.join(' ')}"${focus.attributes}`,
    inside: transforms.join('') + focus.inside,
  };
}
