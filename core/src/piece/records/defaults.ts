import { DEFAULT_EASING } from '../../easing';
import type { Paint } from '../../paint';
import { AUTOMATIC_MATCH } from './decisions';
import {
  type Canvas,
  type DrawingAids,
  type Figure,
  type Id,
  PIECE_VERSION,
  type Piece,
  type Placement,
  type PlacementRule,
  type Pose,
  type Shift,
  type Stroke,
} from './records';

/** Times that feel right without being touched (common practice): a shift 0.6 s, a hold 0.8 s. */
export const DEFAULT_SHIFT_SECONDS = 0.6;
export const DEFAULT_HOLD_SECONDS = 0.8;

export const DEFAULT_CANVAS: Canvas = { width: 640, height: 640, rate: { num: 60, den: 1 }, background: '#ffffff' };

/** Arriving shapes: centred by area, as long as the pose before. */
export const DEFAULT_RULE: PlacementRule = { centre: 'area', fit: 'longest', to: 'previous' };

/** The first pose takes this share of the canvas's shorter side. */
export const CANVAS_SHARE = 0.6;

export const UNPLACED: Placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: DEFAULT_RULE };

/** A pose that stands where its own coordinates say. */
export const AS_DRAWN: Placement = { ...UNPLACED, rule: null };

export const DEFAULT_AIDS: DrawingAids = {
  guides: [],
  grid: { size: 20, shown: false },
  thirds: false,
  safeArea: false,
};

/** A plain stroke; caps and joins as SVG has them. */
export const plainStroke = (paint: Paint, width: number): Stroke => ({
  paint,
  width,
  cap: 'round',
  join: 'round',
  miter: 4,
  dash: [],
  dashOffset: 0,
});

/** A figure without poses. */
export const newFigure = (id: Id, name: string): Figure => ({
  id,
  name,
  poses: [],
  rail: [],
  group: null,
  clip: null,
  opacity: 1,
  hidden: false,
  locked: false,
  seeThrough: false,
  pivot: null,
  middle: null,
  start: 0,
  before: 'held',
  after: 'held',
});

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
    lanes: {},
    texts: {},
    groups: {},
    references: [],
    aids: DEFAULT_AIDS,
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
    method: 'auto',
    blend: 'oklab',
    match: AUTOMATIC_MATCH,
  };
}

/** A held pose; place it afterwards. */
export function newPose(id: Id, name: string, parts: readonly Id[]): Pose {
  return { id, name, hold: DEFAULT_HOLD_SECONDS, placement: UNPLACED, parts };
}
