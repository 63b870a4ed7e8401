import { type Easing, ease, type Figure, type Piece, railTimeline } from '@core';
import type { RailItem } from '../state';

/** Heights of the rail's rows, CSS px. */
export const RAIL = {
  height: 132,
  cardTop: 6,
  card: 44,
  /** The gap between cards, and how far a dragged card is lifted. */
  cardGap: 8,
  lift: 4,
  /** The bars, and how far beside their ends one can still grab them. */
  bar: 8,
  edge: 24,
  /** Bars alternate between two levels, so that an arc can show its easing as a rise or a fall. */
  upper: 68,
  lower: 98,
  ruler: 112,
  padding: 34,
  /** Room at the right for the last card and the add button. */
  room: 92,
  /** A thin strip per other figure, under the ruler. */
  strip: 14,
} as const;

/** The place of time 0 on the rail, px from its left. */
export const RAIL_PADDING = RAIL.padding;

const CURVE_STEPS = 40;
/** The largest zoom of the rail; at 1 the whole piece is visible. */
export const MOST_ZOOM = 40;

/** The width of the rail, px: that of its pane, or of all cards side by side, times a zoom from 1 to `MOST_ZOOM`. */
export function railWidth(pane: number, cards: number, zoom: number): number {
  const least = 4 + cards * (RAIL.card + RAIL.cardGap) + 2 * RAIL.card + 16;
  return Math.round(Math.max(pane, least) * Math.min(MOST_ZOOM, Math.max(1, zoom)));
}

/** The scroll position of a pane `pane` px wide that makes `x` visible: the current one, or with `x` near its left end (near its right when moving back). */
export function scrollToShow(x: number, scroll: number, pane: number): number {
  if (x >= scroll + SIGHT_PX && x <= scroll + pane - SIGHT_PX) return scroll;
  return Math.max(0, x < scroll + SIGHT_PX ? x - 0.85 * pane : x - 0.15 * pane);
}
/** A place closer to an edge than this counts as not visible. */
const SIGHT_PX = 16;

export interface BarLayout {
  readonly stop: number;
  readonly poseId: string;
  readonly x0: number;
  readonly x1: number;
  readonly y: number;
  readonly cardX: number;
  readonly held: boolean;
}

export interface ArcLayout {
  readonly shiftId: string;
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
  readonly easing: Easing;
  /** Path data of the easing curve from bar to bar. */
  readonly d: string;
}

export interface RailLayout {
  readonly width: number;
  /** CSS px per second. */
  readonly scale: number;
  readonly duration: number;
  readonly bars: readonly BarLayout[];
  readonly arcs: readonly ArcLayout[];
}

export const timeToX = (layout: Pick<RailLayout, 'scale'>, seconds: number): number =>
  RAIL.padding + seconds * layout.scale;
export const xToTime = (layout: Pick<RailLayout, 'scale'>, x: number): number =>
  layout.scale > 0 ? (x - RAIL.padding) / layout.scale : 0;

/** Lays out a figure's rail over `width` px. The whole piece fits, or `scale` (px per s) is kept during a gesture. */
export function layoutRail(
  piece: Piece,
  figure: Figure | undefined,
  width: number,
  pieceSeconds: number,
  scale?: number,
): RailLayout {
  const inner = Math.max(1, width - RAIL.padding - RAIL.room);
  const used = scale ?? (pieceSeconds > 0 ? inner / pieceSeconds : 0);
  if (!figure) return { width, scale: used, duration: pieceSeconds, bars: [], arcs: [] };
  const timeline = railTimeline(piece, figure);
  const at = (seconds: number): number => RAIL.padding + seconds * used;
  const level = (stop: number): number => (stop % 2 === 0 ? RAIL.lower : RAIL.upper);
  const wanted = timeline.stops.map((stop) => at(stop.start + stop.hold / 2) - RAIL.card / 2);
  const cards = spread(wanted, RAIL.card + RAIL.cardGap, 4, width - 2 * RAIL.card - 16);
  const bars = timeline.stops.map((stop, i) => ({
    stop: i,
    poseId: stop.poseId,
    x0: at(stop.start),
    x1: at(stop.start + stop.hold),
    y: level(i),
    cardX: cards[i],
    held: stop.held,
  }));
  const arcs = timeline.spans.map(({ shift, start, end }, i) => {
    const [x0, x1, y0, y1] = [at(start), at(end), level(i), level(i + 1)];
    return { shiftId: shift.id, x0, x1, y0, y1, easing: shift.easing, d: easingCurve(shift.easing, x0, x1, y0, y1) };
  });
  return { width, scale: used, duration: pieceSeconds, bars, arcs };
}

