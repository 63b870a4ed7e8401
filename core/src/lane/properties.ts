import { CAPS, type DrawTarget, JOINS } from '../paint';
import { LANE_KIND_IDS, type LaneKindId, laneKind } from './kinds';
import { choiceProperty, colourProperty, numberProperty, numbersProperty, numberWord, type Property } from './property';

/** No ellipse of a gradient is thinner than this, px: SVG paints nothing under a map without area. */
const LEAST_RADIUS_PX = 1e-4;

/** What has a lane of its own says all of it in its file. */
const LANE_PROPERTIES = Object.fromEntries(LANE_KIND_IDS.map((id) => [id, laneKind(id).property])) as Readonly<
  Record<LaneKindId, Property>
>;

/** Everything of a picture that can change, a row each. */
export const PROPERTIES = {
  ...LANE_PROPERTIES,
  outline: {
    of: 'part',
    type: 'outline',
    range: { beyond: 'on', least: -Infinity },
    error: 0.08,
    attributes: ['d'],
    texts: () => [''],
  },
  cap: choiceProperty('stroke-linecap', CAPS, (target, value) => void (target.lineCap = CAPS[value[0]])),
  join: choiceProperty('stroke-linejoin', JOINS, (target, value) => void (target.lineJoin = JOINS[value[0]])),
  miter: numberProperty('stroke', 'stroke-miterlimit', {
    least: 1,
    error: 0.01,
    initial: '4',
    apply: (target, value) => void (target.miterLimit = value[0]),
  }),
  dash: {
    ...numbersProperty(
      'stroke',
      ['stroke-dasharray'],
      0.05,
      (value) => [Array.from(value, numberWord).join(' ') || 'none'],
      0,
    ),
    initial: ['none'],
    apply: (target: DrawTarget, value: Float64Array) => void target.setLineDash(value),
  },
  dashOffset: numberProperty('stroke', 'stroke-dashoffset', {
    error: 0.05,
    initial: '0',
    apply: (target, value) => void (target.lineDashOffset = value[0]),
  }),
  /** Of a linear gradient: x1, y1, x2, y2, px. */
  line: numbersProperty('gradient', ['x1', 'y1', 'x2', 'y2'], 0.05, (value) => Array.from(value, numberWord)),
  /** Of a radial one: centre x and y, radii, px, and rotation in degrees. Written as a map of the unit circle. */
  ellipse: numbersProperty('gradient', ['translate', 'rotate', 'scale'], 0.05, (value) => [
    `${numberWord(value[0])} ${numberWord(value[1])}`,
    numberWord(value[4]),
    `${numberWord(Math.max(value[2], LEAST_RADIUS_PX))} ${numberWord(Math.max(value[3], LEAST_RADIUS_PX))}`,
  ]),
  /** Where a radial gradient starts, in its unit circle. */
  focus: {
    ...numbersProperty('gradient', ['fx', 'fy'], 1e-3, (value) => Array.from(value, numberWord)),
    initial: ['0', '0'],
  },
  /** Share of a stop on the way along its gradient. */
  stopOffset: numberProperty('stop', 'offset', { least: 0, error: 1e-3 }),
  stopColour: colourProperty('stop', 'stop-color', 'stop-opacity'),
} as const satisfies Readonly<Record<string, Property>>;

export type PropertyId = keyof typeof PROPERTIES;

/** Properties of a stroke besides its paint, in the order in which they are set and written. */
export const STROKE_PROPERTIES = ['strokeWidth', 'cap', 'join', 'miter', 'dash', 'dashOffset'] as const;
export type StrokeProperty = (typeof STROKE_PROPERTIES)[number];
