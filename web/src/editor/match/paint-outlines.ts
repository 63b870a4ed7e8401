import {
  evaluate,
  type InBetweenMarks,
  inBetweenMarks,
  type PartPlan,
  type PlanContour,
  type PlannedParts,
  type ShiftPlan,
} from '@core';
import { type PictureView, toPicture } from './picture-view';

/** Colours of the room, read from the page's theme. */
export interface MatchColours {
  readonly ink: string;
  readonly soft: string;
  readonly plum: string;
  readonly cobalt: string;
  readonly broken: string;
  readonly look: string;
  readonly paper: string;
  readonly dark: boolean;
}

/** At most this many numbers stand round a contour. */
const MOST_NUMBERS = 24;

/** Place along a pair as a hue: the same at the same place of both outlines. */
const hueAt = (share: number, dark: boolean): string =>
  `hsl(${Math.round(360 * share)} ${dark ? 70 : 72}% ${dark ? 64 : 42}%)`;

/** Share of the way round at each anchor of a contour, by the mean of both ends' chords. Kept with the plan. */
const sharesOf = new WeakMap<ShiftPlan, Float64Array[]>();
function anchorShares(plan: ShiftPlan): Float64Array[] {
  let found = sharesOf.get(plan);
  if (!found) {
    found = plan.contours.map(({ at, segments }) => {
      const out = new Float64Array(segments + 1);
      for (let k = 0; k < segments; k++) {
        const i = at + 6 * k;
        const chord = (p: Float64Array): number => Math.hypot(p[i + 6] - p[i], p[i + 7] - p[i + 1]);
        out[k + 1] = out[k] + chord(plan.from) + chord(plan.to);
      }
      const total = out[segments] || 1;
      return out.map((v) => v / total);
    });
    sharesOf.set(plan, found);
  }
  return found;
}

/** The hue of a place: a parameter on the piece that begins at an index of the plan's numbers. */
export function hueOf(plan: ShiftPlan, at: number, t: number, dark: boolean): string {
  const c = plan.contours.findIndex((contour) => at >= contour.at && at < contour.at + 6 * contour.segments);
  const shares = anchorShares(plan)[c];
  const k = (at - plan.contours[c].at) / 6;
  return hueAt(shares[k] + (shares[k + 1] - shares[k]) * t, dark);
}

/** The numbers of the in-between that is painted, kept with the plan. */
const frames = new WeakMap<ShiftPlan, Float64Array>();
export function frameOf(plan: ShiftPlan): Float64Array {
  let frame = frames.get(plan);
  if (!frame) {
    frame = new Float64Array(plan.from.length);
    frames.set(plan, frame);
  }
  return frame;
}

const TAU = 2 * Math.PI;

/** Paints one of the two outlines: a pale body, its edge in the hues of the match, anchors, direction, and what has no partner dashed. */
export function paintSide(
  ctx: CanvasRenderingContext2D,
  plan: PlannedParts,
  side: 'a' | 'b',
  view: PictureView,
  colours: MatchColours,
  numbers: boolean,
): void {
  const body = side === 'a' ? colours.plum : colours.cobalt;
  for (const { plan: shift } of plan.parts) {
    const end = side === 'a' ? shift.from : shift.to;
    ctx.beginPath();
    for (const contour of shift.contours) traceContour(ctx, contour, end, view);
    ctx.globalAlpha = 0.1;
    ctx.fillStyle = body;
    ctx.fill(shift.fillRule);
    ctx.globalAlpha = 1;
    const shares = anchorShares(shift);
    shift.contours.forEach((contour, c) => {
      if (contour.role === (side === 'a' ? 'appears' : 'vanishes')) return;
      if (contour.role !== 'pair') {
        ctx.beginPath();
        traceContour(ctx, contour, end, view);
        ctx.strokeStyle = colours.soft;
        ctx.lineWidth = 2;
        ctx.setLineDash([5, 4]);
        ctx.stroke();
        ctx.setLineDash([]);
        return;
      }
      const bridges = side === 'a' ? contour.bridgesA : contour.bridgesB;
      for (let k = 0; k < contour.segments; k++) {
        const i = contour.at + 6 * k;
        const middle = (shares[c][k] + shares[c][k + 1]) / 2;
        ctx.strokeStyle = hueAt(middle, colours.dark);
        ctx.lineWidth = bridges.includes(k) ? 1 : 3;
        ctx.setLineDash(bridges.includes(k) ? [3, 3] : []);
        ctx.beginPath();
        ctx.moveTo(...toPicture(view, end[i], end[i + 1]));
        ctx.bezierCurveTo(
          ...toPicture(view, end[i + 2], end[i + 3]),
          ...toPicture(view, end[i + 4], end[i + 5]),
          ...toPicture(view, end[i + 6], end[i + 7]),
        );
        ctx.stroke();
      }
      ctx.setLineDash([]);
      paintAnchors(ctx, contour, end, shares[c], view, colours, numbers);
    });
  }
}

function paintAnchors(
  ctx: CanvasRenderingContext2D,
  { at, segments, closed }: PlanContour,
  end: Float64Array,
  shares: Float64Array,
  view: PictureView,
  colours: MatchColours,
  numbers: boolean,
): void {
  const count = closed ? segments : segments + 1;
  const every = Math.max(1, Math.ceil(count / MOST_NUMBERS));
  let [cx, cy] = [0, 0];
  for (let k = 0; k < count; k++) {
    cx += end[at + 6 * k] / count;
    cy += end[at + 6 * k + 1] / count;
  }
  ctx.font = '500 10px "DM Mono", monospace';
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (let k = 0; k < count; k++) {
    const [x, y] = toPicture(view, end[at + 6 * k], end[at + 6 * k + 1]);
    ctx.beginPath();
    ctx.arc(x, y, 2.6, 0, TAU);
    ctx.fillStyle = colours.paper;
    ctx.fill();
    ctx.strokeStyle = hueAt(shares[k], colours.dark);
    ctx.lineWidth = 1.4;
    ctx.stroke();
    if (!numbers || k % every !== 0) continue;
    const dx = end[at + 6 * k] - cx;
    const dy = end[at + 6 * k + 1] - cy;
    const far = Math.hypot(dx, dy) || 1;
    ctx.fillStyle = colours.ink;
    ctx.fillText(String(k + 1), x + (12 * dx) / far, y + (12 * dy) / far);
  }
}

