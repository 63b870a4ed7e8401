import { blendNumbers, type Lane, levelLane, PROPERTIES, RampTime } from '../lane';
import { stillPlan } from '../morph';
import type { BlendSpace } from '../paint';
import {
  type Id,
  type Part,
  type Piece,
  type Placement,
  type Playback,
  type Pose,
  pieceDuration,
  railTimeline,
  type Shift,
  stretchOf,
} from '../piece';
import { LaneBook, timesLane } from './lane-book';
import { compileMotion, type MotionLanes } from './motion';
import { type OverLanes, overLanes } from './over-paint';
import { type PartLanes, partLanes } from './part-lanes';
import { type PlacedPaint, paintOf, partPaint } from './part-paint';
import type { PartPlan, PoseShiftPlan } from './part-plans';
import { placedParts } from './placed-parts';

/** A stretch of a figure's time that one plan shows: a hold, then the shift that leaves it. Times in s. */
export interface FigureSpan {
  readonly shiftId?: Id;
  readonly start: number;
  readonly end: number;
  /** When the hold ends and the shift begins, when it ends, and its easing. */
  readonly time: RampTime;
  /** Laid out when they are first asked for: of a long chain or of thousands of parts, only what is looked at. */
  readonly parts: readonly PartLanes[];
  /** Lays parts out until all are there or `isLate` says so; tells whether all are. */
  layOut(isLate: () => boolean): boolean;
}

/** How many parts are laid out before the time is looked at. */
const PARTS_A_LOOK = 32;
const never = (): boolean => false;

/** A span of `count` parts that are made by the first who asks for them. */
function lateSpan(
  times: Omit<FigureSpan, 'parts' | 'layOut'>,
  count: number,
  make: (part: number) => PartLanes,
): FigureSpan {
  const made: PartLanes[] = [];
  const layOut = (isLate: () => boolean): boolean => {
    while (made.length < count) {
      made.push(make(made.length));
      if (made.length % PARTS_A_LOOK === 0 && made.length < count && isLate()) return false;
    }
    return true;
  };
  return {
    ...times,
    get parts() {
      layOut(never);
      return made;
    },
    layOut,
  };
}

export interface CompiledFigure {
  readonly id: Id;
  /** What the user calls it. */
  readonly name: string;
  readonly spans: readonly FigureSpan[];
  /** When it is seen, s: before and after it there is nothing of it. */
  readonly from: number;
  readonly until: number;
  /** null: it does not move as a whole. */
  readonly motion: MotionLanes | null;
  readonly opacity: Lane;
  /** null: its parts are drawn in their own paint. */
  readonly over: OverLanes | null;
  readonly hidden: boolean;
  /** Index of the figure inside which it is seen, or −1. */
  readonly clip: number;
}

/** A piece made ready for sampling: no matching is left to do. */
export interface CompiledPiece {
  readonly width: number;
  readonly height: number;
  readonly background: string | null;
  /** The background over time, in place of the one above; null where the canvas has no such lane. */
  readonly ground: Lane | null;
  readonly duration: number;
  /** Frames per second. */
  readonly rate: number;
  readonly playback: Playback;
  /** What is played again and again, s: all of it, or the named stretch. */
  readonly stretch: readonly [from: number, until: number];
  readonly figures: readonly CompiledFigure[];
}

/**
 * Compiles a piece. `planOf` supplies shift plans; where it has none yet, the pose that the shift leaves is shown until the middle, then the
 * one that it reaches. The default plans on the spot.
 */
export function compilePiece(piece: Piece, planOf: (shift: Shift) => PoseShiftPlan | undefined): CompiledPiece {
  const book = new LaneBook(piece);
  const figures = piece.figureOrder.map((id): CompiledFigure => {
    const lane = book.lane(id, 'opacity');
    const { name, opacity, hidden, clip, start, before, after } = piece.figures[id];
    return {
      id,
      name,
      spans: spansOf(piece, id, planOf),
      from: before === 'hidden' ? start : 0,
      until: after === 'hidden' ? railTimeline(piece, piece.figures[id]).duration : Number.POSITIVE_INFINITY,
      motion: compileMotion(piece, id, book),
      opacity: lane
        ? timesLane(lane, opacity)
        : levelLane(blendNumbers([opacity], [opacity], PROPERTIES.opacity.range)),
      over: overLanes(book, id),
      hidden,
      clip: clip === null ? -1 : piece.figureOrder.indexOf(clip),
    };
  });
  const { width, height, background, rate } = piece.canvas;
  return {
    width,
    height,
    background,
    ground: book.lane(null, 'background') ?? null,
    duration: pieceDuration(piece),
    rate: rate.num / rate.den,
    playback: piece.playback,
    stretch: piece.playback === 'stretch' ? stretchOf(piece) : [0, pieceDuration(piece)],
    figures,
  };
}

