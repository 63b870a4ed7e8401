import { blendNumbers, type Lane, levelLane, PROPERTIES } from '../../lane';
import { type Id, type LaneProperty, neutralOf, type Piece } from '../../piece';
import { type Matrix, multiply, rotation, scaling, translation } from '../../vec';
import { LaneBook, plusLane } from './lane-book';

/** How a figure moves as a whole, over time: moved, and turned and scaled about a point that stays where it is. */
export interface MotionLanes {
  /** px of the canvas, before the figure is moved. */
  readonly pivot: readonly [x: number, y: number];
  readonly position: Lane;
  readonly turn: Lane;
  readonly scale: Lane;
}

/** A figure's motion at a moment. */
export interface MotionSample {
  readonly pivot: readonly [x: number, y: number];
  /** x, y, px. */
  readonly position: Float64Array;
  /** Degrees clockwise. */
  readonly turn: Float64Array;
  /** x, y. */
  readonly scale: Float64Array;
}

/** The parts of a transform on a drawing target. */
export interface TransformTarget {
  translate(x: number, y: number): void;
  rotate(angle: number): void;
  scale(x: number, y: number): void;
}

/** A lane of a figure, or of the canvas (null), over time; undefined where there is none. For looking once: a piece that plays has one book for all. */
export const compileLane = (piece: Piece, figureId: Id | null, property: LaneProperty): Lane | undefined =>
  new LaneBook(piece).lane(figureId, property);

/** A figure's motion; null where it has none. */
export function compileMotion(piece: Piece, figureId: Id, book = new LaneBook(piece)): MotionLanes | null {
  const [position, scale] = [book.lane(figureId, 'position'), book.lane(figureId, 'scale')];
  const [own, along] = [book.lane(figureId, 'turn'), book.direction(figureId)];
  const turn = own && along ? plusLane(own, along) : (own ?? along);
  if (!position && !turn && !scale) return null;
  const level = (property: 'position' | 'turn' | 'scale'): Lane =>
    levelLane(blendNumbers(neutralOf(property), neutralOf(property), PROPERTIES[property].range));
  return {
    pivot: pivotOfMotion(piece, figureId),
    position: position ?? level('position'),
    turn: turn ?? level('turn'),
    scale: scale ?? level('scale'),
  };
}

/** What a figure turns and grows about: chosen by hand, or its middle when it was first turned. */
export function pivotOfMotion({ figures }: Pick<Piece, 'figures'>, figureId: Id): readonly [number, number] {
  const { pivot, middle } = figures[figureId];
  return pivot ?? middle ?? [0, 0];
}

/** Memory for a motion's values. */
export const prepareMotion = ({ pivot }: Pick<MotionLanes, 'pivot'>): MotionSample => ({
  pivot,
  position: new Float64Array(2),
  turn: new Float64Array(1),
  scale: new Float64Array(2),
});

/** Writes the motion at a time in s of the figure into `out`, which is returned; allocates nothing. */
export function sampleMotion({ position, turn, scale }: MotionLanes, seconds: number, out: MotionSample): MotionSample {
  position.sample(seconds, out.position);
  turn.sample(seconds, out.turn);
  scale.sample(seconds, out.scale);
  return out;
}

const RADIANS = Math.PI / 180;

/** A figure's motion at a time in s; null where it has none. For looking once; what plays is compiled and sampled. */
export function motionAt(piece: Piece, figureId: Id, seconds: number): MotionSample | null {
  const lanes = compileMotion(piece, figureId);
  return lanes && sampleMotion(lanes, seconds, prepareMotion(lanes));
}

/** Moves, turns and scales what is drawn on a target from here on. */
export function applyMotion({ pivot, position, turn, scale }: MotionSample, target: TransformTarget): void {
  const [px, py] = pivot;
  target.translate(position[0] + px, position[1] + py);
  if (turn[0] !== 0) target.rotate(turn[0] * RADIANS);
  if (scale[0] !== 1 || scale[1] !== 1) target.scale(scale[0], scale[1]);
  target.translate(-px, -py);
}

/** The same as a map of the canvas. */
export function motionMatrix({ pivot, position, turn, scale }: MotionSample): Matrix {
  const [px, py] = pivot;
  const linear = multiply(rotation(turn[0] * RADIANS), scaling(scale[0], scale[1]));
  return multiply(translation(position[0] + px, position[1] + py), multiply(linear, translation(-px, -py)));
}
