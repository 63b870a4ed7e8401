import { type Figure, type Id, type Piece, railTimeline, toMillionths } from '@core';
import { followPointer } from '../editor';
import { changePiece, chosenFigure, makeChange, type Recipe } from '../state';
import type { RailGestureContext } from './gestures';
import { RAIL, type RailLayout, timeToX } from './layout';

const DRAG_START_PX = 4;
/** Ends of bars nearer to each other than this meet, CSS px. */
const MEETS_PX = 6;

/** Where the bars and lines of a strip are drawn. */
export function applyStrip(svg: SVGSVGElement, piece: Piece, figure: Figure, layout: RailLayout): void {
  const strip = svg.querySelector(`[data-strip="${CSS.escape(figure.id)}"]`);
  if (!strip) return;
  const { stops, spans } = railTimeline(piece, figure);
  const set = (selector: string, k: number, attributes: Record<string, number>): void => {
    const element = strip.querySelectorAll(selector)[k];
    if (element) for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value));
  };
  spans.forEach(({ start, end }, k) => set('line', k, { x1: timeToX(layout, start), x2: timeToX(layout, end) }));
  stops.forEach(({ start, hold }, k) => {
    const [x, width] = [timeToX(layout, start), Math.max(3, hold * layout.scale)];
    set('.rail-strip-bar', k, { x, width });
    set('.rail-strip-edge', k, { x: x + width - 4 });
  });
}

/** When the bars of a figure begin and end, s. */
function barEnds(piece: Piece, figure: Figure | undefined): number[] {
  return figure ? railTimeline(piece, figure).stops.flatMap(({ start, hold }) => [start, start + hold]) : [];
}

/** The shift of some times by which one of them meets another, or `wanted` itself on a whole frame. */
export function aligned(
  wanted: number,
  times: readonly number[],
  others: readonly number[],
  frame: number,
  reach: number,
): number {
  let best = Math.round(wanted / frame) * frame;
  let nearest = reach;
  for (const time of times)
    for (const other of others) {
      const off = Math.abs(time + wanted - other);
      if (off >= nearest) continue;
      nearest = off;
      best = other - time;
    }
  return best;
}

interface StripDrag {
  readonly figureId: Id;
  /** The pose whose hold is changed; left out: the whole figure is moved. */
  readonly poseId?: Id;
  /** A press without a drag. */
  readonly choose: () => void;
}

/**
 * Moves another figure in time by its strip, or changes one of its holds by the end of a bar: to whole frames, and to where bars of the chosen figure begin and end.
 */
export function dragStrip(
  { editor, svg, layout }: RailGestureContext,
  event: React.PointerEvent,
  { figureId, poseId, choose }: StripDrag,
): void {
  const { document, session } = editor.store.getState();
  const { piece } = document;
  const figure = piece?.figures[figureId];
  if (!piece || !figure) return;
  const { scale } = layout();
  const frame = piece.canvas.rate.den / piece.canvas.rate.num;
  const others = barEnds(piece, chosenFigure(piece, session.selection));
  const { stops } = railTimeline(piece, figure);
  const own = poseId
    ? stops.filter((stop) => stop.poseId === poseId).map(({ start, hold }) => start + hold)
    : barEnds(piece, figure);
  const startX = event.clientX;
  let change: { readonly name: string; readonly recipe: Recipe } | null = null;
  let dragging = false;
  followPointer(event, {
    move: ({ clientX }) => {
      if (!dragging && Math.abs(clientX - startX) < DRAG_START_PX) return;
      dragging = true;
      const by = aligned((clientX - startX) / scale, own, others, frame, MEETS_PX / scale);
      change = poseId ? holdChange(piece, poseId, by) : startChange(figure, by);
      const copy = makeChange(piece, '', change.recipe)?.piece ?? piece;
      applyStrip(svg, copy, copy.figures[figureId], layout());
    },
    end: (up) => {
      applyStrip(svg, piece, figure, layout());
      if (!up) return;
      if (!dragging) choose();
      else if (change) editor.store.dispatch(changePiece(change.name, change.recipe));
    },
  });
}

/** A figure that begins so many s later, or earlier, but not before the piece. */
export function startChange(figure: Figure, by: number): { readonly name: string; readonly recipe: Recipe } {
  const start = toMillionths(Math.max(0, figure.start + by));
  return {
    name: `Start ${figure.name} at ${start} s`,
    recipe: (draft) => void (draft.figures[figure.id].start = start),
  };
}

function holdChange(piece: Piece, poseId: Id, by: number): { readonly name: string; readonly recipe: Recipe } {
  const pose = piece.poses[poseId];
  const hold = toMillionths(Math.max(0, pose.hold + by));
  return { name: `Hold ${pose.name} ${hold} s`, recipe: (draft) => void (draft.poses[poseId].hold = hold) };
}

/** The middle of a strip, CSS px from the rail's top. */
export const stripY = (index: number): number => RAIL.height + RAIL.strip * (index + 0.5) - 2;
