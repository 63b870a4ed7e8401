import { LENGTH_EPS_REL } from '../num';
import { evaluate } from './evaluate';
import { FillMeter } from './fill-area';
import { type Health, type HealthFigures, type HealthMoment, isSound, type WorstMoment } from './health-figures';
import { healthSentence } from './health-sentence';
import { endCrossings, hullOfEnds, LEAST_LOOP_REL, steadySize } from './judge';
import { contourNumberCount, type ShiftPlan } from './plan';
import { InBetweenProbe, isTangle, NO_CROSSINGS } from './probe';

const MOMENTS = 21;
/** A plan with more segments than this is searched for folds, crossings and kinks only at the moments of the charts. */
const MOST_SEGMENTS = 4_000;
const FLATTEN_REL = 3e-4;
/** Spacing of the points between which turning is measured, as a share of the size. */
const TURNING_GAP_REL = 0.007;
const ROWS = 256;
/** How many points of an in-between are followed from one moment to the next. */
const STEP_POINTS = 160;

/** Health of plans, measured relative to their own size. Plans never change, so it can be kept. */
const known = new WeakMap<ShiftPlan, Health>();

/**
 * Measures a plan. Sizes count relative to `size` px (default: that of both ends, which is the same however they are turned, so that turning a picture changes no
 * verdict). Never throws.
 */
export function measureHealth(plan: ShiftPlan, size?: number): Health {
  if (size !== undefined) return new HealthMeter(plan, size || 1).measure();
  let health = known.get(plan);
  if (!health) {
    health = new HealthMeter(plan, steadySize(hullOfEnds(plan)) || 1).measure();
    known.set(plan, health);
  }
  return health;
}

class HealthMeter {
  private readonly probe: InBetweenProbe;
  private readonly inBetween: Float64Array;

  constructor(
    private readonly plan: ShiftPlan,
    private readonly size: number,
  ) {
    this.probe = new InBetweenProbe(plan, FLATTEN_REL * size);
    this.inBetween = new Float64Array(plan.from.length);
  }

