import { type AnchorRef, type FramePart, type Id, kindOf, mapPoint, movedAnchor, type Part, withHandle } from '@core';
import { changePiece, drawingActions } from '../../state';
import { chooseFigure } from '../actions/figure-actions';
import { addPoint, chosenAnchors, deleteChosenAnchors, standByHand, writeAnchors } from '../actions/point-actions';
import { coincident, hitOutline, nearestAnchor, type PlacedAnchor, placedAnchors } from '../hit/hit-anchors';
import { hitPart } from '../hit/hit-parts';
import { LiveContour, LivePose } from '../scene/live-pose';
import type { EditTarget } from '../scene/scene';
import { snapAngle } from '../snap/snap';
import { type Band, orderedBand, paintBand } from './band';
import { paintShapeHandles, shapeHandleGesture, shapeHandlePlaces } from './shape-handles';
import { DONE, DRAG_PX, type Gesture, GRAB_PX, type Pen, type PointerInput, type Tool, type ToolContext } from './tool';

const sameRef = (p: AnchorRef, q: AnchorRef): boolean => p.anchor === q.anchor && p.part === q.part;

/** Every contour that a gesture moves anchors of, drawn in place. */
class LiveAnchors {
  private readonly contours = new Map<Id, LiveContour>();
  private readonly poses = new Map<Id, { target: EditTarget; live: LivePose }>();

  constructor(
    private readonly drawing: ToolContext,
    anchors: readonly PlacedAnchor[],
  ) {
    for (const { target, part, contour } of anchors) {
      let entry = this.poses.get(target.figure.id);
      if (!entry) {
        entry = { target, live: new LivePose(target.pose.placement, target.parts) };
        this.poses.set(target.figure.id, entry);
      }
      if (this.contours.has(contour.id)) continue;
      const drawn: FramePart = entry.live.parts[target.parts.findIndex(({ id }) => id === part.id)];
      const at = drawn.contours[part.contours.findIndex(({ id }) => id === contour.id)].at;
      this.contours.set(contour.id, new LiveContour(part.id, contour, target.base, drawn.points, at));
    }
  }

  contour(placed: PlacedAnchor): LiveContour {
    return this.contours.get(placed.contour.id) as LiveContour;
  }

  show(): void {
    for (const { target, live } of this.poses.values()) this.drawing.showLive(target, live.parts);
    this.drawing.repaint();
  }

  commit(name: string): void {
    this.drawing.store.dispatch(
      changePiece(name, (draft) => {
        for (const live of this.contours.values())
          writeAnchors(draft, { part: live.part, contour: live.contour.id }, live.changes());
        standByHand(
          draft,
          [...this.poses.values()].map(({ target }) => target.pose.id),
        );
      }),
    );
  }
}

