import type { Easing } from '../easing';
import { type Id, type Piece, pieceDuration, railTimeline, type Shift } from '../piece';
import type { PartPlan } from './part-paint';
import { type PoseShiftPlan, planPoseShift, planStill } from './part-plans';
import { poseInput, shiftInput } from './shift-input';

/** A stretch of a figure's time that one plan shows: a hold, then the shift that leaves it. Times in s. */
export interface FigureSpan {
  readonly shiftId?: Id;
  readonly start: number;
  /** When the hold ends and the shift begins. */
  readonly holdEnd: number;
  readonly end: number;
  readonly easing: Easing;
  readonly parts: readonly PartPlan[];
}

export interface CompiledFigure {
  readonly id: Id;
  readonly spans: readonly FigureSpan[];
  readonly opacity: number;
  readonly hidden: boolean;
  /** Index of the figure inside which it is seen, or −1. */
  readonly clip: number;
}

/** A piece made ready for sampling: no matching or parsing is left to do. */
export interface CompiledPiece {
  readonly width: number;
  readonly height: number;
  readonly background: string | null;
  readonly duration: number;
  readonly loop: boolean;
  readonly figures: readonly CompiledFigure[];
}

const LINEAR: Easing = { kind: 'linear' };

/**
 * Compiles a piece. `planOf` supplies shift plans; where it has none yet, the pose that the shift leaves is shown until the middle, then the
 * one that it reaches. The default plans on the spot.
 */
export function compilePiece(
  piece: Piece,
  planOf: (shift: Shift) => PoseShiftPlan | undefined = (shift) => planPoseShift(shiftInput(piece, shift)),
): CompiledPiece {
  const figures = piece.figureOrder.map((id): CompiledFigure => {
    const timeline = railTimeline(piece, piece.figures[id]);
    const spans: FigureSpan[] = [];
    const still = (poseId: Id): readonly PartPlan[] => planStill(poseInput(piece, piece.poses[poseId])).parts;
    timeline.stops.forEach((stop, i) => {
      const span = timeline.spans[i];
      const holdEnd = stop.start + stop.hold;
      if (!span) {
        // The last stop is shown by the end of the last shift, unless there is no shift at all.
        if (i === 0)
          spans.push({ start: stop.start, holdEnd, end: holdEnd, easing: LINEAR, parts: still(stop.poseId) });
        return;
      }
      const plan = planOf(span.shift);
      if (plan) {
        spans.push({
          shiftId: span.shift.id,
          start: stop.start,
          holdEnd,
          end: span.end,
          easing: span.shift.easing,
          parts: plan.parts,
        });
        return;
      }
      const middle = (span.start + span.end) / 2;
      spans.push({ start: stop.start, holdEnd: middle, end: middle, easing: LINEAR, parts: still(span.shift.from) });
      spans.push({ start: middle, holdEnd: span.end, end: span.end, easing: LINEAR, parts: still(span.shift.to) });
    });
    const { opacity, hidden, clip } = piece.figures[id];
    return { id, spans, opacity, hidden, clip: clip === null ? -1 : piece.figureOrder.indexOf(clip) };
  });
  const { width, height, background } = piece.canvas;
  return { width, height, background, duration: pieceDuration(piece), loop: piece.playback === 'loop', figures };
}
