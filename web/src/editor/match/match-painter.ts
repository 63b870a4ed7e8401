import {
  cubicPoint,
  type Id,
  type InBetweenMarks,
  nearestOnCubic,
  type PlanContour,
  type PlannedParts,
  type ShiftPlan,
} from '@core';
import type { LitContour, MatchEditing } from './match-editing';
import { frameOf, hueOf, type MatchColours, paintMiddle, paintSide } from './paint-outlines';
import { locate } from './picture-places';
import { fitPicture, type PictureView, toPicture } from './picture-view';

export const PICTURES = ['a', 'middle', 'b'] as const;
/** The first outline, the in-between, the second outline. */
export type PictureId = (typeof PICTURES)[number];

/** What the room gives to paint on: for each picture its canvas and the layer of handles over it. */
export type PictureElements = Readonly<Record<PictureId, { canvas: HTMLCanvasElement; overlay: SVGSVGElement }>>;

/** A closed pair whose start point can be moved, by the contour of the first outline. */
export interface StartHandle {
  readonly key: Id;
  readonly partA: Id;
  readonly partB: Id;
  readonly contourA: Id;
  readonly contourB: Id;
  /** Is the second contour run against the way in which it is written? */
  readonly reversed: boolean;
}

/** The start points of a plan that have handles. */
export function startHandles(editing: MatchEditing, plan: PlannedParts | undefined): StartHandle[] {
  const at = editing.current();
  if (!plan || !at) return [];
  return plan.parts.flatMap(({ a, b, plan: shift }) =>
    shift.contours.flatMap((contour): StartHandle[] => {
      if (contour.role !== 'pair' || !a || !b || contour.a === undefined || contour.b === undefined) return [];
      if (contour.bridgesA.length + contour.bridgesB.length > 0) return [];
      const contourA = at.piece.parts[a]?.contours[contour.a];
      const contourB = at.piece.parts[b]?.contours[contour.b];
      if (!contourA || !contourB || (!contourA.closed && !contourB.closed)) return [];
      const reversed = contour.reversed === true;
      return [{ key: contourA.id, partA: a, partB: b, contourA: contourA.id, contourB: contourB.id, reversed }];
    }),
  );
}

/** How near the pointer must come to an outline to show where its place is in the other pictures, px. */
const ECHO_REACH = 14;

/** How a contour that is pointed at is drawn, px. */
const LIT_PX = 12;
const LIT_ALPHA = 0.22;

const UNIT: PictureView = { scale: 1, dx: 0, dy: 0 };

/** Paints the three pictures and puts the handles where they belong, outside of React. */
export class MatchPainter {
  readonly views: Record<PictureId, PictureView> = { a: UNIT, middle: UNIT, b: UNIT };
  private colours: MatchColours;
  private marks: InBetweenMarks[] = [];
  private waiting = 0;
  private readonly stops: (() => void)[];
  private readonly markListeners = new Set<(marks: InBetweenMarks[], progress: number) => void>();
  /** Where a handle that is being dragged is, canvas px; it does not wait for an answer. */
  readonly dragged = new Map<string, readonly [number, number]>();
  /** A line that follows the pointer, in px of the picture where it was begun. */
  rubber: { readonly picture: PictureId; readonly from: [number, number]; readonly to: [number, number] } | null = null;

  /** The place under the pointer, shown in all three pictures: a piece of a plan and a parameter on it. */
  private echo: { readonly plan: ShiftPlan; readonly at: number; readonly t: number; readonly hue: string } | null =
    null;
  private readonly spot = new Float64Array(2);

  constructor(
    readonly editing: MatchEditing,
    readonly elements: PictureElements,
  ) {
    this.colours = readColours();
    const observer = new ResizeObserver(() => this.ask());
    for (const id of PICTURES) observer.observe(elements[id].canvas);
    const theme = new MutationObserver(() => {
      this.colours = readColours();
      this.ask();
    });
    theme.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    this.stops = [editing.onPaint(() => this.ask()), () => observer.disconnect(), () => theme.disconnect()];
    this.ask();
  }

  destroy(): void {
    cancelAnimationFrame(this.waiting);
    for (const stop of this.stops) stop();
    this.markListeners.clear();
  }

