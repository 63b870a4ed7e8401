import { cubicLength, cubicPoint, nearestOnCubic } from '../curve';
import type { PlacePair } from '../match';
import {
  type ArcLengthTable,
  anchorCount,
  contourLength,
  measureArcLength,
  nearestOnContour,
  type Outline,
  outlineBox,
  shareOfAnchor,
  shareOfCurvePlace,
} from '../outline';
import { type Box, emptyBox, includePoint } from '../vec';
import type { ShiftPlan } from './plan';

/** Two edges coincide where they are nearer to each other than this, px. */
const COINCIDE_PX = 0.02;
/** Moments of a segment at which it is looked at besides its ends. */
const INNER = [0.25, 0.5, 0.75] as const;
/** Segments shorter than this share of the size say nothing. */
const LEAST_SEGMENT_REL = 1e-3;
/** What two contours share must be this much of the shorter one's length at both ends to be meant. */
const LEAST_SHARE = 0.05;
/** A share this near to an anchor's is at the anchor. */
const AT_ANCHOR = 1e-6;
/** A curve parameter this near to an end is the end. */
const AT_END = 1e-4;

/**
 * Places of two outlines (px) that lie on the edges of a plan at both of its ends, so that what follows the plan can follow it there. Pairs of
 * places, first and second outline, along every run of segments that coincides with one contour of each. Where the outlines have anchors of
 * their own inside such a run, those are among the pairs. Slits, cuts and chords are no edges.
 */
export function sharedPlaces(plan: ShiftPlan, a: Outline, b: Outline): PlacePair[] {
  if (!meet(boxOf(plan.from), outlineBox(a)) || !meet(boxOf(plan.to), outlineBox(b))) return [];
  const sideA = new Side(a);
  const sideB = new Side(b);
  const runs = new Map<string, { pairs: PlacePair[]; lengthA: number; lengthB: number }>();
  for (const { at, segments, role, bridgesA, bridgesB } of plan.contours) {
    if (role !== 'pair') continue;
    for (let k = 0; k < segments; k++) {
      if (bridgesA.includes(k) || bridgesB.includes(k)) continue;
      const i = at + 6 * k;
      const lengthA = cubicLength(plan.from, i);
      const lengthB = cubicLength(plan.to, i);
      const least = LEAST_SEGMENT_REL * plan.size;
      if (!(lengthA > least) || !(lengthB > least)) continue;
      const onA = sideA.contourUnder(plan.from, i);
      const onB = onA < 0 ? -1 : sideB.contourUnder(plan.to, i);
      if (onB < 0) continue;
      const key = `${onA} ${onB}`;
      const run = runs.get(key) ?? { pairs: [], lengthA: 0, lengthB: 0 };
      runs.set(key, run);
      run.lengthA += lengthA;
      run.lengthB += lengthB;
      const inner = [...sideA.anchorsAlong(onA, plan.from, i), ...sideB.anchorsAlong(onB, plan.to, i)];
      for (const t of [0, ...inner, 1]) {
        const pair = {
          contourA: onA,
          shareA: sideA.shareAt(onA, plan.from, i, t),
          contourB: onB,
          shareB: sideB.shareAt(onB, plan.to, i, t),
        };
        const known = run.pairs.some((other) => near(other.shareA, pair.shareA) && near(other.shareB, pair.shareB));
        if (!known) run.pairs.push(pair);
      }
    }
  }
  return [...runs.values()].flatMap(({ pairs, lengthA, lengthB }) => {
    const [{ contourA, contourB }] = pairs;
    const enough =
      lengthA >= LEAST_SHARE * contourLength(a.contours[contourA]) &&
      lengthB >= LEAST_SHARE * contourLength(b.contours[contourB]);
    return enough ? pairs : [];
  });
}

/**
 * Where a plan's own outlines (px) begin and cease to lie on two others, paired: the plan has to bring these places together before the others
 * can follow it. Empty where it does already, or where the outlines lie on each other in several runs, or in none.
 */
export function runEnds(
  plan: ShiftPlan,
  [ownA, ownB]: readonly [Outline, Outline],
  a: Outline,
  b: Outline,
): PlacePair[] {
  if (!meet(boxOf(plan.from), outlineBox(a)) || !meet(boxOf(plan.to), outlineBox(b))) return [];
  const others = [new Side(a), new Side(b)] as const;
  const own = [new Side(ownA), new Side(ownB)] as const;
  const least = LEAST_SEGMENT_REL * plan.size;
  return plan.contours.flatMap(({ at, segments, role, closed, a: i, b: j }): PlacePair[] => {
    if (role !== 'pair' || i === undefined || j === undefined) return [];
    const run = (numbers: Float64Array, side: Side): [number, number] | undefined => {
      const on = Array.from({ length: segments }, (_, k) =>
        cubicLength(numbers, at + 6 * k) > least ? side.contourUnder(numbers, at + 6 * k) : undefined,
      );
      return onlyRun(on, closed);
    };
    const runA = run(plan.from, others[0]);
    const runB = run(plan.to, others[1]);
    if (!runA || !runB || (runA[0] === runB[0] && runA[1] === runB[1])) return [];
    return [0, 1].map((end) => ({
      contourA: i,
      shareA: own[0].shareAt(i, plan.from, at + 6 * (runA[end] % segments), 0),
      contourB: j,
      shareB: own[1].shareAt(j, plan.to, at + 6 * (runB[end] % segments), 0),
    }));
  });
}

/**
 * The first segment of the only run of segments that lie on one contour, and the first after it; undefined where there is no such run, several, or
 * no end. Segments without length (undefined) belong to what is before them.
 */
