import { type Box, type Id, type Matrix, type Part, type PieceDraft, translation } from '@core';
import { changePiece, drawingActions, sessionActions } from '../../state';
import {
  chooseFigure,
  partsAfter,
  pivotOf,
  targetsBox,
  transformTargets,
  wholeFigures,
} from '../actions/figure-actions';
import { type MotionValues, motionAfter, motionSample, motionValues, setPivot } from '../actions/motion-actions';
import { hitPart, placeInside } from '../hit/hit-parts';
import { LivePose } from '../scene/live-pose';
import { type EditTarget, shownBox } from '../scene/scene';
import { type Band, orderedBand, paintBand } from './band';
import {
  gradientGesture,
  paintGradient,
  paintShapeHandles,
  shapeHandleGesture,
  shapeHandlePlaces,
} from './shape-handles';
import { DONE, DRAG_PX, type Gesture, type PointerInput, type Tool, type ToolContext } from './tool';
import {
  BOX_HANDLES,
  HANDLE_NAMES,
  handleCursor,
  handleMatrix,
  handlePlace,
  hitHandle,
  paintBox,
} from './transform-box';

const NO_KEYS = { x: 0, y: 0, zoom: 1, shift: false, alt: false, clicks: 1 } as const;

/** Shows targets mapped by a map of the canvas while a gesture lasts, and keeps it at the end. */
class LiveTransform {
  private readonly lives: LivePose[];
  private readonly motions: MotionValues[];
  private readonly whole: boolean;

  constructor(
    private readonly drawing: ToolContext,
    private readonly targets: readonly EditTarget[],
  ) {
    this.whole = wholeFigures(targets);
    this.lives = targets.map(({ pose, parts }) => new LivePose(pose.placement, parts));
    this.motions = targets.map(motionValues);
  }

  show(matrix: Matrix): void {
    this.targets.forEach((target, i) => {
      const live = this.lives[i];
      if (this.whole) {
        this.drawing.showLive(target, live.parts, motionSample(motionAfter(this.motions[i], matrix)));
        return;
      }
      const changed = new Map(partsAfter(target, matrix).map((part) => [part.id, part]));
      live.show(
        target.pose.placement,
        target.parts.map((part): Part => changed.get(part.id) ?? part),
      );
      this.drawing.showLive(target, live.parts);
    });
  }
}