function spansOf(piece: Piece, figureId: Id, planOf: (shift: Shift) => PoseShiftPlan | undefined): FigureSpan[] {
  const timeline = railTimeline(piece, piece.figures[figureId]);
  // Held before its first pose, it stands there from the beginning.
  const beginning = piece.figures[figureId].before === 'held' ? 0 : piece.figures[figureId].start;
  const spans: FigureSpan[] = [];
  const still = (poseId: Id, start: number, end: number): void => {
    const time = new RampTime(end, end, { kind: 'linear' });
    const { placement, parts } = piece.poses[poseId];
    spans.push(lateSpan({ start, end, time }, parts.length, (i) => stillLane(placement, piece.parts[parts[i]])));
  };
  timeline.stops.forEach((stop, i) => {
    const span = timeline.spans[i];
    if (!span) {
      // The last stop is shown by the end of the last shift, unless there is no shift at all.
      if (i === 0) still(stop.poseId, beginning, stop.start + stop.hold);
      return;
    }
    const plan = planOf(span.shift);
    if (plan) {
      const { id, easing, blend } = span.shift;
      const time = new RampTime(stop.start + stop.hold, span.end, easing);
      const times = { shiftId: id, start: i === 0 ? beginning : stop.start, end: span.end, time };
      const { parts } = plan;
      spans.push(lateSpan(times, parts.length, (i) => shiftLane(piece, span.shift, parts[i], time, blend)));
      return;
    }
    const middle = (span.start + span.end) / 2;
    still(span.shift.from, i === 0 ? beginning : stop.start, middle);
    still(span.shift.to, middle, span.end);
  });
  return spans;
}

/**
 * One shift alone as a piece of 1 s that goes evenly: its seconds are the shift's progress. The outlines lie where they lie on the canvas; nothing is behind
 * them.
 */
export function compileShift(piece: Piece, shift: Shift, plan: PoseShiftPlan): CompiledPiece {
  const time = new RampTime(0, 1, { kind: 'linear' });
  const span = lateSpan({ shiftId: shift.id, start: 0, end: 1, time }, plan.parts.length, (i) =>
    shiftLane(piece, shift, plan.parts[i], time, shift.blend),
  );
  const opacity = levelLane(blendNumbers([1], [1], PROPERTIES.opacity.range));
  const { width, height } = piece.canvas;
  return {
    width,
    height,
    background: null,
    ground: null,
    duration: 1,
    rate: 60,
    playback: 'once',
    stretch: [0, 1],
    figures: [
      {
        id: shift.id,
        name: '',
        spans: [span],
        from: 0,
        until: Number.POSITIVE_INFINITY,
        motion: null,
        opacity,
        over: null,
        hidden: false,
        clip: -1,
      },
    ],
  };
}

/** A part of a shift in its paint. */
function shiftLane(piece: Piece, { from, to }: Shift, plan: PartPlan, time: RampTime, space: BlendSpace): PartLanes {
  const side = (id: Id | undefined, pose: Pose): PlacedPaint | undefined =>
    id === undefined ? undefined : { part: piece.parts[id], placement: pose.placement };
  return partLanes(plan, paintOf(plan, side(plan.a, piece.poses[from]), side(plan.b, piece.poses[to])), time, space);
}

const STANDING = new RampTime(0, 0, { kind: 'linear' });

/** Parts standing still where a placement puts them, each contour's points in their record's order. */
export const stillLanes = (placement: Placement, parts: readonly Part[]): PartLanes[] =>
  parts.map((part) => stillLane(placement, part));

function stillLane(placement: Placement, part: Part): PartLanes {
  const before = known.get(part);
  if (before?.placement === placement) return before.lanes;
  const placed = { part, placement };
  const [{ outline }] = placedParts({ placement, parts: [part] });
  const plan = { a: part.id, b: part.id, plan: stillPlan(outline) };
  const lanes = partLanes(plan, partPaint(placed, placed), STANDING, 'oklab');
  known.set(part, { placement, lanes });
  return lanes;
}

/** Parts as they stand, as long as they and their placement are the same records: edits elsewhere compile them again and again. */
const known = new WeakMap<Part, { readonly placement: Placement; readonly lanes: PartLanes }>();