function onlyRun(on: readonly (number | undefined)[], closed: boolean): [number, number] | undefined {
  const n = on.length;
  const start = on.indexOf(-1);
  if (start < 0) return undefined;
  const runs: [number, number][] = [];
  for (let s = 1; s <= n; s++) {
    // An open contour is not walked round its end.
    if (!closed && start + s >= n) break;
    const k = (start + s) % n;
    const c = on[k];
    const last = runs[runs.length - 1];
    const going = last !== undefined && last[1] === start + s;
    if (c === undefined ? going : c >= 0) {
      if (going) last[1]++;
      else runs.push([start + s, start + s + 1]);
    }
  }
  return runs.length === 1 ? [runs[0][0] % n, runs[0][1] % n] : undefined;
}

const near = (p: number, q: number): boolean => Math.abs(p - q) < AT_ANCHOR;

/** One outline of what follows, as it is asked where segments of the plan lie on it. */
class Side {
  private readonly tables: (ArcLengthTable | undefined)[] = [];
  private readonly point = new Float64Array(2);

  constructor(private readonly outline: Outline) {}

  /** Index of the contour on which all of a segment lies, or −1. */
  contourUnder(p: Float64Array, i: number): number {
    return this.outline.contours.findIndex((contour) =>
      [0, 1, ...INNER].every((t) => {
        cubicPoint(p, i, t, this.point);
        return nearestOnContour(contour, this.point[0], this.point[1], COINCIDE_PX) !== undefined;
      }),
    );
  }

  /** Share of the contour's length at a place of a segment; an anchor that is there counts as what is meant. */
  shareAt(c: number, p: Float64Array, i: number, t: number): number {
    cubicPoint(p, i, t, this.point);
    const contour = this.outline.contours[c];
    const table = (this.tables[c] ??= measureArcLength(contour));
    const nearest = nearestOnContour(contour, this.point[0], this.point[1]);
    const share = nearest ? shareOfCurvePlace(table, nearest) : 0;
    for (let k = 0; k < anchorCount(contour); k++) {
      const other = shareOfAnchor(table, k);
      if (near(share, other) || (contour.closed && other === 0 && near(share, 1))) return other;
    }
    return share;
  }

  /** Curve parameters of a segment at which the contour has anchors, ends left out. */
  anchorsAlong(c: number, p: Float64Array, i: number): number[] {
    const { points } = this.outline.contours[c];
    const out: number[] = [];
    for (let k = 0; k < points.length; k += 6) {
      const { t, distance } = nearestOnCubic(p, i, points[k], points[k + 1]);
      if (distance <= COINCIDE_PX && t > AT_END && t < 1 - AT_END) out.push(t);
    }
    return out;
  }
}

function boxOf(numbers: Float64Array): Box {
  const box = emptyBox();
  for (let i = 0; i < numbers.length; i += 2) includePoint(box, numbers[i], numbers[i + 1]);
  return box;
}

const meet = (p: Box, q: Box): boolean =>
  p.minX <= q.maxX + COINCIDE_PX &&
  q.minX <= p.maxX + COINCIDE_PX &&
  p.minY <= q.maxY + COINCIDE_PX &&
  q.minY <= p.maxY + COINCIDE_PX;

/**
 * Two plans without the joints at which a run of segments that both have ends: there each would bend its handles by a neighbour that the other
 * does not have. Both plans are returned as they are where they share nothing.
 */
export function withoutEndJoints(p: ShiftPlan, q: ShiftPlan): [ShiftPlan, ShiftPlan] {
  return [stripped(p, q), stripped(q, p)];
}

/** Is there a segment of the other plan whose control points are the same at both ends, in either direction? */
function isShared(plan: ShiftPlan, i: number, other: ShiftPlan): boolean {
  const same = (p: Float64Array, q: Float64Array, j: number, back: boolean): boolean => {
    for (let k = 0; k < 8; k += 2) {
      const m = j + (back ? 6 - k : k);
      if (!(Math.abs(p[i + k] - q[m]) <= COINCIDE_PX && Math.abs(p[i + k + 1] - q[m + 1]) <= COINCIDE_PX)) return false;
    }
    return true;
  };
  return other.contours.some(({ at, segments }) => {
    for (let k = 0, j = at; k < segments; k++, j += 6)
      for (const back of [false, true])
        if (same(plan.from, other.from, j, back) && same(plan.to, other.to, j, back)) return true;
    return false;
  });
}

function stripped(plan: ShiftPlan, other: ShiftPlan): ShiftPlan {
  let changed = false;
  const contours = plan.contours.map((contour) => {
    const { at, segments } = contour;
    const shared = Array.from({ length: segments }, (_, k) => isShared(plan, at + 6 * k, other));
    if (!shared.includes(true) || !shared.includes(false)) return contour;
    // Is the segment before an anchor shared and the one after not, or the other way round?
    const isEnd = (anchor: number): boolean => {
      const k = Math.round(anchor / 6);
      return shared[(k + segments - 1) % segments] !== shared[k % segments];
    };
    const joints = strippedRows(contour.joints, 3, isEnd);
    const turns = strippedRows(contour.turns, 5, isEnd);
    if (joints.length === contour.joints.length && turns.length === contour.turns.length) return contour;
    changed = true;
    return { ...contour, joints: Int32Array.from(joints), turns: Float64Array.from(turns) };
  });
  return changed ? { ...plan, contours } : plan;
}

/** Rows of numbers whose second is the index of an anchor, without those at which a run ends. */
function strippedRows(rows: ArrayLike<number>, width: number, isEnd: (anchor: number) => boolean): number[] {
  const out: number[] = [];
  for (let i = 0; i < rows.length; i += width)
    if (!isEnd(rows[i + 1])) for (let k = 0; k < width; k++) out.push(rows[i + k]);
  return out;
}