/** Chooses and moves points and their handles, adds points on the outline. */
export function createPointsTool(drawing: ToolContext): Tool {
  const { store } = drawing;
  let band: Band | null = null;
  /** Anchors as a gesture has moved them, for painting. */
  let moving: Map<Id, readonly [number, number]> | null = null;

  // Where all anchors stand is worked out once for what is worked on, not for every painting.
  let known: { targets: readonly EditTarget[]; anchors: PlacedAnchor[] } | null = null;
  const all = (): PlacedAnchor[] => {
    const targets = drawing.targets();
    if (known?.targets !== targets) known = { targets, anchors: placedAnchors(targets) };
    return known.anchors;
  };
  /** Anchors of every figure in sight, for those that lie on each other. */
  const everywhere = (): PlacedAnchor[] =>
    placedAnchors(
      drawing
        .shown()
        .filter(({ figure }) => !figure.hidden && !figure.locked)
        .map((shown) => ({ ...shown, targets: shown.parts })),
    );
  const withCoincident = (chosen: readonly PlacedAnchor[]): PlacedAnchor[] =>
    store.getState().drawing.together && chosen.length > 0 ? coincident(chosen, everywhere()) : [...chosen];
  const choose = (anchors: readonly PlacedAnchor[]): void =>
    void store.dispatch(drawingActions.anchorsChosen(anchors.map(({ ref }) => ref)));

  const handleGesture = (pointer: PointerInput): Gesture | null => {
    const reach = GRAB_PX / pointer.zoom;
    for (const placed of chosenAnchors(store, drawing.seconds())) {
      for (const side of ['out', 'in'] as const) {
        const handle = placed.anchor[side];
        if (!handle) continue;
        const [hx, hy] = mapPoint(placed.target.matrix, handle[0], handle[1]);
        if (Math.hypot(hx - pointer.x, hy - pointer.y) > reach) continue;
        return dragHandle(placed, side);
      }
    }
    return null;
  };

  const dragHandle = (placed: PlacedAnchor, side: 'in' | 'out'): Gesture => {
    const live = new LiveAnchors(drawing, [placed]);
    const contour = live.contour(placed);
    let moved = false;
    return {
      move: (p) => {
        const [x, y] = p.shift ? snapAngle(placed.x, placed.y, p.x, p.y, 15) : [p.x, p.y];
        const near = Math.hypot(x - placed.x, y - placed.y) * p.zoom < 3;
        const to = near ? placed.anchor.at : mapPoint(placed.target.inverse, x, y);
        contour.set(placed.index, withHandle(placed.anchor, side, to, p.alt));
        moved = true;
        live.show();
      },
      end: () => {
        drawing.endLive();
        if (moved) live.commit('Move a handle');
      },
      cancel: () => drawing.endLive(),
    };
  };

  const moveGesture = (
    pointer: PointerInput,
    held: PlacedAnchor,
    anchors: readonly PlacedAnchor[],
    onClick: () => unknown,
  ): Gesture => {
    let live: LiveAnchors | undefined;
    const skip = new Set(anchors.map(({ ref }) => ref.anchor));
    const field = drawing.snapField(new Set(), skip);
    let moved: readonly [number, number] | undefined;
    return {
      move: (p) => {
        let [x, y] = [held.x + p.x - pointer.x, held.y + p.y - pointer.y];
        if (!moved && Math.hypot(x - held.x, y - held.y) * p.zoom < DRAG_PX) return;
        if (p.shift) [x, y] = snapAngle(held.x, held.y, x, y);
        else if (!p.alt) {
          const snapped = field.point(x, y, p.zoom);
          drawing.hint(snapped.hints);
          [x, y] = [snapped.x, snapped.y];
        }
        live ??= new LiveAnchors(drawing, anchors);
        const [dx, dy] = [x - held.x, y - held.y];
        moved = [dx, dy];
        moving = new Map();
        for (const placed of anchors) {
          const m = placed.target.inverse;
          const [ox, oy] = [m[0] * dx + m[2] * dy, m[1] * dx + m[3] * dy];
          live.contour(placed).set(placed.index, movedAnchor(placed.anchor, ox, oy));
          moving.set(placed.ref.anchor, [dx, dy]);
        }
        live.show();
      },
      end: () => {
        moving = null;
        drawing.endLive();
        if (!moved || !live) {
          onClick();
          return;
        }
        const figures = new Set(anchors.map(({ target }) => target.figure.id)).size;
        live.commit(
          figures > 1 ? `Move points of ${figures} figures` : anchors.length > 1 ? 'Move points' : 'Move a point',
        );
      },
      cancel: () => {
        moving = null;
        drawing.endLive();
      },
    };
  };

  const pressAnchor = (pointer: PointerInput): Gesture | null => {
    const anchors = all();
    const hit = nearestAnchor(anchors, pointer.x, pointer.y, GRAB_PX / pointer.zoom);
    if (!hit) return null;
    const now = chosenAnchors(store, drawing.seconds());
    const isChosen = now.some(({ ref }) => sameRef(ref, hit.ref));
    if (pointer.alt && now.length > 0) {
      chooseRun(now[0], hit);
      return DONE;
    }
    if (pointer.shift) {
      const own = withCoincident([hit]);
      const next = isChosen ? now : [...now, ...own];
      if (!isChosen) choose(next);
      // ⇧ keeps a drag to an axis; a mere press takes a chosen point off.
      const takeOff = (): void => choose(now.filter(({ ref }) => !own.some((other) => sameRef(other.ref, ref))));
      return moveGesture(pointer, hit, next, () => isChosen && takeOff());
    }
    const group = isChosen ? now : withCoincident([hit]);
    if (!isChosen) choose(group);
    return moveGesture(pointer, hit, group, () => isChosen && now.length > 1 && choose(withCoincident([hit])));
  };

  /** Chooses all anchors from one to another along their contour, the shorter way round. */
  const chooseRun = (from: PlacedAnchor, to: PlacedAnchor): void => {
    if (from.ref.contour !== to.ref.contour) return;
    const { anchors, closed } = from.contour;
    const n = anchors.length;
    const ahead = (to.index - from.index + n) % n;
    const forward = closed ? ahead <= n - ahead : to.index >= from.index;
    const count = closed ? Math.min(ahead, n - ahead) : Math.abs(to.index - from.index);
    const refs = Array.from({ length: count + 1 }, (_, k) => {
      const i = (from.index + (forward ? k : -k) + n) % n;
      return { ...from.ref, anchor: anchors[i].id };
    });
    store.dispatch(drawingActions.anchorsChosen(refs));
  };

  const pressOutline = (pointer: PointerInput): Gesture | null => {
    const hit = hitOutline(drawing.targets(), pointer.x, pointer.y, GRAB_PX / pointer.zoom);
    if (!hit) return null;
    if (pointer.clicks > 1 || pointer.alt) {
      addPoint(store, { part: hit.part.id, contour: hit.contour.id }, hit.segment, hit.t);
      return DONE;
    }
    // Dragging the outline between two points takes both of them along.
    const n = hit.contour.anchors.length;
    const ends = [hit.segment, (hit.segment + 1) % n].map((i) => hit.contour.anchors[i].id);
    const anchors = all().filter(({ ref }) => ref.contour === hit.contour.id && ends.includes(ref.anchor));
    const group = withCoincident(anchors);
    const held = { ...anchors[0], x: pointer.x, y: pointer.y };
    return moveGesture(pointer, held, group, () => choose(group));
  };

  const bandGesture = (pointer: PointerInput): Gesture => ({
    move: (p) => {
      band = { x0: pointer.x, y0: pointer.y, x1: p.x, y1: p.y };
      drawing.repaint();
    },
    end: (p) => {
      const area = band;
      band = null;
      drawing.repaint();
      if (!area) {
        const hit = hitPart(drawing.shown(), p.x, p.y, 3 / p.zoom);
        const known = hit && drawing.targets().some(({ figure }) => figure.id === hit.shown.figure.id);
        if (hit && !known) chooseFigure(store, hit.shown.figure.id, hit.shown.stop, pointer.shift ? 'more' : 'alone');
        else choose([]);
        return;
      }
      const { x0, y0, x1, y1 } = orderedBand(area);
      const inside = withCoincident(all().filter(({ x, y }) => x >= x0 && x <= x1 && y >= y0 && y <= y1));
      const now = pointer.shift ? chosenAnchors(store, drawing.seconds()) : [];
      choose([...now.filter(({ ref }) => !inside.some((other) => sameRef(other.ref, ref))), ...inside]);
    },
    cancel: () => {
      band = null;
      drawing.repaint();
    },
  });

  return {
    down: (pointer) =>
      shapeHandleGesture(drawing, pointer) ??
      handleGesture(pointer) ??
      pressAnchor(pointer) ??
      pressOutline(pointer) ??
      bandGesture(pointer),
    hover: (pointer) => {
      const reach = GRAB_PX / pointer.zoom;
      if (nearestAnchor(all(), pointer.x, pointer.y, reach)) return 'move';
      return hitOutline(drawing.targets(), pointer.x, pointer.y, reach) ? 'copy' : 'crosshair';
    },
    paint: (pen) => {
      const chosen = new Set(store.getState().drawing.anchors.map(({ anchor }) => anchor));
      paintAnchors(pen, all(), chosen, moving);
      const beside = chosenAnchors(store, drawing.seconds());
      paintHandles(pen, beside, moving);
      paintShapeHandles(drawing, pen);
      if (band) paintBand(pen, band);
    },
    places: () => [
      ...all().map(({ x, y, index, part }) => ({ x, y, name: `Point ${index + 1} of ${part.name}` })),
      ...chosenAnchors(store, drawing.seconds()).flatMap(({ anchor, target }) =>
        (['in', 'out'] as const).flatMap((side) => {
          const handle = anchor[side];
          if (!handle) return [];
          const [x, y] = mapPoint(target.matrix, handle[0], handle[1]);
          return [{ x, y, name: side === 'in' ? 'Handle before the point' : 'Handle after the point' }];
        }),
      ),
      ...shapeHandlePlaces(drawing),
    ],
    leave: () => {
      if (store.getState().drawing.anchors.length === 0) return false;
      choose([]);
      return true;
    },
    remove: () => {
      if (store.getState().drawing.anchors.length === 0) return false;
      deleteChosenAnchors(store, drawing.seconds());
      return true;
    },
  };
}

