import { IDENTITY, invert, type MatchChoices, type Matrix, mapPoint, type TouchUpPoint } from '@core';
import type { AppStore } from '../../state';
import { followPointer, type PointerFollower } from '../viewport/follow-pointer';
import {
  addCut,
  addShiftPoint,
  addTie,
  setCuts,
  setPair,
  setStarts,
  setTies,
  setTouchUps,
  withCutEnd,
  withStart,
  withTie,
  withTouchUp,
} from './match-actions';
import type { MatchPainter, PictureId, StartHandle } from './match-painter';
import { contourNear, locate, type OutlinePlace, placeNear } from './picture-places';
import { fromPicture, toPicture } from './picture-view';

/** px on the screen */
const REACH = 16;
const SNAP = 9;
const CLICK = 4;

/** What a gesture in the Match room works with. */
export interface MatchGesture {
  readonly store: AppStore;
  readonly painter: MatchPainter;
}

/** Follows a pointer over the pictures. When it ends, the preview is removed and the piece is shown again. */
function follow(event: React.PointerEvent, painter: MatchPainter, on: PointerFollower): void {
  painter.editing.dragging++;
  followPointer(event, {
    move: on.move,
    end: (up) => {
      painter.editing.dragging--;
      painter.rubber = null;
      painter.dragged.clear();
      on.end(up);
      painter.editing.settle();
      painter.ask();
    },
  });
}

/** Where a pointer is on a picture, canvas px. */
function onPicture(
  painter: MatchPainter,
  picture: PictureId,
  event: { clientX: number; clientY: number },
): [number, number] {
  const box = painter.elements[picture].canvas.getBoundingClientRect();
  return fromPicture(painter.views[picture], event.clientX - box.left, event.clientY - box.top);
}

/** Draws a line from a place on a picture (canvas px) to the pointer, until the gesture ends. */
function stretch(
  event: React.PointerEvent,
  painter: MatchPainter,
  picture: PictureId,
  from: readonly [number, number],
  { end }: Pick<PointerFollower, 'end'>,
): void {
  const begun = toPicture(painter.views[picture], ...from);
  follow(event, painter, {
    move: (move) => {
      painter.rubber = {
        picture,
        from: begun,
        to: toPicture(painter.views[picture], ...onPicture(painter, picture, move)),
      };
      painter.ask();
    },
    end,
  });
}

/** The outline place under a pointer on a side. */
function under(
  painter: MatchPainter,
  side: 'a' | 'b',
  event: { clientX: number; clientY: number },
  only?: string,
): OutlinePlace | undefined {
  const [x, y] = onPicture(painter, side, event);
  const { scale } = painter.views[side];
  return placeNear(painter.editing.parts(side), x, y, REACH / scale, SNAP / scale, only);
}

/** The picture that a pointer is over. */
function pictureUnder(painter: MatchPainter, event: { clientX: number; clientY: number }): PictureId | undefined {
  return (['a', 'middle', 'b'] as const).find((id) => {
    const box = painter.elements[id].canvas.getBoundingClientRect();
    return (
      event.clientX >= box.left && event.clientX <= box.right && event.clientY >= box.top && event.clientY <= box.bottom
    );
  });
}

const choices = (painter: MatchPainter): MatchChoices | undefined => painter.editing.current()?.shift.match;

/** The start points of a pair as they are shown now. */
export function startPlaces(
  painter: MatchPainter,
  handle: StartHandle,
): { a: OutlinePlace; b: OutlinePlace } | undefined {
  const plan = painter.editing.shown?.parts.find(({ a, b }) => a === handle.partA && b === handle.partB)?.plan;
  const at = painter.editing.current();
  // A choice counts at once, even before its plan has arrived.
  for (const start of at?.shift.match.starts ?? []) {
    const a = locate(painter.editing.parts('a'), start.a);
    const b = locate(painter.editing.parts('b'), start.b);
    if (a?.contourId === handle.contourA && b?.contourId === handle.contourB) return { a, b };
  }
  const contour = plan?.contours.find(
    (other) => other.role === 'pair' && at?.piece.parts[handle.partA].contours[other.a ?? -1]?.id === handle.contourA,
  );
  if (!plan || !contour) return undefined;
  const near = (side: 'a' | 'b', numbers: Float64Array, only: string): OutlinePlace | undefined =>
    placeNear(painter.editing.parts(side), numbers[contour.at], numbers[contour.at + 1], Infinity, 0.02, only);
  const a = near('a', plan.from, handle.contourA);
  const b = near('b', plan.to, handle.contourB);
  return a && b && { a, b };
}

