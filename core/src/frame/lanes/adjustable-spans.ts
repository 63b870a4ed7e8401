import { easedKeys, easingSegments } from '../../easing';
import { RampTime } from '../../lane';
import {
  type Id,
  type Part,
  type Piece,
  type Placement,
  type Pose,
  placementMatrix,
  type RailTimeline,
  type Shift,
} from '../../piece';
import { type ShapeSource, shapeBetween } from '../../shapes';
import type { PartPlan, PoseShiftPlan } from '../plan';
import { mixedPlacement, nearShare, type PlacedPaint, partPaint, shapeOf } from '../plan';
import { changesOfBuild, outlineInStretch, type ShapeWay } from './adjustable-way';
import { breaksOf } from './lane-book';
import { type PartLanes, partLanes } from './part-lanes';
import { shiftLane, stillLane } from './pose-lanes';
import { changesShape, goesByNumbers, type ShapeLane, shapeAt } from './shape-lanes';
import { type FigureSpan, lateSpan } from './span';

/** A part while its figure's shapes change: a shape on its way, or what has nothing to do with them. */
type SpanPart =
  | { readonly way: ShapeWay; readonly lanes: (plan: PartPlan['plan']) => PartLanes }
  | { readonly way?: undefined; readonly lanes: () => PartLanes };

const LINEAR = { kind: 'linear' } as const;

/**
 * The spans of a figure whose adjustable shapes have lanes for their numbers. While a pose stands, and on shifts by the numbers, the shapes are what the lanes
 * say at each moment. A shift that goes otherwise begins with the shape as it is then, and reaches it as it will be (its plan is made so). Where a shape gets
 * other points, or more of them, a new span begins.
 */
export class ShapeSpans {
  private readonly spans: FigureSpan[] = [];

  constructor(
    private readonly piece: Piece,
    private readonly figureId: Id,
    private readonly shapes: readonly ShapeLane[],
    private readonly planOf: (shift: Shift) => PoseShiftPlan | undefined,
  ) {}

  /** From `beginning`, when the first pose is seen, to `end`, until when the last one is. */
  of({ stops, spans }: RailTimeline, beginning: number, end: number): readonly FigureSpan[] {
    stops.forEach((stop, i) => {
      const pose = this.piece.poses[stop.poseId];
      const start = i === 0 ? beginning : stop.start;
      const span = spans[i];
      if (!span) {
        this.stand(pose, start, Math.max(end, stop.start + stop.hold));
        return;
      }
      const { shift } = span;
      const plan = this.planOf(shift);
      const time = new RampTime(span.start, span.end, shift.easing);
      if (plan && goesByNumbers(this.piece, this.figureId, shift)) {
        this.add(
          shift.id,
          start,
          span.end,
          time,
          plan.parts.map((part) => this.shifted(shift, part, time)),
        );
        return;
      }
      this.stand(pose, start, span.start);
      if (plan) {
        const parts = plan.parts.map((part): SpanPart => ({ lanes: () => shiftLane(this.piece, shift, part, time) }));
        this.add(shift.id, span.start, span.end, time, parts);
        return;
      }
      const middle = (span.start + span.end) / 2;
      this.stand(pose, span.start, middle);
      this.stand(this.piece.poses[shift.to], middle, span.end);
    });
    return this.spans;
  }

  /** A pose while it stands. */
  private stand({ placement, parts }: Pose, start: number, end: number): void {
    if (!(end > start) && this.spans.length > 0) return;
    const time = new RampTime(end, end, LINEAR);
    this.add(
      undefined,
      start,
      end,
      time,
      parts.map((id) => this.standing(this.piece.parts[id], placement, time)),
    );
  }

  private standing(part: Part, placement: Placement, time: RampTime): SpanPart {
    const source = shapeOf(part);
    if (!source || !changesShape(this.shapes, source)) return { lanes: () => stillLane(placement, part) };
    const matrix = placementMatrix(placement);
    const way = this.way(part, source, time, (seconds) => ({
      shape: shapeAt(source, this.shapes, seconds),
      matrix,
    }));
    const paint = (): PlacedPaint => ({ part, placement });
    return {
      way,
      lanes: (plan) => partLanes({ a: part.id, b: part.id, plan }, partPaint(paint(), paint()), time, 'oklab'),
    };
  }

  /** A part of a shift by the numbers. */
  private shifted(shift: Shift, part: PartPlan, time: RampTime): SpanPart {
    const { parts, poses } = this.piece;
    const [a, b] = [part.a, part.b].map((id) => (id === undefined ? undefined : shapeOf(parts[id])));
    const known = a && b && changesShape(this.shapes, a) && shapeBetween(a, b, 0.5) !== undefined;
    if (!known || part.a === undefined) return { lanes: () => shiftLane(this.piece, shift, part, time) };
    const [from, to] = [poses[shift.from].placement, poses[shift.to].placement];
    const way = this.way(parts[part.a], a, time, (seconds) => {
      const share = nearShare(time.progressAt(seconds));
      const shape = shapeBetween(a, b, share) as ShapeSource;
      return {
        shape: shapeAt(shape, this.shapes, seconds),
        matrix: placementMatrix(mixedPlacement(from, to, share)),
      };
    });
    return { way, lanes: (plan) => shiftLane(this.piece, shift, { ...part, plan }, time) };
  }

  private way({ fillRule }: Part, { kind }: ShapeSource, time: RampTime, at: ShapeWay['at']): ShapeWay {
    const own = this.shapes.filter(({ number }) => number.kind === kind).flatMap(({ lane }) => breaksOf(lane));
    const bends = easedKeys(easingSegments(time.easing), [0, 1]).map(
      (key) => time.start + (time.end - time.start) * key.time,
    );
    return { fillRule, breaks: [...own, time.start, ...bends, time.end], at };
  }

  /** One span, or several where shapes are built otherwise on the way. */
  private add(
    shiftId: string | undefined,
    start: number,
    end: number,
    time: RampTime,
    parts: readonly SpanPart[],
  ): void {
    const changes = parts.flatMap(({ way }) => (way ? changesOfBuild(way, start, end) : []));
    const marks = [start, ...[...new Set(changes)].sort((p, q) => p - q), end];
    for (let i = 0; i + 1 < marks.length; i++) {
      const stretch = { start: marks[i], end: marks[i + 1] };
      const make = (k: number): PartLanes => {
        const part = parts[k];
        if (!part.way) return part.lanes();
        const { plan, outline } = outlineInStretch(part.way, stretch);
        return { ...part.lanes(plan), outline, byLanes: true };
      };
      this.spans.push(lateSpan({ ...(shiftId !== undefined && { shiftId }), ...stretch, time }, parts.length, make));
    }
  }
}
