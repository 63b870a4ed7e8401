import {
  adjustableContours,
  adjustShape,
  dragShapeHandle,
  isGradient,
  mapPoint,
  type Paint,
  type Part,
  type PieceDraft,
  recordsLike,
  type ShapeHandle,
  type ShapeSource,
  shapeHandles,
} from '@core';
import { changePiece } from '../../state';
import { freshId } from '../../workers';
import { LivePose } from '../scene/live-pose';
import type { EditTarget } from '../scene/scene';
import { type Gesture, GRAB_PX, type NamedPlace, type Pen, type PointerInput, type ToolContext } from './tool';

/** The one adjustable part that is worked on, if it is just one. */
export function adjustablePart(
  targets: readonly EditTarget[],
): { target: EditTarget; part: Part; source: ShapeSource } | undefined {
  if (targets.length !== 1 || targets[0].targets.length !== 1) return undefined;
  const [part] = targets[0].targets;
  const { source } = part;
  return source && source.kind !== 'glyph' ? { target: targets[0], part, source } : undefined;
}

/** Dragging one of the handles by which a shape is adjusted. */
export function shapeHandleGesture(drawing: ToolContext, pointer: PointerInput): Gesture | null {
  const found = adjustablePart(drawing.targets());
  if (!found) return null;
  const { target, part, source } = found;
  const reach = GRAB_PX / pointer.zoom;
  const handle = shapeHandles(source).find(({ x, y }) => {
    const [hx, hy] = mapPoint(target.matrix, x, y);
    return Math.hypot(hx - pointer.x, hy - pointer.y) <= reach;
  });
  if (!handle) return null;
  const live = new LivePose(target.pose.placement, target.parts);
  const field = drawing.snapField(new Set([part.id]));
  let next = source;
  return {
    move: (p) => {
      const snapped = field.point(p.x, p.y, p.zoom);
      drawing.hint(snapped.hints);
      const [x, y] = mapPoint(target.inverse, snapped.x, snapped.y);
      next = dragShapeHandle(source, handle.id, x, y, p.shift);
      const contours = recordsLike(part.contours, adjustableContours(next), freshId);
      live.show(
        { ...target.pose.placement, rule: null },
        target.parts.map((other) => (other === part ? { ...part, contours, source: next } : other)),
      );
      drawing.showLive(target, live.parts);
    },
    end: () => {
      drawing.endLive();
      if (next === source) return;
      drawing.store.dispatch(
        changePiece(handle.label, (draft) => {
          // What is under the pointer must stay there: a living rule would move it away.
          draft.poses[target.pose.id].placement.rule = null;
          const at = { figure: target.figure.id, stop: target.stop, part: part.id };
          adjustShape(draft, at, source, next, freshId);
        }),
      );
    },
    cancel: () => drawing.endLive(),
  };
}

/** Where the handles of the one adjustable shape stand, canvas px. */
export function shapeHandlePlaces(drawing: ToolContext): NamedPlace[] {
  const found = adjustablePart(drawing.targets());
  if (!found) return [];
  return shapeHandles(found.source).map(({ x, y, label }) => {
    const [px, py] = mapPoint(found.target.matrix, x, y);
    return { x: px, y: py, name: `Handle: ${label}` };
  });
}

export function paintShapeHandles(drawing: ToolContext, pen: Pen): void {
  const found = adjustablePart(drawing.targets());
  if (!found) return;
  const { context: c, colours } = pen;
  for (const { x, y } of shapeHandles(found.source)) {
    const [sx, sy] = pen.toScreen(...mapPoint(found.target.matrix, x, y));
    c.beginPath();
    c.moveTo(sx, sy - 6);
    c.lineTo(sx + 6, sy);
    c.lineTo(sx, sy + 6);
    c.lineTo(sx - 6, sy);
    c.closePath();
    c.fillStyle = colours.accent;
    c.fill();
    c.strokeStyle = colours.paper;
    c.lineWidth = 1.5;
    c.stroke();
  }
}

/** Where a gradient can be taken hold of, in the pose's own coordinates. */
export function gradientHandles(paint: Paint | null): ShapeHandle[] {
  if (!isGradient(paint)) return [];
  if (paint.kind === 'linear')
    return [
      { id: 'from', label: 'Gradient start', x: paint.from[0], y: paint.from[1] },
      { id: 'to', label: 'Gradient end', x: paint.to[0], y: paint.to[1] },
    ];
  const a = (paint.rotation * Math.PI) / 180;
  const [cx, cy] = paint.centre;
  const [rx, ry] = paint.radii;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const at = (u: number, v: number): [number, number] => [cx + c * rx * u - s * ry * v, cy + s * rx * u + c * ry * v];
  const handle = (id: string, label: string, [x, y]: [number, number]): ShapeHandle => ({ id, label, x, y });
  return [
    handle('rx', 'Gradient width', at(1, 0)),
    handle('ry', 'Gradient height', at(0, 1)),
    handle('focus', 'Gradient focus', at(...paint.focus)),
    handle('centre', 'Gradient centre', [cx, cy]),
  ];
}

