import type { Easing } from '../../easing';
import type { LaneKindId } from '../../lane';
import type { DirectionChoice, Opening, Turns } from '../../match';
import type { Method } from '../../morph';
import type { FillRule, Place } from '../../outline';
import type { BlendSpace, Cap, Join, Paint } from '../../paint';
import type { ShapeNumberId, ShapeSource } from '../../shapes';

/**
 * The records of a piece: flat tables by id, with order lists. Coordinates in px, y down; times in seconds; angles in degrees clockwise;
 * colours as CSS Color 4 strings. The JSON schema beside this file says the same to machines.
 */
export const PIECE_VERSION = 11;

export type Id = string;

export interface Canvas {
  readonly width: number;
  readonly height: number;
  /** Frames per second as a fraction: 24000/1001 is { num: 24000, den: 1001 }. */
  readonly rate: { readonly num: number; readonly den: number };
  /** null: nothing behind the figures. */
  readonly background: string | null;
}

/** Lines and squares that help to draw; no part of any picture. */
export interface DrawingAids {
  readonly guides: readonly Guide[];
  readonly grid: { readonly size: number; readonly shown: boolean };
  readonly thirds: boolean;
  readonly safeArea: boolean;
}

export interface Guide {
  readonly id: Id;
  /** x: an upright line at this x; y: a level line at this y. */
  readonly axis: 'x' | 'y';
  readonly at: number;
}

/** A dimmed picture to trace; the picture itself is an asset that the server keeps. Box in canvas px. */
export interface ReferencePicture {
  readonly id: Id;
  readonly name: string;
  readonly asset: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly opacity: number;
  readonly locked: boolean;
  readonly shown: boolean;
}

/** Figures that are chosen and moved together. */
export interface FigureGroup {
  readonly id: Id;
  readonly name: string;
}

export const TEXT_ALIGNS = ['start', 'middle', 'end'] as const;

/** A text whose glyphs are parts of one pose, one each. Baseline start at (x, y) in the pose's own coordinates; lengths in px. */
export interface TextRecord {
  readonly id: Id;
  readonly content: string;
  /** Name of a shipped font, or `asset:` and the id of an own one. */
  readonly font: string;
  readonly size: number;
  /** Added between letters, in thousandths of the size. */
  readonly tracking: number;
  readonly kerning: boolean;
  /** From baseline to baseline, as a multiple of the size. */
  readonly lineSpacing: number;
  readonly align: (typeof TEXT_ALIGNS)[number];
  readonly x: number;
  readonly y: number;
}

export const PLAYBACKS = ['loop', 'once', 'back', 'stretch'] as const;
/** loop: again and again; once: to the end; back: there and back, again and again; stretch: from the start once, then a stretch of it again and again. */
export type Playback = (typeof PLAYBACKS)[number];

/** A moment of a piece: so many s after a stop of a figure began, or after the beginning of the piece. */
export interface Moment {
  readonly at: { readonly figure: Id; readonly stop: StopName } | null;
  readonly after: number;
}

/** What is played again and again: from a moment until another. */
export interface Stretch {
  readonly from: Moment;
  readonly until: Moment;
}

export interface Piece {
  readonly format: 'arcshift-piece';
  readonly version: typeof PIECE_VERSION;
  readonly id: Id;
  readonly name: string;
  readonly canvas: Canvas;
  readonly playback: Playback;
  /** What is played again and again when `playback` is 'stretch'; left out: all of it. */
  readonly stretch?: Stretch;
  /** The moment whose picture stands for the piece where nothing moves; left out: the longest hold that is not of the first pose. */
  readonly poster?: Moment;
  /** Stacking order, the lowest first. */
  readonly figureOrder: readonly Id[];
  readonly figures: Readonly<Record<Id, Figure>>;
  readonly poses: Readonly<Record<Id, Pose>>;
  readonly parts: Readonly<Record<Id, Part>>;
  readonly shifts: Readonly<Record<Id, Shift>>;
  readonly lanes: Readonly<Record<Id, LaneRecord>>;
  readonly texts: Readonly<Record<Id, TextRecord>>;
  readonly groups: Readonly<Record<Id, FigureGroup>>;
  readonly references: readonly ReferencePicture[];
  readonly aids: DrawingAids;
}

