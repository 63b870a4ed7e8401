import { type Blend, blendOutline, Lane, type Ramp, RampTime } from '../../lane';
import { evaluate, planThrough, type ShiftPlan, stillPlan } from '../../morph';
import { type Contour, type FillRule, transformOutline } from '../../outline';
import { adjustableContours, type ShapeSource, shapeParameter, shapeParameters } from '../../shapes';
import type { Matrix } from '../../vec';

/** An adjustable shape over time, s. */
export interface ShapeWay {
  readonly fillRule: FillRule;
  /** Times at which it may bend, or jump, in any order. */
  readonly breaks: readonly number[];
  /** The shape, and the map from its own coordinates to the canvas. */
  at(seconds: number): { readonly shape: ShapeSource; readonly matrix: Matrix };
}

/** A stretch of time in which a shape is built alike: of as many points, and the same in what is counted. */
export interface AlikeStretch {
  readonly start: number;
  readonly end: number;
}

const LINEAR = { kind: 'linear' } as const;
/** How far inside its ends a piece of a way is looked at, s: there it may jump. */
const INSIDE_S = 1e-6;
/** A piece of a way is looked at in so many places to see how it is built, fewer where there are many pieces. */
const MOST_LOOKS = 24;
const FEWEST_LOOKS = 4;
const LOOKS_OF_ALL = 1_000;
/** A change of how it is built is found as exactly as this, s. */
const CHANGE_S = 1e-7;
/** In-betweens by which a piece of a way goes: as many as keep it within this of the shape, px, from the fewest to the most. */
const WITHIN_PX = 0.005;
const FEWEST_KEYS = 6;
const MOST_KEYS = 96;

const contoursAt = (way: ShapeWay, seconds: number): readonly Contour[] => {
  const { shape, matrix } = way.at(seconds);
  return transformOutline({ contours: adjustableContours(shape), fillRule: way.fillRule }, matrix).contours;
};

/** How a shape is built: what cannot go over into something else. */
function buildOf(way: ShapeWay, seconds: number): string {
  const { shape } = way.at(seconds);
  const counted = shapeParameters(shape.kind).flatMap(({ key, whole }) => (whole ? [shapeParameter(shape, key)] : []));
  return [shape.kind, ...counted, ...adjustableContours(shape).map(buildOfContour)].join(' ');
}

const buildOfContour = ({ points, closed }: Contour): string => `${points.length}${closed ? 'z' : ''}`;

const within = (breaks: readonly number[], start: number, end: number): number[] => {
  const inside = breaks.filter((time) => time > start + INSIDE_S && time < end - INSIDE_S).sort((p, q) => p - q);
  const apart = inside.filter((time, i) => i === 0 || time - inside[i - 1] > INSIDE_S);
  return [start, ...apart, end];
};

/** A little inside a piece, at a share of it. */
function insideAt(start: number, end: number, share: number): number {
  const edge = Math.min(INSIDE_S, (end - start) / 100);
  return start + edge + share * (end - start - 2 * edge);
}

/** The times between two, both left out, at which a shape is built otherwise from then on. */
export function changesOfBuild(way: ShapeWay, start: number, end: number): number[] {
  const marks = within(way.breaks, start, end);
  const changes: number[] = [];
  const looks = Math.min(MOST_LOOKS, Math.max(FEWEST_LOOKS, Math.round(LOOKS_OF_ALL / marks.length)));
  let before: string | undefined;
  for (let i = 0; i + 1 < marks.length; i++) {
    let last = insideAt(marks[i], marks[i + 1], 0);
    for (let k = 0; k <= looks; k++) {
      const time = insideAt(marks[i], marks[i + 1], k / looks);
      const build = buildOf(way, time);
      if (before !== undefined && build !== before) {
        // Where it jumps at a break, it is the break.
        if (k === 0) changes.push(marks[i]);
        else changes.push(changeBetween(way, last, time, before));
      }
      before = build;
      last = time;
    }
  }
  return changes;
}

function changeBetween(way: ShapeWay, from: number, until: number, before: string): number {
  let [low, high] = [from, until];
  while (high - low > CHANGE_S) {
    const middle = (low + high) / 2;
    if (buildOf(way, middle) === before) low = middle;
    else high = middle;
  }
  return high;
}

/** What a way gives in a stretch in which it is built alike. */
export interface WayInStretch {
  /** Its structure; from where it begins to where it ends. */
  readonly plan: ShiftPlan;
  readonly outline: Lane;
}

/** The outline of a shape from one time to another, as in-betweens joined by cubics from each break of its way to the next. */
export function outlineInStretch(way: ShapeWay, { start, end }: AlikeStretch): WayInStretch {
  const marks = within(way.breaks, start, end);
  const count = marks.length - 1;
  const planOf = (i: number): ShiftPlan => planOfPiece(way, marks[i], marks[i + 1]);
  const first = planOf(0);
  const last = count > 1 ? planOf(count - 1) : first;
  const ramps = Array.from({ length: count }, (_, i): Ramp => {
    const time = new RampTime(marks[i], marks[i + 1], LINEAR);
    if (i === 0 || i === count - 1) return { time, blend: blendOutline(i === 0 ? first : last) };
    return { time, blend: lateBlend(first.from.length, () => planOf(i)) };
  });
  // It melts nowhere: what its outline goes through is in the lane.
  const contours = first.contours.map(({ keys: _keys, ...contour }) => contour);
  return { plan: { ...first, contours, to: last.to }, outline: new Lane(ramps) };
}

/** The blend of a plan that is made when it is first looked at: of a long row of beats most are not, while something is dragged. */
function lateBlend(size: number, planOf: () => ShiftPlan): Blend {
  let made: Blend | undefined;
  const blend = (): Blend => (made ??= blendOutline(planOf()));
  return {
    size,
    breaks: [],
    jumps: false,
    get still() {
      return blend().still;
    },
    write: (progress, out, at) => blend().write(progress, out, at),
  };
}

function planOfPiece(way: ShapeWay, start: number, end: number): ShiftPlan {
  const at = (share: number): readonly Contour[] => contoursAt(way, insideAt(start, end, share));
  const first = at(0);
  const still = (): ShiftPlan => stillPlan({ contours: first, fillRule: way.fillRule });
  if (first.length === 0 || LOOKED_AT.every((share) => samePoints(at(share), first))) return still();
  for (let count = FEWEST_KEYS; ; count *= 2) {
    const times = Array.from({ length: count + 1 }, (_, k) => k / count);
    const plan = planThrough(times, times.map(at), way.fillRule);
    // Built otherwise for a moment too short to be found: it is passed over.
    if (!plan) return still();
    if (count >= MOST_KEYS || strayOf(plan, at, count) <= WITHIN_PX) return plan;
  }
}

/** Where it is looked at to see whether a piece changes at all: at no even shares, where something could stand alike. */
const LOOKED_AT = [0.137, 0.291, 0.463, 0.618, 0.809, 1];

const samePoints = (p: readonly Contour[], q: readonly Contour[]): boolean =>
  p.length === q.length && p.every(({ points }, c) => points.every((v, i) => v === q[c].points[i]));

/** How far a plan strays from the shape half-way between its keys at most, px. */
function strayOf(plan: ShiftPlan, at: (share: number) => readonly Contour[], keys: number): number {
  const out = new Float64Array(plan.from.length);
  let worst = 0;
  for (let k = 0; k < keys; k++) {
    const share = (k + 0.5) / keys;
    evaluate(plan, share, out);
    let i = 0;
    for (const { points } of at(share)) for (const v of points) worst = Math.max(worst, Math.abs(v - out[i++]));
  }
  return worst;
}
