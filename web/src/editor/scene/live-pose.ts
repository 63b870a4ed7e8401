import {
  type Anchor,
  type ContourRecord,
  type FramePart,
  type Id,
  type Matrix,
  type Part,
  type Placement,
  segmentAt,
  stillParts,
  writeSegment,
} from '@core';

/** A pose that a gesture works on: the same picture as the canvas draws, written over in place. */
export class LivePose {
  parts: FramePart[];

  constructor(
    private placement: Placement,
    private records: readonly Part[],
  ) {
    this.parts = this.build();
  }

  /** Shows the pose with another placement or other parts. */
  show(placement: Placement, records: readonly Part[] = this.records): void {
    this.placement = placement;
    this.records = records;
    this.parts = this.build();
  }

  private build(): FramePart[] {
    return stillParts(this.placement, this.records);
  }
}

/** Anchors of one contour that a gesture moves; only the segments beside a changed anchor are computed again. */
export class LiveContour {
  readonly anchors: Anchor[];
  private readonly changed = new Set<number>();

  /** `points` are those of the drawn part, `at` the index where the contour begins. */
  constructor(
    readonly part: Id,
    readonly contour: ContourRecord,
    private readonly matrix: Matrix,
    private readonly points: Float64Array,
    private readonly at: number,
  ) {
    this.anchors = [...contour.anchors];
  }

  /** Puts another anchor in the place of anchor `i`. */
  set(i: number, anchor: Anchor): void {
    this.anchors[i] = anchor;
    this.changed.add(i);
    const { closed } = this.contour;
    const n = this.anchors.length;
    const segments = closed ? n : n - 1;
    if (segments < 1) return;
    if (i < segments) this.write(i);
    if (i > 0) this.write(i - 1);
    else if (closed) this.write(segments - 1);
  }

  private write(segment: number): void {
    const n = this.anchors.length;
    writeSegment(
      this.anchors[segment],
      this.anchors[(segment + 1) % n],
      this.matrix,
      this.points,
      this.at + segmentAt(segment),
    );
  }

  /** The changed anchors by their index. */
  changes(): [number, Anchor][] {
    return [...this.changed].map((i) => [i, this.anchors[i]]);
  }
}
