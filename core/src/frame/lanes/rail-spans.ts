import { RampTime } from '../../lane';
import { type Id, type Piece, pieceDuration, railTimeline, type Shift } from '../../piece';
import type { PoseShiftPlan } from '../plan';
import { ShapeSpans } from './adjustable-spans';
import type { LaneBook } from './lane-book';
import { shiftLane, stillLane } from './pose-lanes';
import { shapeLanes } from './shape-lanes';
import { type FigureSpan, lateSpan } from './span';

/** The spans of a figure, in the order of time. Where `planOf` has no plan of a shift, its two poses stand for it. */
export function figureSpans(
  piece: Piece,
  figureId: Id,
  planOf: (shift: Shift) => PoseShiftPlan | undefined,
  book: LaneBook,
): readonly FigureSpan[] {
  const timeline = railTimeline(piece, piece.figures[figureId]);
  // Held before its first pose, it stands there from the beginning.
  const beginning = piece.figures[figureId].before === 'held' ? 0 : piece.figures[figureId].start;
  const shapes = shapeLanes(piece, figureId, book);
  if (shapes.length > 0)
    return new ShapeSpans(piece, figureId, shapes, planOf).of(timeline, beginning, pieceDuration(piece));
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
      const { id, easing } = span.shift;
      const time = new RampTime(stop.start + stop.hold, span.end, easing);
      const times = { shiftId: id, start: i === 0 ? beginning : stop.start, end: span.end, time };
      const { parts } = plan;
      spans.push(lateSpan(times, parts.length, (i) => shiftLane(piece, span.shift, parts[i], time)));
      return;
    }
    const middle = (span.start + span.end) / 2;
    still(span.shift.from, i === 0 ? beginning : stop.start, middle);
    still(span.shift.to, middle, span.end);
  });
  return spans;
}
