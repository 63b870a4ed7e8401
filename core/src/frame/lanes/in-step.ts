import { SAME_TIME_S } from '../../num';
import { type Id, outlineOfPart, type Piece, type Pose, placementMatrix, railTimeline, type Shift } from '../../piece';
import { boxSize, emptyBox, IDENTITY, includePoint } from '../../vec';
import { LaneBook } from './lane-book';
import { compileMotion, type MotionLanes, motionMatrix, prepareMotion, sampleMotion } from './motion';
import { hasShapeLanes } from './shape-lanes';

/** Anchors of two poses that are nearer than this to each other, px, are at one place. */
const SAME_PLACE_PX = 0.05;
/** Turns and scales nearer than this are one. */
const SAME_FACTOR = 1e-6;
/** Moments of a shift at which two motions are compared. */
const MOMENTS = [0, 0.25, 0.5, 0.75, 1];
/** A shift is planned with so many others in mind, the nearest in painting order: each more takes about a second more for outlines of 64 points. */
const MOST_IN_STEP = 4;

interface TimedShift {
  readonly shift: Shift;
  readonly figure: number;
  readonly start: number;
}

/** The shifts of a piece by when they run. */
class Steps {
  private readonly byTime = new Map<string, TimedShift[]>();
  private readonly byId = new Map<Id, TimedShift>();
  /** Of the poses that were asked about. */
  private readonly places = new Map<Id, Places>();
  private readonly motions = new Map<number, MotionLanes | null>();
  private readonly book: LaneBook;

  constructor(private readonly piece: Piece) {
    this.book = new LaneBook(piece);
    piece.figureOrder.forEach((id, figure) => {
      for (const { shift, start } of railTimeline(piece, piece.figures[id]).spans) {
        const timed = { shift, figure, start };
        this.byId.set(shift.id, timed);
        // What its lanes make of its shapes has edges of its own.
        if (piece.figures[id].hidden || hasShapeLanes(piece, id)) continue;
        const key = timeKey(start, shift);
        const others = this.byTime.get(key);
        if (others) others.push(timed);
        else this.byTime.set(key, [timed]);
      }
    });
  }

  /** Shifts of other figures that begin and end with this one, with the same easing, in painting order. */
  with(shift: Shift): { readonly below: boolean; readonly shift: Shift }[] {
    const own = this.byId.get(shift.id);
    if (!own || hasShapeLanes(this.piece, this.piece.figureOrder[own.figure])) return [];
    return (this.byTime.get(timeKey(own.start, shift)) ?? [])
      .filter(
        (other) =>
          other.figure !== own.figure &&
          this.moveAlike(own, other) &&
          touch(this.placesOf(other.shift.from), this.placesOf(shift.from)) &&
          touch(this.placesOf(other.shift.to), this.placesOf(shift.to)) &&
          !this.areAlike(shift, other.shift),
      )
      .sort((p, q) => Math.abs(p.figure - own.figure) - Math.abs(q.figure - own.figure))
      .slice(0, MOST_IN_STEP)
      .sort((p, q) => p.figure - q.figure)
      .map((other) => ({ below: other.figure < own.figure, shift: other.shift }));
  }

  /** Do two shifts go between the very same outlines, as those of a copy do? They go the same way without knowing of each other. */
  private areAlike(shift: Shift, other: Shift): boolean {
    return (
      shift.method === other.method &&
      this.lookAlike(shift.from, other.from) &&
      this.lookAlike(shift.to, other.to) &&
      textOf(shift.match) === textOf(other.match)
    );
  }

  /** Do their figures move alike while they run? Else their edges part, however alike the outlines are. */
  private moveAlike({ figure, start, shift }: TimedShift, other: TimedShift): boolean {
    const [p, q] = [this.motionOf(figure), this.motionOf(other.figure)];
    if (p === q) return true;
    return MOMENTS.every((share) => {
      const seconds = start + share * shift.duration;
      const [a, b] = [p, q].map((lanes) =>
        lanes ? motionMatrix(sampleMotion(lanes, seconds, prepareMotion(lanes))) : IDENTITY,
      );
      return a.every((v, i) => Math.abs(v - b[i]) < (i < 4 ? SAME_FACTOR : SAME_PLACE_PX));
    });
  }

  private lookAlike(pose: Id, other: Id): boolean {
    return ofPair(alike, this.placesOf(pose), this.placesOf(other), () =>
      sameOutlines(this.piece, this.piece.poses[pose], this.piece.poses[other]),
    );
  }

