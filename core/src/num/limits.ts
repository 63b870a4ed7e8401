import { COORDINATE_LIMIT } from './tolerances';

/** The least and the most that a number can be. */
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
  /** Angles at which arcs and rings begin and end. */
  arcAngle: { min: -1e5, max: 1e5 },
  scale: { min: -1e6, max: 1e6 },
  canvasSide: { min: 1, max: 16_384 },
  /** Frames a second. */
  rate: { min: 1e-3, max: 240 },
  rateNumerator: { min: 1, max: 1_000_000, whole: true },
  rateDenominator: { min: 1, max: 100_000, whole: true },
  /** A hold, a shift, a wait. */
  seconds: { min: 0, max: 3_600 },
  /** From something on, or before it. */
  offset: { min: -3_600, max: 3_600 },
  /** A whole piece, or several poses and shifts together, as it is typed. */
  runtime: { min: 0.001, max: 36_000 },
  /** Distance of the grid's lines. */
  grid: { min: 0.1, max: 10_000 },
  letterIndex: { min: 0, max: 2_000, whole: true },
  glyphIndex: { min: 0, max: 10_000, whole: true },

  strokeWidth: { min: 0, max: 100_000 },
  miter: { min: 0, max: 10_000 },
  dash: { min: 0, max: 1e6 },
  dashOffset: { min: -1e6, max: 1e6 },

  fontSize: { min: 0, max: 100_000 },
  /** Thousandths of the font size. */
  tracking: { min: -1_000, max: 10_000 },
  lineSpacing: { min: 0, max: 100 },

  pictureSide: { min: 0, max: 1e6 },

  /** Control points of an easing: its time, and its progress. */
  handleTime: { min: 0, max: 1 },
  handleProgress: { min: -10, max: 10 },
  /** Progress at points of several curves. */
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
  /** How much the in-between is rounded, in steps. */
  smoothing: { min: 0, max: 18 },
  pointsPerContour: { min: 3, max: 1_000, whole: true },
  /** Places in the half-way picture, as shares of its size. */
  lookPlace: { min: -10, max: 10 },

  /** A box that is typed: never flat. */
  boxSide: { min: 0.001, max: COORDINATE_LIMIT },
  /** What is scaled at once. */
  scaleBy: { min: 0.001, max: 1_000 },
  /** How far an outline may be from what it was, where it is simplified. */
  simplify: { min: 0.001, max: 100 },
  corner: { min: 0, max: 10_000 },
  /** Frames between figures that are set off. */
  setOff: { min: 0, max: 10_000, whole: true },
} as const satisfies Record<string, Limit>;

/** A limit in other units: each stored number is shown as `factor` of them. */
export const limitIn = ({ min, max }: Limit, factor: number): Limit => ({
  min: min * factor,
  max: max * factor,
});

/** A number kept within a limit. */
export const within = ({ min, max }: Limit, value: number): number => Math.min(max, Math.max(min, value));

/** Times, values and places are kept to a millionth, so that adding up leaves no crumbs. */
export const toMillionths = (value: number): number => Math.round(value * 1e6) / 1e6;