/** What of the in-between is shown. */
export interface MiddleOptions {
  readonly threads: boolean;
  readonly points: boolean;
  /** Has a part an area, or is it only drawn? */
  readonly isFilled: (part: PartPlan) => boolean;
}

/** Paints the in-between: its body, ways of points where asked for, and marks on folds, crossings and kinks. Returns what is wrong. */
export function paintMiddle(
  ctx: CanvasRenderingContext2D,
  plan: PlannedParts,
  progress: number,
  view: PictureView,
  colours: MatchColours,
  { threads, points, isFilled }: MiddleOptions,
): InBetweenMarks[] {
  const marks: InBetweenMarks[] = [];
  if (threads) for (const { plan: shift } of plan.parts) paintThreads(ctx, shift, view, colours);
  for (const part of plan.parts) {
    const frame = evaluate(part.plan, progress, frameOf(part.plan));
    marks.push(inBetweenMarks(part.plan, frame));
    ctx.beginPath();
    for (const contour of part.plan.contours) traceContour(ctx, contour, frame, view);
    ctx.globalAlpha = isFilled(part) ? 0.86 : 1;
    if (isFilled(part)) {
      ctx.fillStyle = colours.ink;
      ctx.fill(part.plan.fillRule);
    }
    ctx.globalAlpha = 1;
    ctx.strokeStyle = colours.ink;
    ctx.lineWidth = isFilled(part) ? 1 : 3;
    if (!isFilled(part)) ctx.stroke();
    const shares = anchorShares(part.plan);
    part.plan.contours.forEach(({ at, segments, closed, role }, c) => {
      if (role !== 'pair') return;
      for (let k = 0; k < (closed ? segments : segments + 1); k++) {
        const [x, y] = toPicture(view, frame[at + 6 * k], frame[at + 6 * k + 1]);
        ctx.beginPath();
        ctx.arc(x, y, points ? 4 : 2.4, 0, TAU);
        ctx.fillStyle = points ? colours.paper : hueAt(shares[c][k], colours.dark);
        ctx.fill();
        if (!points) continue;
        ctx.strokeStyle = hueAt(shares[c][k], colours.dark);
        ctx.lineWidth = 2;
        ctx.stroke();
      }
    });
  }
  for (const { folds, crossings, kinks } of marks) {
    for (const { x, y } of folds) ring(ctx, ...toPicture(view, x, y), 11, colours.broken, []);
    for (const { x, y } of crossings) ring(ctx, ...toPicture(view, x, y), 9, colours.look, [3, 3]);
    for (const { x, y } of kinks) wedge(ctx, ...toPicture(view, x, y), colours.look);
  }
  return marks;
}

/** The ways of the points from one outline to the other. */
function paintThreads(ctx: CanvasRenderingContext2D, plan: ShiftPlan, view: PictureView, colours: MatchColours): void {
  const shares = anchorShares(plan);
  ctx.lineWidth = 1;
  ctx.globalAlpha = 0.55;
  plan.contours.forEach((contour, c) => {
    if (contour.role !== 'pair') return;
    const count = contour.closed ? contour.segments : contour.segments + 1;
    for (let k = 0; k < count; k++) {
      const i = contour.at + 6 * k;
      ctx.strokeStyle = hueAt(shares[c][k], colours.dark);
      ctx.beginPath();
      ctx.moveTo(...toPicture(view, plan.from[i], plan.from[i + 1]));
      ctx.lineTo(...toPicture(view, plan.to[i], plan.to[i + 1]));
      ctx.stroke();
    }
  });
  ctx.globalAlpha = 1;
}

function traceContour(
  ctx: CanvasRenderingContext2D,
  { at, segments, closed }: PlanContour,
  p: Float64Array,
  view: PictureView,
): void {
  ctx.moveTo(...toPicture(view, p[at], p[at + 1]));
  for (let k = 0, i = at + 2; k < segments; k++, i += 6)
    ctx.bezierCurveTo(
      ...toPicture(view, p[i], p[i + 1]),
      ...toPicture(view, p[i + 2], p[i + 3]),
      ...toPicture(view, p[i + 4], p[i + 5]),
    );
  if (closed) ctx.closePath();
}

function ring(
  ctx: CanvasRenderingContext2D,
  x: number,
  y: number,
  radius: number,
  colour: string,
  dash: number[],
): void {
  ctx.beginPath();
  ctx.arc(x, y, radius, 0, TAU);
  ctx.strokeStyle = colour;
  ctx.lineWidth = 2.5;
  ctx.setLineDash(dash);
  ctx.stroke();
  ctx.setLineDash([]);
}

function wedge(ctx: CanvasRenderingContext2D, x: number, y: number, colour: string): void {
  ctx.beginPath();
  ctx.moveTo(x, y - 5);
  ctx.lineTo(x + 6, y - 15);
  ctx.lineTo(x - 6, y - 15);
  ctx.closePath();
  ctx.strokeStyle = colour;
  ctx.lineWidth = 2;
  ctx.stroke();
}