  private motionOf(figure: number): MotionLanes | null {
    let motion = this.motions.get(figure);
    if (motion === undefined) {
      motion = compileMotion(this.piece, this.piece.figureOrder[figure], this.book);
      this.motions.set(figure, motion);
    }
    return motion;
  }

  private placesOf(pose: Id): Places {
    let places = this.places.get(pose);
    if (!places) {
      places = placesOf(this.piece, this.piece.poses[pose]);
      this.places.set(pose, places);
    }
    return places;
  }
}

/** Easings and choices as text, written once each. */
const texts = new WeakMap<object, string>();

function textOf(record: object): string {
  let text = texts.get(record);
  if (text === undefined) {
    text = JSON.stringify(record);
    texts.set(record, text);
  }
  return text;
}

const timeKey = (start: number, { duration, easing }: Shift): string =>
  `${Math.round(start / SAME_TIME_S)} ${Math.round(duration / SAME_TIME_S)} ${textOf(easing)}`;

const known = new WeakMap<Piece, Steps>();

/**
 * The shifts of other figures that run in step with a shift (same start, duration and easing) and have places of anchors in common with it at
 * both ends, in painting order. Their edges may lie on each other. What is found out about a piece is kept with it.
 */
export function shiftsInStep(piece: Piece, shift: Shift): { readonly below: boolean; readonly shift: Shift }[] {
  if (piece.figureOrder.length < 2) return [];
  let steps = known.get(piece);
  if (!steps) {
    steps = new Steps(piece);
    known.set(piece, steps);
  }
  return steps.with(shift);
}

/** Do two poses consist of the same points in the same order, at the same place? */
function sameOutlines(piece: Piece, p: Pose, q: Pose): boolean {
  if (p.parts.length !== q.parts.length) return false;
  const [a, b] = [placementMatrix(p.placement), placementMatrix(q.placement)];
  if (a.some((v, i) => v !== b[i])) return false;
  return p.parts.every((id, i) => {
    const [one, two] = [outlineOfPart(piece.parts[id]), outlineOfPart(piece.parts[q.parts[i]])];
    return (
      one.contours.length === two.contours.length &&
      one.contours.every(({ points, closed }, c) => {
        const other = two.contours[c];
        return (
          closed === other.closed &&
          points.length === other.points.length &&
          points.every((v, k) => v === other.points[k])
        );
      })
    );
  });
}

/** Have two poses anchors at two common places at least? */
const touch = (a: Places, b: Places): boolean => ofPair(touching, a, b, () => meet(a, b));

/** What was found out about two poses, as long as neither changes. */
type OfPairs = WeakMap<Places, WeakMap<Places, boolean>>;
const touching: OfPairs = new WeakMap();
const alike: OfPairs = new WeakMap();

function ofPair(pairs: OfPairs, a: Places, b: Places, find: () => boolean): boolean {
  let known = pairs.get(a);
  if (!known) pairs.set(a, (known = new WeakMap()));
  let found = known.get(b);
  if (found === undefined) known.set(b, (found = find()));
  return found;
}

function meet(a: Places, b: Places): boolean {
  const common = emptyBox();
  const [fewer, more] = a.size <= b.size ? [a, b] : [b, a];
  for (const [key, [x, y]] of fewer) if (more.has(key)) includePoint(common, x, y);
  return boxSize(common) > 0;
}

type Places = ReadonlyMap<string, readonly [number, number]>;
interface KnownPlaces {
  readonly contours: readonly unknown[];
  readonly places: Places;
}
/** Places of a pose's anchors, canvas px, kept as long as the placement and the outlines are the same. */
const placesOfPoses = new WeakMap<Pose['placement'], KnownPlaces>();

function placesOf(piece: Piece, pose: Pose): Places {
  const parts = pose.parts.map((id) => piece.parts[id]);
  const before = placesOfPoses.get(pose.placement);
  if (before?.contours.length === parts.length && parts.every((part, i) => part.contours === before.contours[i]))
    return before.places;
  const [a, b, c, d, e, f] = placementMatrix(pose.placement);
  const places = new Map<string, readonly [number, number]>();
  for (const part of parts)
    for (const { points } of outlineOfPart(part).contours)
      for (let i = 0; i < points.length; i += 6) {
        const x = a * points[i] + c * points[i + 1] + e;
        const y = b * points[i] + d * points[i + 1] + f;
        places.set(`${Math.round(x / SAME_PLACE_PX)} ${Math.round(y / SAME_PLACE_PX)}`, [x, y]);
      }
  placesOfPoses.set(pose.placement, { contours: parts.map(({ contours }) => contours), places });
  return places;
}