  measure(): Health {
    const { plan, probe, inBetween, size } = this;
    const leastLoop = LEAST_LOOP_REL * size;
    const gap = TURNING_GAP_REL * size;
    const box = Float64Array.of(Infinity, Infinity, -Infinity, -Infinity);
    const ends = (['first', 'second'] as const).map((end) => {
      probe.take(end === 'first' ? plan.from : plan.to);
      probe.growBox(box);
      const counted = endCrossings(plan, end) ?? probe.countCrossings(leastLoop, end);
      return {
        ...counted,
        signed: probe.signedArea(),
        length: probe.length(end),
        turning: probe.turningAlong(gap, end) / (2 * Math.PI),
      };
    });
    const baseFolds = Math.max(ends[0].folds, ends[1].folds);
    const baseCrossings = Math.max(ends[0].between, ends[1].between);
    const tangled = isTangle(baseFolds, baseCrossings);
    const sign = ends[0].signed + ends[1].signed < 0 ? -1 : 1;
    const open = plan.contours.every(({ closed }) => !closed);
    const margin = 0.25 * size;
    const meter = new FillMeter(plan, probe, box[1] - margin, box[3] + margin, ROWS);
    const moments: HealthMoment[] = [];
    const worst = new Map<keyof HealthFigures, WorstMoment>();
    const most = { folds: 0, crossings: 0, excursion: 0, turning: 0, inverted: 0, step: 0, kink: 0 };
    const note = (figure: keyof HealthFigures, progress: number, at?: { x: number; y: number }): void => {
      worst.set(figure, at ? { progress, x: at.x, y: at.y } : { progress });
    };
    let before: Float64Array | undefined;
    const stride = this.plan.from.length > 6 * MOST_SEGMENTS ? 2 : 1;
    for (let k = 0; k < 2 * MOMENTS - 1; k += stride) {
      const progress = k / (2 * MOMENTS - 2);
      probe.take(evaluate(plan, progress, inBetween));
      const atEnd = k === 0 || k === 2 * MOMENTS - 2;
      const counted = atEnd || tangled ? NO_CROSSINGS : probe.countCrossings(leastLoop);
      if (counted.folds - baseFolds > most.folds) {
        most.folds = counted.folds - baseFolds;
        note('folds', progress, probe.listCrossings(leastLoop).folds[0]);
      }
      if (counted.between - baseCrossings > most.crossings) {
        most.crossings = counted.between - baseCrossings;
        note('crossings', progress, probe.listCrossings(leastLoop).between[0]);
      }
      if (!atEnd) {
        const bend = this.worstKink();
        if (bend.angle > most.kink) {
          most.kink = bend.angle;
          note('kink', progress, bend);
        }
      }
      // Between the moments of the charts only crossings and kinks are looked for.
      if (k % 2 === 1) continue;
      const area = open ? { filled: 0, inverted: 0 } : meter.measure(sign);
      const out = probe.beyond(box) / size;
      if (out > most.excursion) {
        most.excursion = out;
        note('excursion', progress);
      }
      const turning = probe.turningAlong(gap) / (2 * Math.PI);
      if (!atEnd && turning > most.turning) {
        most.turning = turning;
        note('restlessness', progress);
      }
      if (area.inverted > most.inverted) {
        most.inverted = area.inverted;
        note('inverted', progress);
      }
      const points = this.pointsAlong();
      const step = before ? largestDistance(before, points) / size : 0;
      before = points;
      if (step > most.step) {
        most.step = step;
        note('largestStep', progress);
      }
      const ended = k === 0 ? ends[0].length : atEnd ? ends[1].length : undefined;
      moments.push({
        progress,
        area: area.filled,
        length: ended ?? probe.length(),
        folds: Math.max(0, counted.folds - baseFolds),
        crossings: Math.max(0, counted.between - baseCrossings),
        step,
      });
    }
    const first = moments[0];
    const last = moments[moments.length - 1];
    const extreme = (pick: (m: HealthMoment) => number, sense: 1 | -1): HealthMoment =>
      moments.reduce((best, m) => (sense * pick(m) > sense * pick(best) ? m : best));
    const smaller = Math.min(first.area, last.area);
    const larger = Math.max(first.area, last.area);
    const hasArea = smaller > 1e-5 * size * size;
    const shorter = Math.min(first.length, last.length);
    const longer = Math.max(first.length, last.length);
    const widest = extreme((m) => m.area, 1);
    const longest = extreme((m) => m.length, 1);
    const thinnest = hasArea ? extreme((m) => m.area, -1) : extreme((m) => m.length, -1);
    note('areaDip', thinnest.progress);
    const evenShare = (m: HealthMoment): number => m.area / evenArea(first.area, last.area, m.progress);
    const hollowest = extreme(evenShare, -1);
    note('evenDip', hollowest.progress);
    note('swell', widest.progress);
    note('perimeter', longest.progress);
    const several = plan.contours.length > 1;
    const restless = Math.max(ends[0].turning, ends[1].turning, open ? 0.75 : 0);
    const figures: HealthFigures = {
      folds: most.folds,
      crossings: most.crossings,
      areaDip: hasArea ? thinnest.area / smaller : shorter > 0 && open ? thinnest.length / shorter : 1,
      evenDip: hasArea ? evenShare(hollowest) : 1,
      swell: hasArea ? widest.area / larger : 1,
      perimeter: longer > 0 ? longest.length / longer : 1,
      excursion: most.excursion,
      restlessness: restless > 0 ? most.turning / restless : 1,
      largestStep: most.step,
      inverted: hasArea ? most.inverted / smaller : 0,
      kink: most.kink,
      endError: plan.endError,
    };
    const coming = plan.contours.some(({ role }) => role !== 'pair');
    return {
      sound: isSound(figures, several, open),
      ...healthSentence(figures, worst, { several, open, coming }, box),
      ...figures,
      moments,
    };
  }

  /** The worst kink of the current in-between, over all joints that are smooth at both ends; degrees. */
  private worstKink(): { angle: number; x: number; y: number } {
    const { inBetween } = this;
    let worst = { angle: 0, x: 0, y: 0 };
    for (const { at, joints } of this.plan.contours) {
      for (let j = 0; j < joints.length; j += 3) {
        const angle = kinkAt(inBetween, at, joints, j);
        const p = at + joints[j + 1];
        if (angle > worst.angle) worst = { angle, x: inBetween[p], y: inBetween[p + 1] };
      }
    }
    return worst;
  }