/** Drags a start point round its outline. The other start point stays, and the in-between follows. */
export function dragStart(
  { store, painter }: MatchGesture,
  event: React.PointerEvent,
  side: 'a' | 'b',
  handle: StartHandle,
): void {
  const at = painter.editing.current();
  const now = startPlaces(painter, handle);
  if (!at || !now) return;
  let next: MatchChoices | undefined;
  follow(event, painter, {
    move: (move) => {
      const place = under(painter, side, move, side === 'a' ? handle.contourA : handle.contourB);
      if (!place) return;
      const pair = { ...now, [side]: place };
      next = withStart(at.shift.match, { a: pair.a.place, b: pair.b.place }, pair.a.anchorIds, pair.b.anchorIds);
      painter.dragged.set(`${side}:start:${handle.key}`, [place.x, place.y]);
      painter.editing.tryOut(next);
      painter.ask();
    },
    end: (up) => {
      if (up && next) setStarts(store, at.shift.id, next.starts);
    },
  });
}

/** Drags one end of a tie along its outline. */
export function dragTie(
  { store, painter }: MatchGesture,
  event: React.PointerEvent,
  side: 'a' | 'b',
  id: string,
): void {
  const at = painter.editing.current();
  const tie = at?.shift.match.ties.find((other) => other.id === id);
  const now = tie && locate(painter.editing.parts(side), tie[side]);
  if (!at || !now) return;
  let next: MatchChoices | undefined;
  follow(event, painter, {
    move: (move) => {
      const place = under(painter, side, move, now.contourId);
      if (!place) return;
      next = withTie(at.shift.match, id, side, place.place);
      painter.dragged.set(`${side}:tie:${id}`, [place.x, place.y]);
      painter.editing.tryOut(next);
      painter.ask();
    },
    end: (up) => {
      if (up && next) setTies(store, at.shift.id, next.ties);
    },
  });
}

/** A press on one of the outlines, handled by the current tool. */
export function pressSide(gesture: MatchGesture, event: React.PointerEvent, side: 'a' | 'b'): void {
  const { painter } = gesture;
  const at = painter.editing.current();
  if (!at) return;
  const { tool } = painter.editing.snapshot();
  if (tool === 'cut') drawCut(gesture, event, side, at.shift.id);
  else if (tool === 'pair') dragPair(gesture, event, side, at.shift.id);
  else pressOutline(gesture, event, side, at.shift.id);
}

/** Adds a point, or begins or ends a tie. */
function pressOutline(gesture: MatchGesture, event: React.PointerEvent, side: 'a' | 'b', shiftId: string): void {
  const { painter, store } = gesture;
  const { tool, waiting: first } = painter.editing.snapshot();
  const place = under(painter, side, event);
  if (!place) {
    painter.editing.change({ waiting: null });
    return;
  }
  if (tool === 'point') {
    if (side === 'a') addShiftPoint(store, shiftId, place.place);
    return;
  }
  if (tool !== 'tie') return;
  if (first && first.side !== side) {
    painter.editing.change({ waiting: null });
    addTie(store, shiftId, side === 'a' ? { a: place.place, b: first.place } : { a: first.place, b: place.place });
    return;
  }
  const other = side === 'a' ? 'b' : 'a';
  stretch(event, painter, side, [place.x, place.y], {
    end: (up) => {
      if (!up) return;
      if (Math.hypot(up.clientX - event.clientX, up.clientY - event.clientY) < CLICK) {
        painter.editing.change({ waiting: { side, place: place.place } });
        return;
      }
      if (pictureUnder(painter, up) !== other) return;
      const end = under(painter, other, up);
      if (end)
        addTie(store, shiftId, side === 'a' ? { a: place.place, b: end.place } : { a: end.place, b: place.place });
    },
  });
}

/** Drags from a contour to the one that it shall become on the other side. */
function dragPair({ store, painter }: MatchGesture, event: React.PointerEvent, side: 'a' | 'b', shiftId: string): void {
  const [x, y] = onPicture(painter, side, event);
  const from = contourNear(painter.editing.parts(side), x, y, (3 * REACH) / painter.views[side].scale);
  if (!from) return;
  const other = side === 'a' ? 'b' : 'a';
  stretch(event, painter, side, [x, y], {
    end: (up) => {
      if (!up) return;
      const over = pictureUnder(painter, up);
      // Dropped on the in-between: the contour arrives or leaves alone.
      if (over === 'middle') {
        setPair(store, shiftId, side === 'a' ? { a: from.contourId, b: null } : { a: null, b: from.contourId });
        return;
      }
      if (over !== other) return;
      const [u, v] = onPicture(painter, other, up);
      const to = contourNear(painter.editing.parts(other), u, v, (3 * REACH) / painter.views[other].scale);
      if (!to) return;
      const [a, b] = side === 'a' ? [from, to] : [to, from];
      setPair(store, shiftId, { a: a.contourId, b: b.contourId });
    },
  });
}

/** Drags the line that cuts a solid. */
function drawCut({ store, painter }: MatchGesture, event: React.PointerEvent, side: 'a' | 'b', shiftId: string): void {
  const begun = onPicture(painter, side, event);
  stretch(event, painter, side, begun, {
    end: (up) => {
      if (!up || Math.hypot(up.clientX - event.clientX, up.clientY - event.clientY) < CLICK) return;
      const [part] = painter.editing.parts(side);
      if (!part) return;
      const into = intoPart(part);
      addCut(store, shiftId, {
        side: side === 'a' ? 'from' : 'to',
        line: [...mapPoint(into, ...begun), ...mapPoint(into, ...onPicture(painter, side, up))],
      });
    },
  });
}