/** One thing that changes shape. */
export interface Figure {
  readonly id: Id;
  readonly name: string;
  /** All poses that belong to it. */
  readonly poses: readonly Id[];
  /** The shifts in the order in which they play; each leaves the pose that the one before reached. Empty with a single pose. */
  readonly rail: readonly Id[];
  readonly group: Id | null;
  /** The figure inside whose filled area this one is seen, with a hard edge. */
  readonly clip: Id | null;
  readonly opacity: number;
  /** Hidden figures are not drawn, but can still clip others. */
  readonly hidden: boolean;
  readonly locked: boolean;
  /** Shown faintly while drawing; outputs are not concerned. */
  readonly seeThrough: boolean;
  /** What it turns and grows about, chosen by hand: canvas px, before its motion moves it; null: its middle. */
  readonly pivot: readonly [x: number, y: number] | null;
  /** Its middle as it was when it was first turned or scaled, in the same px; null until then. It stays where it is when outlines are edited. */
  readonly middle: readonly [x: number, y: number] | null;
  /** When its first pose stands, s: figures may come one after another. */
  readonly start: number;
  /** What is seen of it before its first pose and after its last: it is held there, or hidden. */
  readonly before: Outside;
  readonly after: Outside;
}

export const OUTSIDE = ['held', 'hidden'] as const;
export type Outside = (typeof OUTSIDE)[number];

/** A figure of adjustable shapes can have a lane for each of their numbers too; it is the same for all its shapes of that kind. */
export type LaneProperty = LaneKindId | ShapeNumberId;

/**
 * A stop of a figure's rail: its pose, and the shift that reaches it (null: none does, it is the first). A rail may pass a pose twice, and each time it may
 * stand elsewhere.
 */
export interface StopName {
  readonly pose: Id;
  readonly shift: Id | null;
}

/** A value of a lane. */
export interface LaneKey {
  readonly id: Id;
  /** null: of the canvas, which has no stops. */
  readonly stop: StopName | null;
  /** null: it stands level through the whole hold of its stop; else it stands so many s after the stop, or the piece, began, before it where negative. */
  readonly after: number | null;
  /**
   * position: x, y, px; turn: degrees clockwise; scale: x, y, as factors; opacity: 0 to 1. All on top of what base placement and figure give.
   * fill, stroke, background: red, green, blue and alpha of sRGB, 0 to 1, in place of the paint of parts and canvas. `strokeWidth`: px, likewise.
   * drawn: from, to, shifted along, in shares of each stroked contour's length; softness: blur as a standard deviation, px.
   * Numbers of adjustable shapes: in place of the shapes' own, in the unit of their parameter.
   */
  readonly value: readonly number[];
  /** How the way to the next key goes; null: as the shift that it spans. */
  readonly easing: Easing | null;
  /** Handles of a position's path, px from where the key stands: of the way that reaches it, and of the way that leaves it. Left out: straight. */
  readonly path?: { readonly in?: readonly [x: number, y: number]; readonly out?: readonly [x: number, y: number] };
  /** Keys that were put in by one action and go by one share this. */
  readonly set?: Id;
}

export const COLOUR_CHANGES = ['same', 'lighter', 'darker', 'complementary'] as const;
export type ColourChange = (typeof COLOUR_CHANGES)[number];

/** A lane's value is taken from another lane: of a figure, or of the canvas (null). */
export interface Follow {
  readonly figure: Id | null;
  readonly property: LaneProperty;
  /** Which of its numbers; null: all. */
  readonly axis: number | null;
  /** What its difference from nothing is multiplied by, and what is added. */
  readonly factor: number;
  readonly offset: number;
  /** It comes so much later, s. */
  readonly delay: number;
  /** For colours. */
  readonly colour: ColourChange;
}

