import { LIMITS } from '../../num';
import { anyOf, between, described, list, number, oneOf, orNull, record, ref, tuple } from './json-schema';

/** Shifts, and what of their match was decided by hand. */
export const MATCHING_DEFINITIONS = {
  shift: record({
    id: ref('id'),
    from: ref('id'),
    to: ref('id'),
    duration: ref('seconds'),
    easing: ref('easing'),
    method: oneOf('auto', 'straight', 'turning', 'blended', 'numbers', 'points'),
    blend: oneOf('oklab', 'srgb'),
    match: record({
      direction: oneOf('auto', 'same', 'reversed'),
      directions: list(record({ contour: ref('id'), direction: oneOf('same', 'reversed') }), 0, 1000),
      starts: list(ref('tie'), 0, 500),
      ties: list(ref('tie'), 0, 500),
      pairs: ref('contourPairs'),
      wipes: list(record({ contour: ref('id'), angle: number(LIMITS.wipeAngle) }), 0, 1000),
      opening: oneOf('auto', 'cut', 'chord'),
      unpairedOrder: oneOf('auto', 'together', 'overlap', 'after'),
      cuts: list(
        record({ id: ref('id'), side: oneOf('from', 'to'), line: tuple(4, number(LIMITS.coordinate)) }),
        0,
        20,
      ),
      smoothing: orNull(number(LIMITS.smoothing)),
      points: list(ref('place'), 0, 1000),
      even: orNull(number(LIMITS.pointsPerContour)),
      touchUps: list(
        record({
          id: ref('id'),
          progress: between(0, 1),
          points: list(
            record({
              place: ref('place'),
              by: tuple(2, number(LIMITS.coordinate)),
              before: tuple(2, number(LIMITS.coordinate)),
              after: tuple(2, number(LIMITS.coordinate)),
            }),
            0,
            2000,
          ),
        }),
        0,
        50,
      ),
      taken: orNull(
        record({
          look: described(
            "Points of the half-way picture of the alternative that was taken, x and y in turn, as shares of the picture's size from its middle.",
            list(number(LIMITS.lookPlace), 2, 200),
          ),
          pairs: ref('contourPairs'),
        }),
      ),
    }),
  }),
  place: described(
    'A place on an outline: an anchor, or two neighbouring anchors and the share of the length between them.',
    anyOf(record({ anchor: ref('id') }), record({ after: ref('id'), before: ref('id'), share: number(LIMITS.share) })),
  ),
  tie: record({ id: ref('id'), a: ref('place'), b: ref('place') }),
  contourPairs: list(record({ a: orNull(ref('id')), b: orNull(ref('id')) }), 0, 1000),
};
