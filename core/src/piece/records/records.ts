import type { Easing } from '../../easing';
import type { LaneKindId } from '../../lane';
import type { DirectionChoice, Opening, UnpairedOrder } from '../../match';
import type { Method } from '../../morph';
import type { FillRule, Place } from '../../outline';
import type { BlendSpace, Cap, Join, Paint } from '../../paint';
import type { ShapeNumberId, ShapeSource } from '../../shapes';

/**
 * The records of a piece: flat tables by id, with order lists. Coordinates in px, y down; times in seconds; angles in degrees clockwise;
 * colours as CSS Color 4 strings. The JSON schema beside this file says the same to machines.
 */
export const PIECE_VERSION = 12;

export type Id = string;

export interface Canvas {
  readonly width: number;
  readonly height: number;
  /** Frames per second as a fraction: 24000/1001 is { num: 24000, den: 1001 }. */
  readonly rate: { readonly num: number; readonly den: number };
  /** null: transparent. */
  readonly background: string | null;
}

/** Guides and grid: aids for drawing that are never part of a picture. */
export interface DrawingAids {
  readonly guides: readonly Guide[];
  readonly grid: { readonly size: number; readonly shown: boolean };
  readonly thirds: boolean;
  readonly safeArea: boolean;
}

export interface Guide {
  readonly id: Id;
  /** x: a vertical line at this x; y: a horizontal line at this y. */
  readonly axis: 'x' | 'y';
  readonly at: number;
}

/** A dimmed picture to trace, as a box in canvas px. The picture itself is an asset on the server. */
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

/** Figures that are selected and moved together. */
export interface FigureGroup {
  readonly id: Id;
  readonly name: string;
}

export const TEXT_ALIGNS = ['start', 'middle', 'end'] as const;

/** A text; each of its glyphs is one part of the pose. (x, y) is the start of its baseline in the pose's own coordinates, px. */
export interface TextRecord {
  readonly id: Id;
  readonly content: string;
  /** Name of a shipped font, or `asset:` and the id of an uploaded one. */
  readonly font: string;
  readonly size: number;
  /** Letter spacing in thousandths of the font size. */
  readonly tracking: number;
  readonly kerning: boolean;
  /** Line height as a multiple of the font size. */
  readonly lineSpacing: number;
  readonly align: (typeof TEXT_ALIGNS)[number];
  readonly x: number;
  readonly y: number;
}

export const PLAYBACKS = ['loop', 'once', 'back', 'stretch'] as const;
/** loop: repeats. once: stops at the end. back: forwards and backwards, repeating. stretch: once from the start, then a part of it repeats. */
export type Playback = (typeof PLAYBACKS)[number];

/** A moment of a piece: seconds after the start of a figure's stop, or after the start of the piece. */
export interface Moment {
  readonly at: { readonly figure: Id; readonly stop: StopName } | null;
  readonly after: number;
}

/** The part that repeats, from one moment to another. */
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
  /** The part that repeats when `playback` is 'stretch'; left out: everything. */
  readonly stretch?: Stretch;
  /** The moment shown where nothing moves, such as in thumbnails; left out: the longest hold except the first pose's. */
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

/** One thing that changes its shape over time. */
export interface Figure {
  readonly id: Id;
  readonly name: string;
  /** All its poses. */
  readonly poses: readonly Id[];
  /** Its shifts in playing order. Each starts from the pose that the previous one reached. Empty with a single pose. */
  readonly rail: readonly Id[];
  readonly group: Id | null;
  /** The figure that clips this one: only what lies inside its filled area is visible. */
  readonly clip: Id | null;
  readonly opacity: number;
  /** Hidden figures are not drawn, but they can still clip others. */
  readonly hidden: boolean;
  readonly locked: boolean;
  /** Shown faintly in the editor; outputs ignore it. */
  readonly seeThrough: boolean;
  /** Centre of rotation and scaling, if set by hand: canvas px, before motion; null: its middle. */
  readonly pivot: readonly [x: number, y: number] | null;
  /** Its middle when it was first rotated or scaled, in the same px; null until then. Editing outlines does not move it. */
  readonly middle: readonly [x: number, y: number] | null;
  /** When its first pose starts, s. Figures may start one after another. */
  readonly start: number;
  /** Before its first pose and after its last, the figure is either held there or hidden. */
  readonly before: Outside;
  readonly after: Outside;
}

export const OUTSIDE = ['held', 'hidden'] as const;
export type Outside = (typeof OUTSIDE)[number];

/** Adjustable shapes add a lane for each of their numbers; it applies to all shapes of that kind in the figure. */
export type LaneProperty = LaneKindId | ShapeNumberId;