/** Smooth seeded noise: how far each number strays at most, and how often it turns, per s. */
export interface Drift {
  readonly amount: readonly number[];
  readonly speed: number;
  readonly seed: number;
}

export const PULSE_SHAPES = ['sine', 'saw', 'beat', 'square'] as const;
export type PulseShape = (typeof PULSE_SHAPES)[number];

/** A beat that comes again: its period, s, from when on, and until when it begins anew (null: for ever); how much it adds to each number. */
export interface Pulse {
  readonly shape: PulseShape;
  readonly period: number;
  readonly from: number;
  readonly until: number | null;
  readonly amount: readonly number[];
}

/** A value of a figure, or of the canvas, over time, on top of where its poses' rules put it. A figure has at most one lane of a property. */
export interface LaneRecord {
  readonly id: Id;
  /** null: of the canvas. */
  readonly figure: Id | null;
  readonly property: LaneProperty;
  /** In any order, the rail says when they are. None where it only follows, drifts or pulses. */
  readonly keys: readonly LaneKey[];
  /** For position: the figure turns along its path. */
  readonly along?: boolean;
  readonly follow?: Follow;
  readonly drift?: Drift;
  readonly pulse?: Pulse;
}

export const FIT_RULES = ['none', 'longest', 'area', 'eye'] as const;
export const CENTRE_RULES = ['none', 'area', 'box', 'circle'] as const;
export const FIT_TARGETS = ['previous', 'canvas', 'box'] as const;

/** How an arriving shape finds its size and place. */
export interface PlacementRule {
  readonly centre: (typeof CENTRE_RULES)[number];
  readonly fit: (typeof FIT_RULES)[number];
  /** What it is fitted to: the figure's pose before it, the canvas with a margin, or a box of its own. */
  readonly to: (typeof FIT_TARGETS)[number];
  /** The box when `to` is 'box': left, top, width, height in canvas px. */
  readonly box?: readonly [x: number, y: number, width: number, height: number];
  /** Which letter, or run of spaces, of a text the box is: it follows when the text is changed, and stays where it was when the text is gone. */
  readonly letter?: { readonly text: Id; readonly index: number };
}

/**
 * Where a pose stands before its figure's motion: its own coordinates are scaled (negative: mirrored), turned by degrees clockwise, then moved. This is baked
 * into the outline that is matched. `rule` is null where it stands as it was drawn.
 */
