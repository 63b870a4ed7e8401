import { COORDINATE_LIMIT } from './tolerances';

/** The smallest and the largest value of a number. */
export interface Limit {
  readonly min: number;
  readonly max: number;
  /** Only whole numbers? */
  readonly whole?: true;
}

/**
 * The limits of all numbers that are stored or typed, once each: the schema of a piece, the rules and the fields are made from them. Lengths in px, angles in
 * degrees, times in seconds. Numbers of lanes have theirs in `lane/kinds`, numbers of adjustable shapes in `shapes/kinds`.
 */
export const LIMITS = {
  coordinate: { min: -COORDINATE_LIMIT, max: COORDINATE_LIMIT },
  length: { min: 0, max: COORDINATE_LIMIT },
  share: { min: 0, max: 1 },
  angle: { min: -1e6, max: 1e6 },
  /** Start and end angles of arcs and rings. */
  arcAngle: { min: -1e5, max: 1e5 },
  scale: { min: -1e6, max: 1e6 },
  canvasSide: { min: 1, max: 16_384 },
  /** Frames a second. */
  rate: { min: 1e-3, max: 240 },
  rateNumerator: { min: 1, max: 1_000_000, whole: true },
  rateDenominator: { min: 1, max: 100_000, whole: true },
  /** A hold, a shift, a wait. */
  seconds: { min: 0, max: 3_600 },
  /** A time before or after another. */
  offset: { min: -3_600, max: 3_600 },
  /** A typed length of a whole piece, or of several poses and shifts together. */
  runtime: { min: 0.001, max: 36_000 },
  /** Spacing of the grid lines. */
  grid: { min: 0.1, max: 10_000 },
  letterIndex: { min: 0, max: 2_000, whole: true },
  glyphIndex: { min: 0, max: 10_000, whole: true },

  strokeWidth: { min: 0, max: 100_000 },
  miter: { min: 0, max: 10_000 },
  dash: { min: 0, max: 1e6 },
  dashOffset: { min: -1e6, max: 1e6 },

  fontSize: { min: 0, max: 100_000 },
  /** In thousandths of the font size. */
  tracking: { min: -1_000, max: 10_000 },
  lineSpacing: { min: 0, max: 100 },

  pictureSide: { min: 0, max: 1e6 },

  /** Control points of an easing: its time, and its progress. */
  handleTime: { min: 0, max: 1 },
  handleProgress: { min: -10, max: 10 },
  /** Progress at the points of an easing made of several curves. */
  curveProgress: { min: -100, max: 100 },
  steps: { min: 1, max: 1_000, whole: true },
  /** One minus the damping ratio. */
  springBounce: { min: -100, max: 0.98 },
  mass: { min: 0.001, max: 1_000 },
  stiffness: { min: 0.001, max: 100_000 },
  damping: { min: 0.0001, max: 100_000 },
  springSpeed: { min: -1_000, max: 1_000 },
  elasticAmplitude: { min: 1, max: 10 },
  elasticPeriod: { min: 0.05, max: 2 },
  backOvershoot: { min: 0, max: 10 },

  followAxis: { min: 0, max: 3, whole: true },
  followFactor: { min: -1_000, max: 1_000 },
  /** Changes of direction a second. */
  driftSpeed: { min: 0.01, max: 60 },
  seed: { min: 0, max: 2_147_483_647, whole: true },
  pulsePeriod: { min: 0.02, max: 3_600 },

  wipeAngle: { min: -360, max: 360 },
  /** Steps of rounding of the in-between. */
  smoothing: { min: 0, max: 18 },
  pointsPerContour: { min: 3, max: 1_000, whole: true },
  /** Places in the half-way picture, as shares of its width and height. */
  lookPlace: { min: -10, max: 10 },

  /** A typed width or height of a box; never zero. */
  boxSide: { min: 0.001, max: COORDINATE_LIMIT },
  /** The factor of one scaling. */
  scaleBy: { min: 0.001, max: 1_000 },
  /** How far a simplified outline may be from the original. */
  simplify: { min: 0.001, max: 100 },
  corner: { min: 0, max: 10_000 },
  /** Frames between figures that start one after another. */
  setOff: { min: 0, max: 10_000, whole: true },
} as const satisfies Record<string, Limit>;

/** The same limit in another unit: one stored unit is `factor` shown units. */
export const limitIn = ({ min, max }: Limit, factor: number): Limit => ({
  min: min * factor,
  max: max * factor,
});

/** The number, or the nearest value within the limit. */
export const within = ({ min, max }: Limit, value: number): number => Math.min(max, Math.max(min, value));

/** Rounds to a millionth. Times, values and places are stored like this, so that sums carry no rounding errors. */
export const toMillionths = (value: number): number => Math.round(value * 1e6) / 1e6;
