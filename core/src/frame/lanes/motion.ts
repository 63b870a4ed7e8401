import {
  blendNumbers,
  changes,
  isAboutPivot,
  type Lane,
  laneKind,
  levelLane,
  linearOf,
  TRANSFORM_IDS,
  type TransformId,
  type TransformTarget,
} from '../../lane';
import type { Id, LaneProperty, Piece } from '../../piece';
import { type Matrix, multiply, translation } from '../../vec';
import { LaneBook, plusLane } from './lane-book';

/** How a figure moves as a whole, over time: a lane for each step of its transform about a point that stays where it is. */
export type MotionLanes = { readonly [K in TransformId]: Lane } & {
  /** px of the canvas, before the figure is moved. */
  readonly pivot: readonly [x: number, y: number];
};

/** A figure's motion at a moment: the numbers of each step. */
export type MotionSample = { readonly [K in TransformId]: Float64Array } & {
  readonly pivot: readonly [x: number, y: number];
};

/** A lane of a figure, or of the canvas (null), over time; undefined where there is none. For looking once: a piece that plays has one book for all. */
export const compileLane = (piece: Piece, figureId: Id | null, property: LaneProperty): Lane | undefined =>
  new LaneBook(piece).lane(figureId, property);

/** A figure's motion; null where it has none. */
export function compileMotion(piece: Piece, figureId: Id, book = new LaneBook(piece)): MotionLanes | null {
  const along = book.direction(figureId);
  const found = TRANSFORM_IDS.map((id) => {
    const own = book.lane(figureId, id);
    return id === 'turn' && along ? (own ? plusLane(own, along) : along) : own;
  });
  if (found.every((lane) => lane === undefined)) return null;
  const lanes = TRANSFORM_IDS.map((id, i) => [id, found[i] ?? levelOf(id)]);
  return { pivot: pivotOfMotion(piece, figureId), ...(Object.fromEntries(lanes) as Record<TransformId, Lane>) };
}

/** A step that changes nothing. */
function levelOf(id: TransformId): Lane {
  const { neutral, property } = laneKind(id);
  return levelLane(blendNumbers(neutral, neutral, property.range));
}

/** What a figure turns and grows about: chosen by hand, or its middle when it was first turned. */
export function pivotOfMotion({ figures }: Pick<Piece, 'figures'>, figureId: Id): readonly [number, number] {
  const { pivot, middle } = figures[figureId];
  return pivot ?? middle ?? [0, 0];
}

/** Memory for a motion's values, which moves nothing until it is written. */
export const prepareMotion = ({ pivot }: Pick<MotionLanes, 'pivot'>): MotionSample => ({
  pivot,
  ...(Object.fromEntries(TRANSFORM_IDS.map((id) => [id, Float64Array.from(laneKind(id).neutral)])) as Record<
    TransformId,
    Float64Array
  >),
});

/** Writes the motion at a time in s of the figure into `out`, which is returned; allocates nothing. */
export function sampleMotion(lanes: MotionLanes, seconds: number, out: MotionSample): MotionSample {
  for (let i = 0; i < TRANSFORM_IDS.length; i++) lanes[TRANSFORM_IDS[i]].sample(seconds, out[TRANSFORM_IDS[i]]);
  return out;
}

/** A figure's motion at a time in s; null where it has none. For looking once; what plays is compiled and sampled. */
export function motionAt(piece: Piece, figureId: Id, seconds: number): MotionSample | null {
  const lanes = compileMotion(piece, figureId);
  return lanes && sampleMotion(lanes, seconds, prepareMotion(lanes));
}

/** Moves what is drawn on a target from here on, step by step. */
export function applyMotion(motion: MotionSample, target: TransformTarget): void {
  const [px, py] = motion.pivot;
  target.translate(motion.position[0] + px, motion.position[1] + py);
  for (let i = 0; i < TRANSFORM_IDS.length; i++) {
    const id = TRANSFORM_IDS[i];
    if (isAboutPivot(id) && changes(id, motion[id])) laneKind(id).step?.apply(target, motion[id]);
  }
  target.translate(-px, -py);
}

/** The same as a map of the canvas. */
export function motionMatrix(motion: MotionSample): Matrix {
  const [px, py] = motion.pivot;
  const linear = linearOf((id) => motion[id]);
  return multiply(
    translation(motion.position[0] + px, motion.position[1] + py),
    multiply(linear, translation(-px, -py)),
  );
}