export interface Placement {
  readonly x: number;
  readonly y: number;
  readonly scaleX: number;
  readonly scaleY: number;
  readonly rotation: number;
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

export const ANCHOR_KINDS = ['corner', 'smooth', 'symmetric'] as const;
/** corner: handles are free; smooth: they stay on one line; symmetric: and equally long. */
export type AnchorKind = (typeof ANCHOR_KINDS)[number];

export interface Anchor {
  readonly id: Id;
  readonly at: readonly [x: number, y: number];
  /** Handles, absolute; left out where the handle lies on the anchor. A piece without both its handles is a straight line. */
  readonly in?: readonly [x: number, y: number];
  readonly out?: readonly [x: number, y: number];
  /** The anchor that this one was copied from. */
  readonly origin?: Id;
  /** What moving one handle does to the other; left out: as the handles lie. */
  readonly kind?: AnchorKind;
}

export interface ContourRecord {
  readonly id: Id;
  readonly closed: boolean;
  readonly anchors: readonly Anchor[];
}

export interface Stroke {
  readonly paint: Paint;
  /** px in the pose's own coordinates. */
  readonly width: number;
  readonly cap: Cap;
  readonly join: Join;
  /** Longest mitre as a multiple of the width, as in SVG. */
  readonly miter: number;
  /** Lengths of dashes and gaps in turn, px; empty for an unbroken stroke. */
  readonly dash: readonly number[];
  readonly dashOffset: number;
}

/** Where a part's contours come from while they are still adjustable: a shape's parameters, or a glyph of a text. */
export type PartSource = ShapeSource | { readonly kind: 'glyph'; readonly text: Id; readonly index: number };

/** An outline with its paint. */
export interface Part {
  readonly id: Id;
  readonly name: string;
  readonly contours: readonly ContourRecord[];
  readonly fillRule: FillRule;
  readonly fill: Paint | null;
  readonly stroke: Stroke | null;
  /** Left out once the part consists of points. */
  readonly source?: PartSource;
}

/** Two places that belong together: on the outline that a shift leaves, and on the one that it reaches. */
export interface PlaceTie {
  readonly id: Id;
  readonly a: Place;
  readonly b: Place;
}

/** Two contours that belong together, by id; null: the other one goes, or comes, alone. */
export interface ContourPairing {
  readonly a: Id | null;
  readonly b: Id | null;
}

/** A straight line along which a solid of the pose that a shift leaves, or reaches, is divided; px in the pose's own coordinates. */
export interface CutLine {
  readonly id: Id;
  readonly side: 'from' | 'to';
  readonly line: readonly [x0: number, y0: number, x1: number, y1: number];
}

/** A contour that is wiped in or away when it has no partner, in a direction in degrees clockwise, 0 to the right. */
export interface ContourWipe {
  readonly contour: Id;
  readonly angle: number;
}

/** Which way the partner of a contour of the pose that the shift leaves is run. */
export interface ContourDirection {
  readonly contour: Id;
  readonly direction: Exclude<DirectionChoice, 'auto'>;
}

/** How a point of the in-between, and further its handles, are moved; px in the coordinates of the pose that the shift leaves. */
export interface TouchUpPoint {
  readonly place: Place;
  readonly by: readonly [x: number, y: number];
  readonly before: readonly [x: number, y: number];
  readonly after: readonly [x: number, y: number];
}

/** A correction of the in-between at a progress, which it then passes. */
export interface TouchUpRecord {
  readonly id: Id;
  readonly progress: number;
  readonly points: readonly TouchUpPoint[];
}

/** A way that was chosen among those that the program offered. */
export interface TakenWay {
  /** Points of its half-way picture, x and y in turn, as shares of the picture's size from its middle: by them it is found again. */
  readonly look: readonly number[];
  /** The contours that it pairs, for when something else is decided. */
  readonly pairs: readonly ContourPairing[];
}

/** What the user decided about a shift's match; all else is automatic. */
export interface MatchChoices {
  readonly direction: DirectionChoice;
  /** Single contours that go before `direction`. */
  readonly directions: readonly ContourDirection[];
  /** Start points that belong together, at most one for each contour of the pose that the shift leaves. */
  readonly starts: readonly PlaceTie[];
  readonly ties: readonly PlaceTie[];
  readonly pairs: readonly ContourPairing[];
  readonly wipes: readonly ContourWipe[];
  readonly cuts: readonly CutLine[];
  /** Where an open contour becomes a closed one: the closed one is cut open, or the open one closed by its chord. */
  readonly opening: Opening;
  /** When unpaired contours go and come. */
  readonly turns: Turns;
  /** How much the middle is rounded, 0 to 18; null: only where everything else folds or is unhealthy. */
  readonly softness: number | null;
  /** Places of the outline that the shift leaves at which it is to have a point. */
  readonly points: readonly Place[];
  /** Points set evenly, so many on each contour; null: where the outlines have theirs. */
  readonly even: number | null;
  readonly touchUps: readonly TouchUpRecord[];
  /** The alternative that was taken; gone when something is decided by which another way is found. */
  readonly taken: TakenWay | null;
}

export type ShiftMethod = Method | 'auto' | 'numbers' | 'points';

/** The change from one pose to another. */
export interface Shift {
  readonly id: Id;
  readonly from: Id;
  readonly to: Id;
  /** s */
  readonly duration: number;
  readonly easing: Easing;
  /**
   * auto: the one that looks best; numbers: adjustable shapes of one kind go by their numbers; points: each point goes straight to the one with its number,
   * where both poses have as many of everything. All else as with auto.
   */
  readonly method: ShiftMethod;
  readonly blend: BlendSpace;
  readonly match: MatchChoices;
}