/** The easing curve as a path from one bar to the next. */
export function easingCurve(easing: Easing, x0: number, x1: number, y0: number, y1: number): string {
  if (easing.kind === 'cubic-bezier') {
    const x = (share: number): string => (x0 + (x1 - x0) * share).toFixed(2);
    const y = (share: number): string => (y0 + (y1 - y0) * share).toFixed(2);
    return `M${x(0)} ${y(0)}C${x(easing.x1)} ${y(easing.y1)} ${x(easing.x2)} ${y(easing.y2)} ${x(1)} ${y(1)}`;
  }
  let d = '';
  for (let i = 0; i <= CURVE_STEPS; i++) {
    const share = i / CURVE_STEPS;
    d += `${i === 0 ? 'M' : 'L'}${(x0 + (x1 - x0) * share).toFixed(2)} ${(y0 + (y1 - y0) * ease(easing, share)).toFixed(2)}`;
  }
  return d;
}

/** Height of the bead: it runs along bars, and along the curves of arcs. */
export function beadHeight(layout: RailLayout, seconds: number): number {
  const x = timeToX(layout, seconds);
  for (const arc of layout.arcs) {
    if (x > arc.x0 && x < arc.x1)
      return arc.y0 + (arc.y1 - arc.y0) * ease(arc.easing, (x - arc.x0) / (arc.x1 - arc.x0));
  }
  let height: number = RAIL.lower;
  for (const bar of layout.bars) if (bar.x0 <= x + 1e-6) height = bar.y;
  return height;
}

/** Moves positions apart to at least `gap`, in order and as little as possible, within [low, high]. If there are too many, they share the room evenly. */
export function spread(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  const n = wanted.length;
  if (n > 1 && gap * (n - 1) > high - low) return wanted.map((_, i) => low + ((high - low) * i) / (n - 1));
  const out = wanted.map((x) => Math.min(high, Math.max(low, x)));
  for (let i = 1; i < n; i++) out[i] = Math.max(out[i], out[i - 1] + gap);
  if (n > 0) out[n - 1] = Math.min(out[n - 1], high);
  for (let i = n - 2; i >= 0; i--) out[i] = Math.min(out[i], out[i + 1] - gap);
  return out;
}

/** A round interval between the ruler's marks, s, so that they are at least `least` px apart. */
export function rulerStep(scale: number, least: number): number {
  const steps = [0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300, 600];
  return steps.find((step) => step * scale >= least) ?? 1200;
}

/** Where a dropped pose goes: before the stop whose card lies right of x. */
export function insertionStop(layout: RailLayout, x: number): number {
  const next = layout.bars.findIndex((bar) => bar.cardX + RAIL.card / 2 > x);
  return next < 0 ? layout.bars.length : next;
}

/** What a box on the rail touches, in the order of time. Corners in px, in any order. */
export function itemsIn({ bars, arcs }: RailLayout, x0: number, y0: number, x1: number, y1: number): RailItem[] {
  const [left, right, top, bottom] = [Math.min(x0, x1), Math.max(x0, x1), Math.min(y0, y1), Math.max(y0, y1)];
  const touches = (l: number, r: number, t: number, b: number): boolean =>
    l <= right && r >= left && t <= bottom && b >= top;
  return bars.flatMap(({ stop, x0: from, x1: to, y, cardX }, i): RailItem[] => {
    const items: RailItem[] = [];
    const card = touches(cardX, cardX + RAIL.card, RAIL.cardTop, RAIL.cardTop + RAIL.card);
    if (card || touches(from, to, y, y + RAIL.bar)) items.push({ kind: 'stop', stop });
    const arc = arcs[i];
    if (arc && touches(arc.x0, arc.x1, Math.min(arc.y0, arc.y1), Math.max(arc.y0, arc.y1)))
      items.push({ kind: 'shift', shiftId: arc.shiftId });
    return items;
  });
}