/** Points: squares for corners, rounds for smooth ones; the start with an arrow in the direction of travel. */
function paintAnchors(
  pen: Pen,
  anchors: readonly PlacedAnchor[],
  chosen: ReadonlySet<Id>,
  moving: ReadonlyMap<Id, readonly [number, number]> | null,
): void {
  const { context: c, colours } = pen;
  const many = anchors.length > 800;
  const size = many ? 2.2 : 3.6;
  c.lineWidth = 1.2;
  c.strokeStyle = colours.accent;
  c.fillStyle = colours.paper;
  c.beginPath();
  const marked: [number, number][] = [];
  for (const { anchor, x, y, ref, index, contour, target } of anchors) {
    const by = moving?.get(ref.anchor);
    const [sx, sy] = pen.toScreen(x + (by?.[0] ?? 0), y + (by?.[1] ?? 0));
    if (index === 0) paintStart(pen, contour.anchors, contour.closed, target, sx, sy);
    if (chosen.has(ref.anchor)) {
      marked.push([sx, sy]);
      continue;
    }
    if (!many && kindOf(anchor) !== 'corner') {
      c.moveTo(sx + size, sy);
      c.arc(sx, sy, size, 0, 2 * Math.PI);
    } else c.rect(sx - size, sy - size, 2 * size, 2 * size);
  }
  c.fill();
  c.stroke();
  c.beginPath();
  for (const [sx, sy] of marked) c.rect(sx - size - 1, sy - size - 1, 2 * size + 2, 2 * size + 2);
  c.fillStyle = colours.accent;
  c.fill();
}