  /** Tells what is wrong with the in-between whenever it was painted. */
  onMarks(listener: (marks: InBetweenMarks[], progress: number) => void): () => void {
    this.markListeners.add(listener);
    return () => void this.markListeners.delete(listener);
  }

  /** Paints before the next picture of the display. */
  ask = (): void => {
    if (this.waiting) return;
    this.waiting = requestAnimationFrame(() => {
      this.waiting = 0;
      this.paint();
    });
  };

  /** The in-between of a contour of the shown plan, as its vertices stand in the middle. */
  contours(): { readonly partA: Id; readonly contour: PlanContour; readonly plan: PlannedParts['parts'][number] }[] {
    return (this.editing.shown?.parts ?? []).flatMap((part) =>
      part.a ? part.plan.contours.map((contour) => ({ partA: part.a as Id, contour, plan: part })) : [],
    );
  }

  /** Shows where the place nearest to a point of a picture (canvas px) is in the others; without a point, nothing. */
  point(picture: PictureId, at: readonly [number, number] | null): void {
    const before = this.echo;
    this.echo = at && this.editing.dragging === 0 ? this.placeUnder(picture, at[0], at[1]) : null;
    if (before || this.echo) this.ask();
    // Where there is but one contour there is nothing to tell apart.
    const lit = this.echo && this.contours().length > 1 ? this.litBy(this.echo, picture === 'b' ? 'b' : 'a') : null;
    const was = this.editing.snapshot().lit;
    if (lit?.contour !== was?.contour || lit?.side !== was?.side) this.editing.change({ lit });
  }

  /** The contour of a side that a place of a plan belongs to. */
  private litBy({ plan, at }: { readonly plan: ShiftPlan; readonly at: number }, side: 'a' | 'b'): LitContour | null {
    const part = this.editing.shown?.parts.find((other) => other.plan === plan);
    const found = plan.contours.find((contour) => at >= contour.at && at < contour.at + 6 * contour.segments);
    const [partId, index] = [part?.[side], found?.[side]];
    if (!partId || index === undefined) return null;
    const contour = this.editing.current()?.piece.parts[partId]?.contours[index]?.id;
    return contour === undefined ? null : { side, contour };
  }

  /** Lights up the contour that is pointed at, and what it becomes, in a picture. */
  private paintLit(ctx: CanvasRenderingContext2D, picture: PictureId): void {
    const { lit } = this.editing.snapshot();
    const piece = this.editing.current()?.piece;
    if (!lit || !piece) return;
    const { scale, dx, dy } = this.views[picture];
    for (const part of this.editing.shown?.parts ?? []) {
      const id = part[lit.side];
      const index = id ? piece.parts[id]?.contours.findIndex(({ id: contour }) => contour === lit.contour) : -1;
      if (index === undefined || index < 0) continue;
      const p = this.numbersOf(part.plan, picture);
      ctx.beginPath();
      for (const contour of part.plan.contours) {
        if (contour[lit.side] !== index) continue;
        ctx.moveTo(p[contour.at] * scale + dx, p[contour.at + 1] * scale + dy);
        for (let k = 0, i = contour.at + 2; k < contour.segments; k++, i += 6)
          ctx.bezierCurveTo(
            p[i] * scale + dx,
            p[i + 1] * scale + dy,
            p[i + 2] * scale + dx,
            p[i + 3] * scale + dy,
            p[i + 4] * scale + dx,
            p[i + 5] * scale + dy,
          );
        if (contour.closed) ctx.closePath();
      }
      // See-through: the colours of the places stay in sight.
      ctx.globalAlpha = LIT_ALPHA;
      ctx.strokeStyle = this.colours.ink;
      ctx.lineWidth = LIT_PX;
      ctx.lineJoin = 'round';
      ctx.stroke();
      ctx.globalAlpha = 1;
    }
  }

  /** A ring where the first press of a tie waits for the second. */
  private paintWaiting(ctx: CanvasRenderingContext2D, picture: PictureId): void {
    const { waiting } = this.editing.snapshot();
    if (waiting?.side !== picture) return;
    const at = locate(this.editing.parts(waiting.side), waiting.place);
    if (!at) return;
    const [x, y] = toPicture(this.views[picture], at.x, at.y);
    ctx.beginPath();
    ctx.arc(x, y, 6, 0, 2 * Math.PI);
    ctx.strokeStyle = this.colours.ink;
    ctx.lineWidth = 2;
    ctx.stroke();
  }