/** Drags one end of a drawn cut; the in-between follows. */
export function dragCutEnd(
  { store, painter }: MatchGesture,
  event: React.PointerEvent,
  side: 'a' | 'b',
  id: string,
  end: 0 | 1,
): void {
  const at = painter.editing.current();
  if (!at || !painter.cutEnd(side, id, end)) return;
  let next: MatchChoices | undefined;
  follow(event, painter, {
    move: (move) => {
      const to = onPicture(painter, side, move);
      next = movedCut(painter, side, id, end, to);
      painter.dragged.set(`${side}:cut:${end}:${id}`, to);
      if (next) painter.editing.tryOut(next);
      painter.ask();
    },
    end: (up) => {
      if (up && next) setCuts(store, at.shift.id, next.cuts);
    },
  });
}

/** The decisions with one end of a drawn cut moved to a point, canvas px. */
export function movedCut(
  painter: MatchPainter,
  side: 'a' | 'b',
  id: string,
  end: 0 | 1,
  [x, y]: readonly [number, number],
): MatchChoices | undefined {
  const match = choices(painter);
  const [part] = painter.editing.parts(side);
  return match && part && withCutEnd(match, id, end, mapPoint(intoPart(part), x, y));
}

/** Tells the painter where the pointer is, so that all pictures mark the same place. */
export function pointAt(
  painter: MatchPainter,
  picture: PictureId,
  event: PointerEvent | React.PointerEvent | null,
): void {
  painter.point(picture, event && onPicture(painter, picture, event));
}

/** From the canvas to a part's own coordinates. A part of zero size has none, so canvas px are used. */
const intoPart = ({ matrix }: { readonly matrix: Matrix }): Matrix => invert(matrix) ?? IDENTITY;

/** A point of the in-between that can be moved: its place on the first outline, and its position at the shown progress. */
export interface TouchPoint {
  readonly place: OutlinePlace;
  readonly x: number;
  readonly y: number;
}

/** The points of the in-between for touch-ups. Pairs with slits or cuts have none. */
export function touchPoints(painter: MatchPainter, frames: ReadonlyMap<object, Float64Array>): TouchPoint[] {
  const parts = painter.editing.parts('a');
  return painter.contours().flatMap(({ contour, plan, partA }) => {
    const frame = frames.get(plan);
    const record = painter.editing.current()?.piece.parts[partA]?.contours[contour.a ?? -1];
    if (!frame || !record || contour.role !== 'pair') return [];
    const count = contour.closed ? contour.segments : contour.segments + 1;
    return Array.from({ length: count }, (_, k) => {
      const i = contour.at + 6 * k;
      const place = placeNear(parts, plan.plan.from[i], plan.plan.from[i + 1], Infinity, 0.002, record.id);
      return place && { place, x: frame[i], y: frame[i + 1] };
    }).filter((point) => point !== undefined);
  });
}

/** The decisions with a point moved by (dx, dy) canvas px at the shown progress. */
export function movedPoint(painter: MatchPainter, point: TouchPoint, dx: number, dy: number): MatchChoices | undefined {
  const match = choices(painter);
  const part = painter.editing.parts('a').find((other) => other.part.id === point.place.partId);
  if (!match || !part) return undefined;
  const [a, b, c, d] = intoPart(part);
  const by: [number, number] = [a * dx + c * dy, b * dx + d * dy];
  const moved: TouchUpPoint = { place: point.place.place, by, before: [0, 0], after: [0, 0] };
  return withTouchUp(match, +painter.editing.progress.toFixed(3), moved);
}

/** Drags a point of the in-between. */
export function dragTouchPoint(
  { store, painter }: MatchGesture,
  event: React.PointerEvent,
  points: readonly TouchPoint[],
): void {
  const at = painter.editing.current();
  const [x, y] = onPicture(painter, 'middle', event);
  const { progress } = painter.editing;
  if (!at || progress <= 0 || progress >= 1) return;
  let best: TouchPoint | undefined;
  let least = REACH / painter.views.middle.scale;
  for (const point of points) {
    const away = Math.hypot(point.x - x, point.y - y);
    if (away < least) [least, best] = [away, point];
  }
  if (!best) return;
  const grabbed = best;
  let next: MatchChoices | undefined;
  follow(event, painter, {
    move: (move) => {
      const [u, v] = onPicture(painter, 'middle', move);
      next = movedPoint(painter, grabbed, u - x, v - y);
      if (next) painter.editing.tryOut(next);
    },
    end: (up) => {
      if (up && next) setTouchUps(store, at.shift.id, next.touchUps, 'Touch up the in-between');
    },
  });
}
