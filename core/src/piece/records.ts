import type { Easing } from '../easing';
import type { DirectionChoice } from '../match';
import type { Method } from '../morph';
import type { FillRule } from '../outline';
import type { BlendSpace } from '../paint';

/**
 * The records of a piece: flat tables by id, with order lists. Coordinates in px, y down; times in seconds; angles in degrees clockwise;
 * colours as CSS Color 4 strings. The JSON schema beside this file says the same to machines.
 */
export const PIECE_VERSION = 1;

export type Id = string;

export interface Canvas {
  readonly width: number;
  readonly height: number;
  /** Frames per second as a fraction: 24000/1001 is { num: 24000, den: 1001 }. */
  readonly rate: { readonly num: number; readonly den: number };
  /** null: nothing behind the figures. */
  readonly background: string | null;
}

export interface Piece {
  readonly format: 'arcshift-piece';
  readonly version: typeof PIECE_VERSION;
  readonly id: Id;
  readonly name: string;
  readonly canvas: Canvas;
  readonly playback: 'loop' | 'once';
  /** Stacking order, the lowest first. */
  readonly figureOrder: readonly Id[];
  readonly figures: Readonly<Record<Id, Figure>>;
  readonly poses: Readonly<Record<Id, Pose>>;
  readonly parts: Readonly<Record<Id, Part>>;
  readonly shifts: Readonly<Record<Id, Shift>>;
}

/** One thing that changes shape. */
export interface Figure {
  readonly id: Id;
  readonly name: string;
  /** All poses that belong to it. */
  readonly poses: readonly Id[];
  /** The shifts in the order in which they play; each leaves the pose that the one before reached. Empty with a single pose. */
  readonly rail: readonly Id[];
}

export const FIT_RULES = ['none', 'longest', 'area'] as const;
export const CENTRE_RULES = ['none', 'area', 'box'] as const;
export const FIT_TARGETS = ['first', 'canvas'] as const;

/** How an arriving shape finds its size and place. */
export interface PlacementRule {
  readonly centre: (typeof CENTRE_RULES)[number];
  readonly fit: (typeof FIT_RULES)[number];
  /** What it is fitted to: the figure's first pose, or the canvas with a margin. */
  readonly to: (typeof FIT_TARGETS)[number];
}

/** Where a pose stands: its own coordinates are scaled, then moved. `rule` is null once somebody has moved it by hand. */
export interface Placement {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
  readonly rule: PlacementRule | null;
}

/** One look of a figure. */
export interface Pose {
  readonly id: Id;
  readonly name: string;
  /** How long it is held, s. */
  readonly hold: number;
  readonly placement: Placement;
  /** Painting order, the lowest first. */
  readonly parts: readonly Id[];
}

export interface Anchor {
  readonly id: Id;
  readonly at: readonly [x: number, y: number];
  /** Handles, absolute; left out where the handle lies on the anchor. A piece without both its handles is a straight line. */
  readonly in?: readonly [x: number, y: number];
  readonly out?: readonly [x: number, y: number];
  /** The anchor that this one was copied from. */
  readonly origin?: Id;
}

export interface ContourRecord {
  readonly id: Id;
  readonly closed: boolean;
  readonly anchors: readonly Anchor[];
}

export const CAPS = ['butt', 'round', 'square'] as const;
export const JOINS = ['miter', 'round', 'bevel'] as const;

export interface Stroke {
  readonly colour: string;
  /** px in the pose's own coordinates. */
  readonly width: number;
  readonly cap: (typeof CAPS)[number];
  readonly join: (typeof JOINS)[number];
}

/** An outline with its paint. */
export interface Part {
  readonly id: Id;
  readonly name: string;
  readonly contours: readonly ContourRecord[];
  readonly fillRule: FillRule;
  readonly fill: string | null;
  readonly stroke: Stroke | null;
}

/** What the user decided about a shift's match; all else is automatic. */
export interface MatchChoices {
  readonly direction: DirectionChoice;
}

/** The change from one pose to another. */
export interface Shift {
  readonly id: Id;
  readonly from: Id;
  readonly to: Id;
  /** s */
  readonly duration: number;
  readonly easing: Easing;
  readonly method: Method;
  readonly blend: BlendSpace;
  readonly match: MatchChoices;
}