function paintStart(
  pen: Pen,
  anchors: readonly Part['contours'][number]['anchors'][number][],
  closed: boolean,
  target: EditTarget,
  sx: number,
  sy: number,
): void {
  const first = anchors[0];
  const next = anchors[1] ?? (closed ? first : undefined);
  if (!next) return;
  const toward = first.out ?? next.in ?? next.at;
  const [ax, ay] = mapPoint(target.matrix, first.at[0], first.at[1]);
  const [bx, by] = mapPoint(target.matrix, toward[0], toward[1]);
  const angle = Math.atan2(by - ay, bx - ax);
  const { context: c, colours } = pen;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  c.save();
  c.fillStyle = colours.cobalt;
  c.strokeStyle = colours.cobalt;
  // Own paths, so that the points gathered by the caller are not lost.
  const arrow = new Path2D();
  arrow.moveTo(sx + cos * 21, sy + sin * 21);
  arrow.lineTo(sx + cos * 12 - sin * 5, sy + sin * 12 + cos * 5);
  arrow.lineTo(sx + cos * 12 + sin * 5, sy + sin * 12 - cos * 5);
  arrow.closePath();
  c.fill(arrow);
  const ring = new Path2D();
  ring.arc(sx, sy, 8, 0, 2 * Math.PI);
  c.stroke(ring);
  c.restore();
}

function paintHandles(
  pen: Pen,
  anchors: readonly PlacedAnchor[],
  moving: ReadonlyMap<Id, readonly [number, number]> | null,
): void {
  if (anchors.length > 60) return;
  const { context: c, colours } = pen;
  for (const { anchor, target, ref, x, y } of anchors) {
    const by = moving?.get(ref.anchor) ?? [0, 0];
    const [ax, ay] = pen.toScreen(x + by[0], y + by[1]);
    // Points of figures beside the chosen ones show that they come along.
    c.beginPath();
    c.arc(ax, ay, 7, 0, 2 * Math.PI);
    c.strokeStyle = colours.accent;
    c.lineWidth = 1;
    c.stroke();
    for (const handle of [anchor.in, anchor.out]) {
      if (!handle) continue;
      const [hx, hy] = mapPoint(target.matrix, handle[0], handle[1]);
      const [sx, sy] = pen.toScreen(hx + by[0], hy + by[1]);
      c.strokeStyle = colours.accent;
      c.lineWidth = 1;
      c.beginPath();
      c.moveTo(ax, ay);
      c.lineTo(sx, sy);
      c.stroke();
      c.beginPath();
      c.arc(sx, sy, 3.4, 0, 2 * Math.PI);
      c.fillStyle = colours.paper;
      c.fill();
      c.stroke();
    }
  }
}