/**
 * A stop of a figure's rail: a pose and the shift that reaches it (null for the first). A rail may visit a pose twice, and its lanes may differ
 * each time.
 */
export interface StopName {
  readonly pose: Id;
  readonly shift: Id | null;
}

/** A value of a lane. */
export interface LaneKey {
  readonly id: Id;
  /** null: a key of the canvas, which has no stops. */
  readonly stop: StopName | null;
  /** Seconds after the start of the stop, or of the piece; negative: before it. null: the value stays level for the whole hold. */
  readonly after: number | null;
  /**
   * position: x, y, px. turn: degrees clockwise. scale: x, y, factors. opacity: 0 to 1. All are added to what placement and figure give.
   * fill, stroke, background: red, green, blue and alpha of sRGB, 0 to 1. They replace the paint of parts and canvas, and so does `strokeWidth`, px.
   * drawn: start, end and offset, as shares of each stroked contour's length. softness: blur as a standard deviation, px.
   * Numbers of adjustable shapes replace the shapes' own, in the unit of their parameter.
   */
  readonly value: readonly number[];
  /** The easing to the next key; null: that of the shift it spans. */
  readonly easing: Easing | null;
  /** Bezier handles of the motion path before and after this key, px from the key's position. Left out: straight. */
  readonly path?: { readonly in?: readonly [x: number, y: number]; readonly out?: readonly [x: number, y: number] };
  /** Shared by keys that one action added; they are removed together. */
  readonly set?: Id;
}

export const COLOUR_CHANGES = ['same', 'lighter', 'darker', 'complementary'] as const;
export type ColourChange = (typeof COLOUR_CHANGES)[number];

/** A lane that follows another lane, of a figure or of the canvas (null). */
export interface Follow {
  readonly figure: Id | null;
  readonly property: LaneProperty;
  /** Which of its numbers it follows; null: all. */
  readonly axis: number | null;
  /** The other lane's deviation from its neutral value is multiplied by `factor`, then `offset` is added. */
  readonly factor: number;
  readonly offset: number;
  /** Delay behind the other lane, s. */
  readonly delay: number;
  /** For colours. */
  readonly colour: ColourChange;
}

/** Smooth seeded noise: the largest deviation of each number, and the changes of direction per second. */
export interface Drift {
  readonly amount: readonly number[];
  readonly speed: number;
  readonly seed: number;
}

export const PULSE_SHAPES = ['sine', 'saw', 'beat', 'square'] as const;
export type PulseShape = (typeof PULSE_SHAPES)[number];

/** A repeating beat: its period, its start and its end in s (null: for ever), and how much it adds to each number. */
export interface Pulse {
  readonly shape: PulseShape;
  readonly period: number;
  readonly from: number;
  readonly until: number | null;
  readonly amount: readonly number[];
}

/** A property of a figure, or of the canvas, over time, on top of its placement. A figure has at most one lane of each property. */
export interface LaneRecord {
  readonly id: Id;
  /** null: a lane of the canvas. */
  readonly figure: Id | null;
  readonly property: LaneProperty;
  /** In any order: the rail gives their times. Empty if the lane only follows, drifts or pulses. */
  readonly keys: readonly LaneKey[];
  /** For position: the figure rotates to face along its path. */
  readonly along?: boolean;
  readonly follow?: Follow;
  readonly drift?: Drift;
  readonly pulse?: Pulse;
}

export const FIT_RULES = ['none', 'longest', 'area', 'eye'] as const;
export const CENTRE_RULES = ['none', 'area', 'box', 'circle'] as const;
export const FIT_TARGETS = ['previous', 'canvas', 'box'] as const;

/** How an arriving drawing finds its size and place. */
export interface PlacementRule {
  readonly centre: (typeof CENTRE_RULES)[number];
  readonly fit: (typeof FIT_RULES)[number];
  /** What it is fitted to: the figure's previous pose, the canvas with a margin, or a box. */
  readonly to: (typeof FIT_TARGETS)[number];
  /** The box when `to` is 'box': left, top, width, height in canvas px. */
  readonly box?: readonly [x: number, y: number, width: number, height: number];
  /** The letter, or run of spaces, of a text that the box follows. It keeps its last place when the text is deleted. */
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
  /** Length of its hold, s. */
  readonly hold: number;
  readonly placement: Placement;
  /** Painting order, bottom first. */
  readonly parts: readonly Id[];
}

export const ANCHOR_KINDS = ['corner', 'smooth', 'symmetric'] as const;
/** corner: handles are free. smooth: they stay on one line. symmetric: also equally long. */
export type AnchorKind = (typeof ANCHOR_KINDS)[number];