/** Chooses, moves, scales and turns figures and parts; adjusts shapes and gradients by their handles. */
export function createSelectTool(drawing: ToolContext): Tool {
  const { store } = drawing;
  let band: Band | null = null;

  const boxNow = (): { targets: readonly EditTarget[]; box: Box; pivot: readonly [number, number] } | undefined => {
    const targets = drawing.targets();
    const box = targetsBox(targets);
    return box && { targets, box, pivot: pivotOf(targets, box) };
  };
  const movable = (targets: readonly EditTarget[]): boolean => targets.every(({ figure }) => !figure.locked);
  const single = (targets: readonly EditTarget[]): boolean => targets.length === 1 && wholeFigures(targets);

  /** The middle of a figure is where it is taken to be moved: an automatic pivot there is only taken with Alt. */
  const pivotInReach = (targets: readonly EditTarget[], pointer: PointerInput): boolean =>
    single(targets) && (pointer.alt || targets[0].figure.pivot !== null);

  const handleGesture = (pointer: PointerInput): Gesture | null => {
    const now = boxNow();
    if (!now || !movable(now.targets)) return null;
    const { targets, box, pivot } = now;
    const handle = hitHandle(pointer, box, pivot, pivotInReach(targets, pointer));
    if (!handle) return null;
    if (handle === 'pivot') return pivotGesture(targets[0]);
    const live = new LiveTransform(drawing, targets);
    const even = targets.some((target) => motionValues(target).turn % 90 !== 0);
    // A pivot that was set is what it grows about; Alt means the opposite side then, and the pivot otherwise.
    const ownPivot = single(targets) && targets[0].figure.pivot !== null;
    let matrix: Matrix | undefined;
    return {
      move: (p) => {
        matrix = handleMatrix(handle, box, pivot, { ...p, alt: p.alt !== ownPivot }, pointer, even);
        live.show(matrix);
      },
      end: () => {
        drawing.endLive();
        const done = matrix;
        if (done) transformTargets(store, targets, handle === 'turn' ? 'Rotate' : 'Scale', () => done);
      },
      cancel: () => drawing.endLive(),
    };
  };

  const pivotGesture = (target: EditTarget): Gesture => {
    const field = drawing.snapField(new Set());
    let at: [number, number] | undefined;
    return {
      move: (p) => {
        const snapped = field.point(p.x, p.y, p.zoom);
        drawing.hint(snapped.hints);
        at = [snapped.x, snapped.y];
      },
      end: () => {
        drawing.hint([]);
        if (at) setPivot(store, target, at);
      },
      cancel: () => drawing.hint([]),
    };
  };

  const moveGesture = (pointer: PointerInput, onClick: () => unknown): Gesture => {
    const targets = drawing.targets();
    const box = targetsBox(targets);
    const live = new LiveTransform(drawing, targets);
    const left = new Set<Id>(
      targets.flatMap(({ figure, targets: parts }) => [figure.id, ...parts.map(({ id }) => id)]),
    );
    const field = drawing.snapField(left);
    let moved: [number, number] | undefined;
    return {
      move: (p) => {
        let [dx, dy] = [p.x - pointer.x, p.y - pointer.y];
        if (!moved && Math.hypot(dx, dy) * p.zoom < DRAG_PX) return;
        if (!movable(targets)) return;
        // ⇧ keeps to one axis.
        if (p.shift && Math.abs(dx) > Math.abs(dy)) dy = 0;
        else if (p.shift) dx = 0;
        if (box && !p.alt) {
          const snapped = field.box(box, dx, dy, p.zoom);
          drawing.hint(snapped.hints);
          [dx, dy] = p.shift ? [dx === 0 ? 0 : snapped.x, dy === 0 ? 0 : snapped.y] : [snapped.x, snapped.y];
        }
        moved = [dx, dy];
        live.show(translation(dx, dy));
      },
      end: () => {
        drawing.endLive();
        if (!moved) {
          onClick();
          return;
        }
        const [dx, dy] = moved;
        const name = targets.length === 1 ? `Move ${targets[0].pose.name} by hand` : `Move ${targets.length} figures`;
        transformTargets(store, targets, name, () => translation(dx, dy));
      },
      cancel: () => drawing.endLive(),
    };
  };

  const bandGesture = (pointer: PointerInput): Gesture => ({
    move: (p) => {
      band = { x0: pointer.x, y0: pointer.y, x1: p.x, y1: p.y };
      drawing.repaint();
    },
    end: () => {
      const area = band;
      band = null;
      drawing.repaint();
      if (!area) {
        if (!pointer.shift) store.dispatch(sessionActions.selected(null));
        return;
      }
      const { x0, y0, x1, y1 } = orderedBand(area);
      const inside = drawing.shown().filter((shown) => {
        const { figure } = shown;
        const box = shownBox(shown);
        return !figure.locked && !figure.hidden && box.minX >= x0 && box.maxX <= x1 && box.minY >= y0 && box.maxY <= y1;
      });
      if (inside.length === 0) {
        if (!pointer.shift) store.dispatch(sessionActions.selected(null));
        return;
      }
      inside.forEach(({ figure, stop }, i) => {
        chooseFigure(store, figure.id, stop, i > 0 || pointer.shift ? 'more' : 'alone');
      });
    },
    cancel: () => {
      band = null;
      drawing.repaint();
    },
  });

  const pressPart = (pointer: PointerInput): Gesture | null => {
    const hit = hitPart(drawing.shown(), pointer.x, pointer.y, 3 / pointer.zoom);
    if (!hit) return null;
    const { figure, stop, parts } = hit.shown;
    const chosen = drawing.targets().find((target) => target.figure.id === figure.id);
    if (pointer.clicks > 1) {
      // A double click goes on to the points of what was hit.
      if (!chosen) chooseFigure(store, figure.id, stop, 'alone');
      if (parts.length > 1) store.dispatch(drawingActions.partsChosen([hit.part.id]));
      const kept = store.getState().drawing.parts;
      store.dispatch(drawingActions.toolChosen('points'));
      store.dispatch(drawingActions.partsChosen(kept));
      return DONE;
    }
    if (pointer.shift && (!chosen || store.getState().drawing.parts.length === 0)) {
      // ⇧ adds to what is chosen, and keeps a drag to an axis; a mere press takes a chosen figure off.
      if (!chosen) chooseFigure(store, figure.id, stop, 'more');
      return moveGesture(pointer, () => chosen && chooseFigure(store, figure.id, stop, 'more'));
    }
    if (!chosen) {
      chooseFigure(store, figure.id, stop, 'alone');
      return moveGesture(pointer, () => {});
    }
    const { parts: chosenParts } = store.getState().drawing;
    return moveGesture(pointer, () => {
      // A second click on a chosen figure goes one step further in.
      if (pointer.shift) {
        const next = chosenParts.includes(hit.part.id)
          ? chosenParts.filter((id) => id !== hit.part.id)
          : [...chosenParts, hit.part.id];
        store.dispatch(drawingActions.partsChosen(next));
      } else if (parts.length > 1) store.dispatch(drawingActions.partsChosen([hit.part.id]));
    });
  };

  return {
    down: (pointer) =>
      gradientGesture(drawing, pointer) ??
      shapeHandleGesture(drawing, pointer) ??
      handleGesture(pointer) ??
      pressPart(pointer) ??
      bandGesture(pointer),
    hover: (pointer) => {
      const now = boxNow();
      const handle = now && hitHandle(pointer, now.box, now.pivot, pivotInReach(now.targets, pointer));
      if (handle) return handleCursor(handle);
      return hitPart(drawing.shown(), pointer.x, pointer.y, 3 / pointer.zoom) ? 'move' : 'default';
    },
    paint: (pen) => {
      const now = boxNow();
      if (now) {
        paintBox(pen, now.box, now.pivot, single(now.targets));
        paintShapeHandles(drawing, pen);
        paintGradient(drawing, pen);
      }
      if (band) paintBand(pen, band);
    },
    places: (zoom) => {
      const now = boxNow();
      const handles = now
        ? BOX_HANDLES.filter((handle) => handle !== 'pivot' || pivotInReach(now.targets, NO_KEYS))
        : [];
      const middles = drawing
        .shown()
        .filter(({ figure }) => !figure.hidden)
        .flatMap((shown) => {
          const inside = placeInside(shown);
          return inside ? [{ ...inside, name: shown.figure.name }] : [];
        });
      return [
        ...middles,
        ...handles.map((handle) => {
          const [x, y] = handlePlace(
            handle,
            (now as NonNullable<typeof now>).box,
            (now as NonNullable<typeof now>).pivot,
            zoom,
          );
          return { x, y, name: HANDLE_NAMES[handle] };
        }),
        ...shapeHandlePlaces(drawing),
      ];
    },
    leave: () => {
      if (store.getState().drawing.parts.length === 0) return false;
      store.dispatch(drawingActions.partsChosen([]));
      return true;
    },
    remove: () => {
      const wanted = store.getState().drawing.parts;
      const [target] = drawing.targets();
      if (wanted.length === 0 || !target || target.targets.length === target.parts.length) return false;
      const gone = new Set(target.targets.map(({ id }) => id));
      store.dispatch(
        changePiece(gone.size === 1 ? 'Remove a part' : `Remove ${gone.size} parts`, (draft: PieceDraft) => {
          draft.poses[target.pose.id].parts = target.pose.parts.filter((id) => !gone.has(id));
          for (const id of gone) delete draft.parts[id];
        }),
      );
      store.dispatch(drawingActions.partsChosen([]));
      return true;
    },
  };
}