  /** Points spread evenly along all contours of the current in-between, as x, y. */
  private pointsAlong(): Float64Array {
    const { plan, probe } = this;
    const p = probe.points;
    const total = probe.length();
    const gap = total / STEP_POINTS;
    const out: number[] = [];
    plan.contours.forEach((contour, c) => {
      const first = probe.starts[c];
      const count = probe.counts[c];
      const edges = contour.closed ? count : count - 1;
      let along = 0;
      for (let k = 0; k < edges; k++) {
        const i = 2 * (first + k);
        const j = 2 * (first + ((k + 1) % count));
        const [dx, dy] = [p[j] - p[i], p[j + 1] - p[i + 1]];
        const length = Math.sqrt(dx * dx + dy * dy);
        // A contour shrunk to a point is not visible, so rounding errors in it do not count.
        if (!(length > LENGTH_EPS_REL * this.size)) continue;
        for (; along <= length; along += gap) {
          const t = along / length;
          out.push(p[i] + (p[j] - p[i]) * t, p[i + 1] + (p[j + 1] - p[i + 1]) * t);
        }
        along -= length;
      }
    });
    return Float64Array.from(out);
  }
}

/** How far an in-between turns at a joint (three indices from `j` on in `joints`: handle before, anchor, handle after), degrees. */
function kinkAt(inBetween: Float64Array, at: number, joints: Int32Array, j: number): number {
  const [b, p, a] = [at + joints[j], at + joints[j + 1], at + joints[j + 2]];
  const ux = inBetween[p] - inBetween[b];
  const uy = inBetween[p + 1] - inBetween[b + 1];
  const vx = inBetween[a] - inBetween[p];
  const vy = inBetween[a + 1] - inBetween[p + 1];
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) * (180 / Math.PI);
}

/** The largest distance from a point of either set to the nearest of the other, px. */
function largestDistance(p: Float64Array, q: Float64Array): number {
  if (p.length === 0 || q.length === 0) return 0;
  return Math.sqrt(Math.max(oneWay(p, q), oneWay(q, p)));
}

function oneWay(p: Float64Array, q: Float64Array): number {
  let most = 0;
  for (let i = 0; i < p.length; i += 2) {
    let least = Infinity;
    // The search starts at the same index, which is usually near, and stops when a point is near enough.
    for (let k = 0, j = i % q.length; k < q.length && least > most; k += 2, j = j + 2 < q.length ? j + 2 : 0) {
      const dx = p[i] - q[j];
      const dy = p[i + 1] - q[j + 1];
      const square = dx * dx + dy * dy;
      if (square < least) least = square;
    }
    if (least > most) most = least;
  }
  return most;
}

/** The faults of one in-between, for the marks on the picture. */
export interface InBetweenMarks {
  readonly folds: readonly { readonly x: number; readonly y: number }[];
  readonly crossings: readonly { readonly x: number; readonly y: number }[];
  readonly kinks: readonly { readonly x: number; readonly y: number; readonly degrees: number }[];
}

/** Smaller kinks are not marked, degrees. */
const MARKED_KINK = 12;

/** The probe of each plan, kept as long as the plan, because pictures are painted many times a second. */
const probes = new WeakMap<ShiftPlan, InBetweenProbe>();

/** Folds and crossings of one in-between, and kinks at joints that are smooth at both ends. Places in px. */
export function inBetweenMarks(plan: ShiftPlan, inBetween: Float64Array): InBetweenMarks {
  let probe = probes.get(plan);
  if (!probe) {
    probe = new InBetweenProbe(plan, FLATTEN_REL * plan.size || 1);
    probes.set(plan, probe);
  }
  probe.take(inBetween);
  const { folds, between } = probe.listCrossings(LEAST_LOOP_REL * plan.size);
  const kinks: { x: number; y: number; degrees: number }[] = [];
  for (const contour of plan.contours) {
    const { at, joints } = contour;
    if (joints.length === 0 || contourNumberCount(contour) < 14) continue;
    for (let j = 0; j < joints.length; j += 3) {
      const degrees = kinkAt(inBetween, at, joints, j);
      const p = at + joints[j + 1];
      if (degrees > MARKED_KINK) kinks.push({ x: inBetween[p], y: inBetween[p + 1], degrees });
    }
  }
  return { folds, crossings: between, kinks };
}

/** The area between two areas when lengths change evenly, as in a growing square. */
const evenArea = (from: number, to: number, progress: number): number =>
  ((1 - progress) * Math.sqrt(from) + progress * Math.sqrt(to)) ** 2;
