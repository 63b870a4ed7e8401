import {
  type Id,
  invert,
  isNeutral,
  isTransformLane,
  LANE_KIND_IDS,
  type LaneProperty,
  lanesOf,
  type Matrix,
  type MotionSample,
  mapPlacement,
  mapPoint,
  motionMatrix,
  neutralOf,
  type PieceDraft,
  type Placement,
  pivotOfMotion,
  prepareMotion,
  setLaneAtStop,
  stopsOf,
} from '@core';
import { type AppStore, changePiece } from '../../state';
import { freshId } from '../../workers';
import { motionAtStop, type ShownPose, shownBox } from '../scene/scene';

/** What a figure's motion is at a stop, and what it turns and grows about: px before it is moved. */
export interface MotionValues {
  readonly pivot: readonly [x: number, y: number];
  readonly position: readonly [x: number, y: number];
  /** Degrees clockwise, any number of turns. */
  readonly turn: number;
  /** Degrees: as much as it leans. */
  readonly skew: number;
  readonly scale: readonly [x: number, y: number];
}

/** The motion of a shown pose. A figure that was never turned nor scaled turns about the middle of what is shown. */
export function motionValues(shown: ShownPose): MotionValues {
  const { figure, motion } = shown;
  const [x, y] = motion ? motion.position : neutralOf('position');
  const own = figure.pivot ?? figure.middle;
  const box = own ? undefined : shownBox(shown);
  return {
    pivot:
      own ?? (box && box.maxX >= box.minX ? [(box.minX + box.maxX) / 2 - x, (box.minY + box.maxY) / 2 - y] : [0, 0]),
    position: [x, y],
    turn: motion ? motion.turn[0] : 0,
    skew: motion ? motion.skew[0] : 0,
    scale: motion ? [motion.scale[0], motion.scale[1]] : [1, 1],
  };
}

/** As the canvas needs it. */
export const motionSample = ({ pivot, position, turn, skew, scale }: MotionValues): MotionSample => ({
  ...prepareMotion({ pivot }),
  position: Float64Array.from(position),
  turn: Float64Array.of(turn),
  skew: Float64Array.of(skew),
  scale: Float64Array.from(scale),
});

/** A motion followed by a map of the canvas; uneven scaling of what leans, or is turned by no right angle, becomes even, since nothing is sheared by hand. */
export function motionAfter({ pivot, position, turn, skew, scale }: MotionValues, matrix: Matrix): MotionValues {
  const [px, py] = pivot;
  const placement: Placement = {
    x: position[0] + px,
    y: position[1] + py,
    scaleX: scale[0],
    scaleY: scale[1],
    rotation: turn,
    rule: null,
  };
  const after = placementAfter(placement, matrix, skew !== 0);
  const mirrored = matrix[0] * matrix[3] - matrix[1] * matrix[2] < 0;
  return {
    pivot,
    position: [after.x - px, after.y - py],
    turn: after.rotation,
    skew: mirrored ? -skew : skew,
    scale: [after.scaleX, after.scaleY],
  };
}

/** A placement mapped by a map of the canvas; uneven scaling of a slanted one becomes even. */
export function placementAfter(placement: Placement, matrix: Matrix, leans = false): Placement {
  const [a, b, c, d] = matrix;
  const uneven = Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) > 1e-9;
  if (!uneven || (!leans && placement.rotation % 90 === 0)) return mapPlacement(placement, matrix);
  const k = Math.sqrt(Math.abs(a * d - b * c)) || 1;
  return mapPlacement(placement, [k * Math.sign(a || 1), 0, 0, k * Math.sign(d || 1), matrix[4], matrix[5]]);
}

/** Noise of computing with angles is no motion. */
const tidy = (value: number, least: number): number => {
  const near = Math.round(value);
  return Math.abs(value - near) < least ? near : value;
};

/** Writes a motion at the stop where a pose is shown. What it does not differ in gets no lane. */
export function writeMotion(draft: PieceDraft, { figure, stop }: ShownPose, values: MotionValues): void {
  const { pivot, position, turn, skew, scale } = values;
  const set = (property: LaneProperty, value: readonly number[], least: number): void =>
    setLaneAtStop(
      draft,
      figure.id,
      property,
      stop,
      value.map((v) => tidy(v, least)),
      freshId,
    );
  set('position', position, 1e-9);
  set('turn', [turn], 1e-9);
  set('skew', [skew], 1e-9);
  set('scale', scale, 1e-12);
  if (
    !figure.pivot &&
    !figure.middle &&
    !(isNeutral('turn', [turn]) && isNeutral('skew', [skew]) && isNeutral('scale', scale))
  )
    draft.figures[figure.id].middle = [...pivot];
}

/** Takes away what was moved, turned and scaled by hand at a stop. */
export function resetMotion(store: AppStore, figureId: Id, stop: number, name: string): void {
  const { piece } = store.getState().document;
  if (!piece) return;
  store.dispatch(
    changePiece(name, (draft) => {
      for (const { property } of lanesOf(piece, figureId))
        if (isTransformLane(property)) setLaneAtStop(draft, figureId, property, stop, neutralOf(property), freshId);
    }),
  );
}

/** Sets single values at a stop. */
export function setMotion(
  store: AppStore,
  figureId: Id,
  stop: number,
  name: string,
  values: Partial<Record<LaneProperty, readonly number[]>>,
): void {
  store.dispatch(
    changePiece(name, (draft) => {
      for (const property of LANE_KIND_IDS) {
        const value = values[property];
        if (value) setLaneAtStop(draft, figureId, property, stop, value, freshId);
      }
    }),
  );
}

/**
 * Gives a figure another pivot, in px of the canvas as the figure is shown at a stop; null: its middle. The picture at the poses does not move: what another
 * pivot would move it by is added to its position.
 */
export function setPivot(store: AppStore, { figure, stop }: ShownPose, at: readonly [number, number] | null): void {
  const { piece } = store.getState().document;
  if (!piece) return;
  const motion = motionAtStop(piece, figure, stop);
  const inverse = motion && invert(motionMatrix(motion));
  // At a scale of nothing all lies on the pivot: it is taken as it is.
  const next = at && (inverse ? mapPoint(inverse, at[0], at[1]) : at);
  store.dispatch(
    changePiece('Move the pivot', (draft) => {
      const target = draft.figures[figure.id];
      target.pivot = next ? [next[0], next[1]] : null;
      const [px, py] = pivotOfMotion(piece, figure.id);
      const [qx, qy] = target.pivot ?? target.middle ?? [px, py];
      stopsOf(piece, figure).forEach((_pose, i) => {
        const there = motionAtStop(piece, figure, i);
        if (!there) return;
        const [a, b, c, d] = motionMatrix(there);
        const [dx, dy] = [px - qx, py - qy];
        const moved = [there.position[0] + dx - a * dx - c * dy, there.position[1] + dy - b * dx - d * dy];
        setLaneAtStop(
          draft,
          figure.id,
          'position',
          i,
          moved.map((v) => tidy(v, 1e-9)),
          freshId,
        );
      });
    }),
  );
}
