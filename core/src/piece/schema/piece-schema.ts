import { LIMITS } from '../../num';
import { MOST_RECORDS, PIECE_VERSION, PLAYBACKS } from '../records';
import {
  BOOLEAN,
  described,
  fixed,
  list,
  number,
  oneOf,
  optional,
  orNull,
  record,
  ref,
  string,
  table,
} from './json-schema';
import { MATCHING_DEFINITIONS } from './matching';
import { SHAPE_DEFINITIONS } from './shapes-and-paint';
import { TIMING_DEFINITIONS } from './timing';

/** What a piece file consists of, as JSON Schema (draft 7). `scripts/build-piece-check.mjs` writes it down and compiles it. */
export const PIECE_SCHEMA = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'arcshift-piece',
  title: 'Arc Shift piece',
  description:
    'Coordinates in px, y down; angles in degrees clockwise; times in seconds; colours as CSS Color 4 strings. Made from core/src/piece/schema; do not edit.',
  ...record({
    format: fixed('arcshift-piece'),
    version: fixed(PIECE_VERSION),
    id: ref('id'),
    name: ref('name'),
    canvas: record({
      width: number(LIMITS.canvasSide),
      height: number(LIMITS.canvasSide),
      rate: described(
        'Frames per second as a fraction, for example 24000/1001.',
        record({ num: number(LIMITS.rateNumerator), den: number(LIMITS.rateDenominator) }),
      ),
      background: orNull(ref('colour')),
    }),
    playback: oneOf(...PLAYBACKS),
    figureOrder: ref('ids'),
    figures: table(ref('figure'), MOST_RECORDS.figures),
    poses: table(ref('pose'), MOST_RECORDS.poses),
    parts: table(ref('part'), MOST_RECORDS.parts),
    shifts: table(ref('shift'), MOST_RECORDS.shifts),
    lanes: table(ref('lane'), MOST_RECORDS.lanes),
    texts: table(ref('text'), MOST_RECORDS.texts),
    groups: table(ref('group'), MOST_RECORDS.groups),
    references: list(ref('reference'), 0, 50),
    aids: record({
      guides: list(record({ id: ref('id'), axis: oneOf('x', 'y'), at: ref('coordinate') }), 0, 500),
      grid: record({ size: number(LIMITS.grid), shown: BOOLEAN }),
      thirds: BOOLEAN,
      safeArea: BOOLEAN,
    }),
    poster: optional(
      described('The moment whose picture stands for the piece; left out: the program chooses.', ref('moment')),
    ),
    stretch: optional(record({ from: ref('moment'), until: ref('moment') })),
  }),
  definitions: {
    id: string({ pattern: '^(?!__proto__$)[A-Za-z0-9_-]{1,64}$' }),
    ids: list(ref('id'), 0, 20000),
    name: string({ minLength: 1, maxLength: 200 }),
    coordinate: number(LIMITS.coordinate),
    figure: record({
      id: ref('id'),
      name: ref('name'),
      poses: ref('ids'),
      rail: described('Ordered shifts; each leaves the pose that the one before reached.', ref('ids')),
      group: orNull(ref('id')),
      clip: described('The figure inside whose filled area this one is seen.', orNull(ref('id'))),
      opacity: number(LIMITS.share),
      hidden: BOOLEAN,
      locked: BOOLEAN,
      seeThrough: BOOLEAN,
      pivot: orNull(ref('point')),
      middle: orNull(ref('point')),
      start: ref('seconds'),
      before: oneOf('held', 'hidden'),
      after: oneOf('held', 'hidden'),
    }),
    group: record({ id: ref('id'), name: ref('name') }),
    reference: described(
      'A picture to trace; the server keeps it under its asset id.',
      record({
        id: ref('id'),
        name: ref('name'),
        asset: string({ pattern: '^[a-f0-9]{64}$' }),
        x: ref('coordinate'),
        y: ref('coordinate'),
        width: number(LIMITS.pictureSide),
        height: number(LIMITS.pictureSide),
        opacity: number(LIMITS.share),
        locked: BOOLEAN,
        shown: BOOLEAN,
      }),
    ),
    ...SHAPE_DEFINITIONS,
    ...TIMING_DEFINITIONS,
    ...MATCHING_DEFINITIONS,
  },
};
