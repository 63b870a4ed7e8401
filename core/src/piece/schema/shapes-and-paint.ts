import { LIMITS } from '../../num';
import { SHAPE_KINDS, type ShapeKind, type ShapeParameter, shapeParameters } from '../../shapes';
import { CONTOURS_OF_PART } from '../records';
import {
  anyOf,
  BOOLEAN,
  described,
  fixed,
  list,
  NULL,
  notNull,
  number,
  oneOf,
  optional,
  orNull,
  record,
  ref,
  type Schema,
  string,
  tuple,
} from './json-schema';

/** An adjustable shape as it is stored: its parameters by name; several with one name and a number each are a list. */
function shapeSchema(kind: ShapeKind): Schema {
  const byName = new Map<string, ShapeParameter[]>();
  for (const parameter of shapeParameters(kind)) {
    const [name] = parameter.key.split('.');
    byName.set(name, [...(byName.get(name) ?? []), parameter]);
  }
  const fields = [...byName].map(([name, [first, ...others]]): [string, Schema] => [
    name,
    others.length === 0 ? number(first) : tuple(1 + others.length, number(first)),
  ]);
  return record({ kind: fixed(kind), ...Object.fromEntries(fields) });
}

/** Poses, their parts, and what parts are painted with. */
export const SHAPE_DEFINITIONS = {
  point: tuple(2, ref('coordinate')),
  colour: string({ minLength: 1, maxLength: 120, format: 'css-colour' }),
  paint: anyOf(
    NULL,
    ref('colour'),
    record({ kind: fixed('linear'), from: ref('point'), to: ref('point'), stops: ref('stops') }),
    described(
      'An ellipse; the focus is in its own unit circle.',
      record({
        kind: fixed('radial'),
        centre: ref('point'),
        radii: ref('point'),
        rotation: number(LIMITS.angle),
        focus: ref('point'),
        stops: ref('stops'),
      }),
    ),
  ),
  stops: list(record({ at: number(LIMITS.share), colour: ref('colour') }), 1, 100),
  pose: record({
    id: ref('id'),
    name: ref('name'),
    hold: ref('seconds'),
    placement: record({
      x: ref('coordinate'),
      y: ref('coordinate'),
      scaleX: number(LIMITS.scale),
      scaleY: number(LIMITS.scale),
      rotation: number(LIMITS.angle),
      rule: orNull(
        record({
          centre: oneOf('none', 'area', 'box', 'circle'),
          fit: oneOf('none', 'longest', 'area', 'eye'),
          to: oneOf('previous', 'canvas', 'box'),
          box: optional(tuple(4, ref('coordinate'))),
          letter: optional(record({ text: ref('id'), index: number(LIMITS.letterIndex) })),
        }),
      ),
    }),
    parts: ref('ids'),
  }),
  part: record({
    id: ref('id'),
    name: ref('name'),
    contours: list(
      record({
        id: ref('id'),
        closed: BOOLEAN,
        anchors: list(
          record({
            id: ref('id'),
            at: ref('point'),
            in: optional(ref('point')),
            out: optional(ref('point')),
            origin: optional(ref('id')),
            kind: optional(oneOf('corner', 'smooth', 'symmetric')),
          }),
          1,
          20001,
        ),
      }),
      0,
      CONTOURS_OF_PART,
    ),
    fillRule: oneOf('nonzero', 'evenodd'),
    fill: ref('paint'),
    stroke: orNull(
      record({
        paint: notNull(ref('paint')),
        width: number(LIMITS.strokeWidth),
        cap: oneOf('butt', 'round', 'square'),
        join: oneOf('miter', 'round', 'bevel'),
        miter: number(LIMITS.miter),
        dash: list(number(LIMITS.dash), 0, 64),
        dashOffset: number(LIMITS.dashOffset),
      }),
    ),
    source: optional(
      described(
        'What the contours are made from while they are adjustable.',
        anyOf(
          record({ kind: fixed('glyph'), text: ref('id'), index: number(LIMITS.glyphIndex) }),
          ...SHAPE_KINDS.map(shapeSchema),
        ),
      ),
    ),
  }),
  text: described(
    'A text whose glyphs are parts of one pose.',
    record({
      id: ref('id'),
      content: string({ maxLength: 2000 }),
      font: string({ pattern: '^(asset:)?[A-Za-z0-9_-]{1,80}$' }),
      size: number(LIMITS.fontSize),
      tracking: number(LIMITS.tracking),
      kerning: BOOLEAN,
      lineSpacing: number(LIMITS.lineSpacing),
      align: oneOf('start', 'middle', 'end'),
      x: ref('coordinate'),
      y: ref('coordinate'),
    }),
  ),
};
