import { EASING_SIDES, STEP_JUMPS } from '../../easing';
import { LANE_KIND_IDS } from '../../lane';
import { LIMITS } from '../../num';
import {
  anyOf,
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
  tuple,
} from './json-schema';

/** Moments, easings and lanes. */
export const TIMING_DEFINITIONS = {
  seconds: number(LIMITS.seconds),
  offset: described('Seconds before or after something.', number(LIMITS.offset)),
  stopName: record({ pose: ref('id'), shift: orNull(ref('id')) }),
  moment: record({ at: orNull(record({ figure: ref('id'), stop: ref('stopName') })), after: ref('offset') }),
  easing: anyOf(
    record({ kind: fixed('linear') }),
    record({
      kind: fixed('cubic-bezier'),
      x1: number(LIMITS.handleTime),
      y1: number(LIMITS.handleProgress),
      x2: number(LIMITS.handleTime),
      y2: number(LIMITS.handleProgress),
    }),
    record({ kind: fixed('steps'), count: number(LIMITS.steps), jump: oneOf(...STEP_JUMPS) }),
    record({ kind: fixed('hold'), until: oneOf('end', 'start') }),
    record({
      kind: fixed('spring'),
      bounce: number(LIMITS.springBounce),
      physics: optional(
        record({
          mass: number(LIMITS.mass),
          stiffness: number(LIMITS.stiffness),
          damping: number(LIMITS.damping),
          speed: number(LIMITS.springSpeed),
        }),
      ),
      backwards: optional(BOOLEAN),
    }),
    record({
      kind: fixed('elastic'),
      side: oneOf(...EASING_SIDES),
      amplitude: number(LIMITS.elasticAmplitude),
      period: number(LIMITS.elasticPeriod),
    }),
    record({ kind: fixed('bounce'), side: oneOf(...EASING_SIDES) }),
    record({ kind: fixed('back'), side: oneOf(...EASING_SIDES), overshoot: number(LIMITS.backOvershoot) }),
    record({ kind: fixed('curve'), points: list(number(LIMITS.curveProgress), 8, 602) }),
  ),
  lane: record({
    id: ref('id'),
    figure: orNull(ref('id')),
    property: ref('laneProperty'),
    keys: list(
      record({
        id: ref('id'),
        stop: orNull(ref('stopName')),
        after: described(
          'null: level through the hold of its stop; else seconds after the stop, or the piece, begins.',
          orNull(ref('offset')),
        ),
        value: list(ref('coordinate'), 1, 4),
        set: optional(ref('id')),
        easing: orNull(ref('easing')),
        path: optional(
          record({ in: optional(tuple(2, ref('coordinate'))), out: optional(tuple(2, ref('coordinate'))) }),
        ),
      }),
      0,
      10000,
    ),
    along: optional(BOOLEAN),
    follow: optional(
      record({
        figure: orNull(ref('id')),
        property: ref('laneProperty'),
        axis: orNull(number(LIMITS.followAxis)),
        factor: number(LIMITS.followFactor),
        offset: ref('coordinate'),
        delay: number(LIMITS.seconds),
        colour: oneOf('same', 'lighter', 'darker', 'complementary'),
      }),
    ),
    drift: optional(
      record({ amount: list(ref('coordinate'), 1, 4), speed: number(LIMITS.driftSpeed), seed: number(LIMITS.seed) }),
    ),
    pulse: optional(
      record({
        shape: oneOf('sine', 'saw', 'beat', 'square'),
        period: number(LIMITS.pulsePeriod),
        from: number(LIMITS.seconds),
        until: orNull(number(LIMITS.seconds)),
        amount: list(ref('coordinate'), 1, 4),
      }),
    ),
  }),
  laneProperty: anyOf(
    oneOf(...LANE_KIND_IDS),
    described(
      'A number of an adjustable shape: its kind and its parameter.',
      string({ maxLength: 32, pattern: '^[a-z]+\\.[a-z]+$' }),
    ),
  ),
};