export interface Anchor {
  readonly id: Id;
  readonly at: readonly [x: number, y: number];
  /** Handles, absolute; left out where the handle lies on the anchor. A piece without both its handles is a straight line. */
  readonly in?: readonly [x: number, y: number];
  readonly out?: readonly [x: number, y: number];
  /** The anchor that this one was copied from. */
  readonly origin?: Id;
  /** What moving one handle does to the other; left out: it is judged from the handles. */
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
  /** Mitre limit as a multiple of the width, as in SVG. */
  readonly miter: number;
  /** Alternating lengths of dashes and gaps, px; empty for a solid line. */
  readonly dash: readonly number[];
  readonly dashOffset: number;
}

/** The source of a part's contours while they are adjustable: a shape's parameters, or a glyph of a text. */
export type PartSource = ShapeSource | { readonly kind: 'glyph'; readonly text: Id; readonly index: number };

/** An outline with its paint. */
export interface Part {
  readonly id: Id;
  readonly name: string;
  readonly contours: readonly ContourRecord[];
  readonly fillRule: FillRule;
  readonly fill: Paint | null;
  readonly stroke: Stroke | null;
  /** Left out once the part has been turned into points. */
  readonly source?: PartSource;
}

/** Two places that correspond: one on the first outline of a shift, one on the second. */
export interface PlaceTie {
  readonly id: Id;
  readonly a: Place;
  readonly b: Place;
}

/** Two contours that become each other, by id; null: the other one leaves, or arrives, alone. */
export interface ContourPairing {
  readonly a: Id | null;
  readonly b: Id | null;
}

/** A straight line that cuts a solid of the first or the second pose of a shift; px in the pose's own coordinates. */
export interface CutLine {
  readonly id: Id;
  readonly side: 'from' | 'to';
  readonly line: readonly [x0: number, y0: number, x1: number, y1: number];
}

/** The direction in which a contour without a partner is wiped in or away; degrees clockwise, 0 to the right. */
export interface ContourWipe {
  readonly contour: Id;
  readonly angle: number;
}

/** The direction in which the partner of a contour of the first pose is followed. */
export interface ContourDirection {
  readonly contour: Id;
  readonly direction: Exclude<DirectionChoice, 'auto'>;
}

/** How far a point of the in-between is moved, and how much further its handles; px in the first pose's coordinates. */
export interface TouchUpPoint {
  readonly place: Place;
  readonly by: readonly [x: number, y: number];
  readonly before: readonly [x: number, y: number];
  readonly after: readonly [x: number, y: number];
}

/** A touch-up: the in-between passes through the corrected outline at this progress. */
export interface TouchUpRecord {
  readonly id: Id;
  readonly progress: number;
  readonly points: readonly TouchUpPoint[];
}

/** An alternative that the user chose from those on offer. */
export interface TakenWay {
  /** Points of its half-way picture, by which it is found again: x and y in turn, from the middle, as shares of the picture's size. */
  readonly look: readonly number[];
  /** The contours that it pairs, for when another decision changes the list. */
  readonly pairs: readonly ContourPairing[];
}

/** The user's decisions about a shift's match. Everything else is automatic. */
export interface MatchChoices {
  readonly direction: DirectionChoice;
  /** Directions of single contours; they override `direction`. */
  readonly directions: readonly ContourDirection[];
  /** Start points that correspond, at most one for each contour of the first pose. */
  readonly starts: readonly PlaceTie[];
  readonly ties: readonly PlaceTie[];
  readonly pairs: readonly ContourPairing[];
  readonly wipes: readonly ContourWipe[];
  readonly cuts: readonly CutLine[];
  /** How an open contour becomes a closed one: the closed one is cut open, or the open one is closed by its chord. */
  readonly opening: Opening;
  /** When contours without a partner leave and arrive. */
  readonly unpairedOrder: UnpairedOrder;
  /** How much the in-between is rounded, 0 to 18; null: only if everything else folds or is unhealthy. */
  readonly smoothing: number | null;
  /** Places on the first outline that get an extra point. */
  readonly points: readonly Place[];
  /** The count of evenly spaced points on each contour; null: points stay where the outlines have theirs. */
  readonly even: number | null;
  readonly touchUps: readonly TouchUpRecord[];
  /** The chosen alternative; removed when another decision leads to a different list. */
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
   * auto: the best-looking one. numbers: adjustable shapes of one kind change by their numbers. points: each point goes straight to the one with the same index,
   * if both poses have equally many. Anything else is done as with auto.
   */
  readonly method: ShiftMethod;
  readonly blend: BlendSpace;
  readonly match: MatchChoices;
}