  private placeUnder(picture: PictureId, x: number, y: number): MatchPainter['echo'] {
    let least = ECHO_REACH / this.views[picture].scale;
    let best: MatchPainter['echo'] = null;
    for (const { plan } of this.editing.shown?.parts ?? []) {
      const numbers = this.numbersOf(plan, picture);
      for (const { at, segments, role } of plan.contours) {
        if (role !== 'pair') continue;
        for (let k = 0, i = at; k < segments; k++, i += 6) {
          const { t, distance } = nearestOnCubic(numbers, i, x, y);
          if (distance >= least) continue;
          least = distance;
          best = { plan, at: i, t, hue: hueOf(plan, i, t, this.colours.dark) };
        }
      }
    }
    return best;
  }

  private numbersOf(plan: ShiftPlan, picture: PictureId): Float64Array {
    return picture === 'a' ? plan.from : picture === 'b' ? plan.to : frameOf(plan);
  }

  private placeEcho(): void {
    if (this.echo && !this.editing.shown?.parts.some(({ plan }) => plan === this.echo?.plan)) this.echo = null;
    const { echo } = this;
    for (const id of PICTURES) {
      const ring = this.elements[id].overlay.querySelector<SVGElement>('[data-key="echo"]');
      if (!ring) continue;
      ring.setAttribute('visibility', echo ? 'visible' : 'hidden');
      if (!echo) continue;
      cubicPoint(this.numbersOf(echo.plan, id), echo.at, echo.t, this.spot);
      const [x, y] = toPicture(this.views[id], this.spot[0], this.spot[1]);
      ring.setAttribute('cx', x.toFixed(2));
      ring.setAttribute('cy', y.toFixed(2));
      ring.style.fill = echo.hue;
    }
  }

