import { blendNumbers, type Lane, levelLane, PROPERTIES, RampTime } from '../../lane';
import {
  type Id,
  type Piece,
  type Playback,
  pieceDuration,
  posterSeconds,
  railTimeline,
  type Shift,
  stretchOf,
} from '../../piece';
import type { PoseShiftPlan } from '../plan';
import { LaneBook, timesLane } from './lane-book';
import { compileMotion, type MotionLanes } from './motion';
import { type OverLanes, overLanes } from './over-paint';
import { shiftLane } from './pose-lanes';
import { figureSpans } from './rail-spans';
import { type FigureSpan, lateSpan } from './span';

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
  /** When the picture stands that stands for the piece, s. */
  readonly poster: number;
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
      spans: figureSpans(piece, id, planOf, book),
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
    poster: posterSeconds(piece),
    figures,
  };
}

/**
 * One shift alone as a piece of 1 s that goes evenly: its seconds are the shift's progress. The outlines lie where they lie on the canvas; nothing is behind
 * them.
 */
export function compileShift(piece: Piece, shift: Shift, plan: PoseShiftPlan): CompiledPiece {
  const time = new RampTime(0, 1, { kind: 'linear' });
  const span = lateSpan({ shiftId: shift.id, start: 0, end: 1, time }, plan.parts.length, (i) =>
    shiftLane(piece, shift, plan.parts[i], time),
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
    poster: 0,
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