/** The gradient after a handle was dragged to (x, y) in the pose's own coordinates. */
export function dragGradientHandle(paint: Paint, id: string, x: number, y: number): Paint {
  if (!isGradient(paint)) return paint;
  if (paint.kind === 'linear') return { ...paint, [id]: [x, y] };
  const a = (paint.rotation * Math.PI) / 180;
  const [dx, dy] = [x - paint.centre[0], y - paint.centre[1]];
  const reach = Math.max(0.01, Math.hypot(dx, dy));
  if (id === 'centre') return { ...paint, centre: [x, y] };
  if (id === 'rx') return { ...paint, radii: [reach, paint.radii[1]], rotation: (Math.atan2(dy, dx) * 180) / Math.PI };
  if (id === 'ry')
    return { ...paint, radii: [paint.radii[0], reach], rotation: (Math.atan2(dy, dx) * 180) / Math.PI - 90 };
  const u = (Math.cos(a) * dx + Math.sin(a) * dy) / (paint.radii[0] || 1);
  const v = (-Math.sin(a) * dx + Math.cos(a) * dy) / (paint.radii[1] || 1);
  const out = Math.hypot(u, v);
  const k = out > 0.98 ? 0.98 / out : 1;
  // The focus lies on the centre until it is taken clearly away from it.
  return { ...paint, focus: out < 0.06 ? [0, 0] : [u * k, v * k] };
}

/** The gradient of the single part that is worked on. */
function gradientPart(
  drawing: ToolContext,
): { target: EditTarget; part: Part; which: 'fill' | 'stroke'; paint: Paint } | undefined {
  const targets = drawing.targets();
  if (targets.length !== 1 || targets[0].targets.length !== 1) return undefined;
  const [part] = targets[0].targets;
  const which = drawing.store.getState().drawing.paints;
  const paint = which === 'fill' ? part.fill : (part.stroke?.paint ?? null);
  return isGradient(paint) ? { target: targets[0], part, which, paint } : undefined;
}

export function gradientGesture(drawing: ToolContext, pointer: PointerInput): Gesture | null {
  const found = gradientPart(drawing);
  if (!found) return null;
  const { target, part, which, paint } = found;
  const reach = GRAB_PX / pointer.zoom;
  const handle = gradientHandles(paint).find(({ x, y }) => {
    const [hx, hy] = mapPoint(target.matrix, x, y);
    return Math.hypot(hx - pointer.x, hy - pointer.y) <= reach;
  });
  if (!handle) return null;
  const live = new LivePose(target.pose.placement, target.parts);
  let next: Paint = paint;
  const painted = (): Part =>
    which === 'fill' ? { ...part, fill: next } : { ...part, stroke: part.stroke && { ...part.stroke, paint: next } };
  return {
    move: (p) => {
      const [x, y] = mapPoint(target.inverse, p.x, p.y);
      next = dragGradientHandle(paint, handle.id, x, y);
      live.show(
        target.pose.placement,
        target.parts.map((other) => (other === part ? painted() : other)),
      );
      drawing.showLive(target, live.parts);
    },
    end: () => {
      drawing.endLive();
      if (next !== paint)
        drawing.store.dispatch(
          changePiece(handle.label, (draft) => void (draft.parts[part.id] = painted() as PieceDraft['parts'][string])),
        );
    },
    cancel: () => drawing.endLive(),
  };
}

export function paintGradient(drawing: ToolContext, pen: Pen): void {
  const found = gradientPart(drawing);
  if (!found) return;
  const { context: c, colours } = pen;
  const places = gradientHandles(found.paint).map(({ id, x, y }) => ({
    id,
    at: pen.toScreen(...mapPoint(found.target.matrix, x, y)),
  }));
  const hub = places.find(({ id }) => id === 'centre' || id === 'from');
  c.strokeStyle = colours.cobalt;
  c.lineWidth = 1.5;
  for (const { at } of places) {
    if (!hub) continue;
    c.beginPath();
    c.moveTo(hub.at[0], hub.at[1]);
    c.lineTo(at[0], at[1]);
    c.stroke();
  }
  for (const { at } of places) {
    c.beginPath();
    c.arc(at[0], at[1], 5, 0, 2 * Math.PI);
    c.fillStyle = colours.paper;
    c.fill();
    c.stroke();
  }
}