  private paint(): void {
    const { editing, elements } = this;
    const plan = editing.shown;
    const { threads, numbers, tool } = editing.snapshot();
    for (const id of PICTURES) {
      const { canvas } = elements[id];
      const ratio = window.devicePixelRatio || 1;
      const [width, height] = [canvas.clientWidth, canvas.clientHeight];
      if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
        canvas.width = Math.round(width * ratio);
        canvas.height = Math.round(height * ratio);
      }
      const ctx = canvas.getContext('2d');
      if (!ctx) continue;
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
      ctx.clearRect(0, 0, width, height);
      if (!plan) continue;
      if (editing.dragging === 0) this.views[id] = fitPicture(plan, width, height);
      const { scale, dx, dy } = this.views[id];
      // For whoever wants to point at a place from outside.
      canvas.dataset.view = `${scale} ${dx} ${dy}`;
      if (id === 'middle') {
        const points = tool === 'touch-up';
        this.marks = paintMiddle(ctx, plan, editing.progress, this.views.middle, this.colours, {
          threads,
          points,
          isFilled: editing.isFilled,
        });
        for (const listener of this.markListeners) listener(this.marks, editing.progress);
      } else paintSide(ctx, plan, id, this.views[id], this.colours, numbers);
      this.paintLit(ctx, id);
      this.paintWaiting(ctx, id);
    }
    if (plan) this.placeHandles(plan);
    this.placeEcho();
  }

  private placeHandles(plan: PlannedParts): void {
    const { editing, elements, dragged } = this;
    for (const id of ['a', 'b'] as const) {
      const { overlay } = elements[id];
      const parts = editing.parts(id);
      for (const handle of overlay.querySelectorAll<SVGGElement>('[data-handle]')) {
        const name = handle.dataset.handle ?? '';
        const at = dragged.get(`${id}:${name}`) ?? this.placeOf(name, id, plan, parts);
        if (!at) {
          handle.setAttribute('visibility', 'hidden');
          continue;
        }
        const [x, y] = toPicture(this.views[id], at[0], at[1]);
        handle.setAttribute('visibility', 'visible');
        const turn = at[2] ?? 0;
        handle.setAttribute('transform', `translate(${x.toFixed(2)} ${y.toFixed(2)}) rotate(${turn.toFixed(1)})`);
      }
    }
    this.placeCutLines();
    const { rubber } = this;
    for (const id of PICTURES) {
      const line = elements[id].overlay.querySelector('[data-key="rubber"]');
      if (!line) continue;
      line.setAttribute('visibility', rubber?.picture === id ? 'visible' : 'hidden');
      if (rubber?.picture !== id) continue;
      line.setAttribute('x1', String(rubber.from[0]));
      line.setAttribute('y1', String(rubber.from[1]));
      line.setAttribute('x2', String(rubber.to[0]));
      line.setAttribute('y2', String(rubber.to[1]));
    }
  }

  /** Puts the line between the two handles of each drawn cut, and beyond them to the edge of the picture: it divides without end. */
  private placeCutLines(): void {
    for (const id of ['a', 'b'] as const) {
      const { overlay } = this.elements[id];
      for (const line of overlay.querySelectorAll<SVGElement>('[data-cut]')) {
        const ends = ([0, 1] as const).map((end) => {
          const key = `cut:${end}:${line.dataset.cut ?? ''}`;
          const at = this.dragged.get(`${id}:${key}`) ?? this.cutEnd(id, line.dataset.cut ?? '', end);
          return at && toPicture(this.views[id], at[0], at[1]);
        });
        const [p, q] = ends;
        line.setAttribute('visibility', p && q ? 'visible' : 'hidden');
        if (!p || !q) continue;
        const far = 2000 / (Math.hypot(q[0] - p[0], q[1] - p[1]) || 1);
        line.setAttribute('x1', (p[0] - far * (q[0] - p[0])).toFixed(1));
        line.setAttribute('y1', (p[1] - far * (q[1] - p[1])).toFixed(1));
        line.setAttribute('x2', (q[0] + far * (q[0] - p[0])).toFixed(1));
        line.setAttribute('y2', (q[1] + far * (q[1] - p[1])).toFixed(1));
      }
    }
  }

  /** An end of a drawn cut, canvas px. */
  cutEnd(side: 'a' | 'b', id: string, end: 0 | 1): readonly [number, number] | undefined {
    const cut = this.editing.current()?.shift.match.cuts.find((other) => other.id === id);
    const [part] = this.editing.parts(side);
    if (!cut || !part || cut.side !== (side === 'a' ? 'from' : 'to')) return undefined;
    const [a, b, c, d, e, f] = part.matrix;
    const [x, y] = [cut.line[2 * end], cut.line[2 * end + 1]];
    return [a * x + c * y + e, b * x + d * y + f];
  }

  /** Where a handle is, canvas px, and for start points the direction in which the outline leaves, degrees. */
  private placeOf(
    name: string,
    side: 'a' | 'b',
    plan: PlannedParts,
    parts: ReturnType<MatchEditing['parts']>,
  ): readonly [number, number, number?] | undefined {
    const [kind, key] = [name.slice(0, name.indexOf(':')), name.slice(name.indexOf(':') + 1)];
    const at = this.editing.current();
    if (!at) return undefined;
    if (kind === 'start') {
      for (const { a, plan: shift } of plan.parts) {
        const contour = shift.contours.find(
          (other) => other.role === 'pair' && a && at.piece.parts[a]?.contours[other.a ?? -1]?.id === key,
        );
        if (!contour) continue;
        const end = side === 'a' ? shift.from : shift.to;
        const i = contour.at;
        const ahead = [2, 4, 6].find((k) => Math.hypot(end[i + k] - end[i], end[i + k + 1] - end[i + 1]) > 1e-6) ?? 2;
        const turn = (Math.atan2(end[i + ahead + 1] - end[i + 1], end[i + ahead] - end[i]) * 180) / Math.PI;
        return [end[i], end[i + 1], turn];
      }
      return undefined;
    }
    if (kind === 'cut') return this.cutEnd(side, key.slice(2), key[0] === '0' ? 0 : 1);
    const tie = at.shift.match.ties.find(({ id }) => id === key);
    const found = tie && locate(parts, tie[side]);
    return found && [found.x, found.y];
  }
}

function readColours(): MatchColours {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ink: colour('--ink'),
    soft: colour('--ink-soft'),
    plum: colour('--plum'),
    cobalt: colour('--cobalt'),
    broken: colour('--broken'),
    look: colour('--look'),
    paper: colour('--paper-raised'),
    dark: document.documentElement.dataset.bsTheme === 'dark',
  };
}
