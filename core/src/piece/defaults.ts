import { DEFAULT_EASING } from '../easing';
import {
  type Canvas,
  type Id,
  PIECE_VERSION,
  type Piece,
  type Placement,
  type PlacementRule,
  type Pose,
  type Shift,
} from './records';

/** Times that feel right without being touched (common practice): a shift 0.6 s, a hold 0.8 s. */
export const DEFAULT_SHIFT_SECONDS = 0.6;
export const DEFAULT_HOLD_SECONDS = 0.8;

export const DEFAULT_CANVAS: Canvas = { width: 640, height: 640, rate: { num: 60, den: 1 }, background: '#ffffff' };

/** Arriving shapes: centred by area, as long as the first pose. */
export const DEFAULT_RULE: PlacementRule = { centre: 'area', fit: 'longest', to: 'first' };

/** The first pose takes this share of the canvas's shorter side. */
export const CANVAS_SHARE = 0.6;

export const UNPLACED: Placement = { x: 0, y: 0, scale: 1, rule: DEFAULT_RULE };

/** A piece without any figure. */
export function emptyPiece(id: Id, name: string): Piece {
  return {
    format: 'arcshift-piece',
    version: PIECE_VERSION,
    id,
    name,
    canvas: DEFAULT_CANVAS,
    playback: 'loop',
    figureOrder: [],
    figures: {},
    poses: {},
    parts: {},
    shifts: {},
  };
}

/** An eased shift between two poses, all decisions automatic. */
export function newShift(id: Id, from: Id, to: Id): Shift {
  return {
    id,
    from,
    to,
    duration: DEFAULT_SHIFT_SECONDS,
    easing: DEFAULT_EASING,
    method: 'straight',
    blend: 'oklab',
    match: { direction: 'auto' },
  };
}

/** A held pose; place it afterwards. */
export function newPose(id: Id, name: string, parts: readonly Id[]): Pose {
  return { id, name, hold: DEFAULT_HOLD_SECONDS, placement: UNPLACED, parts };
}
