import { type Anchor, contourOfRecord, type Part } from '@core';
import { freshId } from '../../workers';
import { addDrawnPart, newPaint } from '../actions/draw-actions';
import type { SnapField } from '../snap/snap';
import { snapAngle } from '../snap/snap';
import { DONE, DRAG_PX, GRAB_PX, isOutside, type PointerInput, type Tool, type ToolContext } from './tool';

/** Draws contours point by point: a press sets a corner, a drag pulls its handles, the first point closes, Enter or Escape ends an open one. */
export function createDrawTool(drawing: ToolContext): Tool {
  const { store } = drawing;
  let anchors: Anchor[] = [];
  let hover: readonly [number, number] | null = null;
  let field: SnapField | null = null;

  const place = (pointer: PointerInput): readonly [number, number] => {
    const last = anchors[anchors.length - 1];
    if (pointer.shift && last) return snapAngle(last.at[0], last.at[1], pointer.x, pointer.y);
    if (pointer.alt) return [pointer.x, pointer.y];
    field ??= drawing.snapField(new Set());
    const snapped = field.point(pointer.x, pointer.y, pointer.zoom);
    drawing.hint(snapped.hints);
    return [snapped.x, snapped.y];
  };
  const clear = (): void => {
    anchors = [];
    hover = null;
    field = null;
    drawing.hint([]);
    drawing.repaint();
  };
  const finish = (closed: boolean): boolean => {
    const drawn = anchors;
    const enough = drawn.length >= 2;
    clear();
    if (!enough) return drawn.length > 0;
    const part: Part = {
      id: freshId('p'),
      name: closed ? 'Outline' : 'Line',
      contours: [{ id: freshId('c'), closed, anchors: drawn }],
      fillRule: 'nonzero',
      ...newPaint(closed),
    };
    addDrawnPart(store, part, drawing.seconds());
    return true;
  };

  /** Takes the last point back. */
  const takeBack = (): boolean => {
    if (anchors.length === 0) return false;
    anchors = anchors.slice(0, -1);
    drawing.repaint();
    return true;
  };

  return {
    down: (pointer) => {
      if (anchors.length === 0 && (pointer.letsGo || isOutside(drawing, pointer))) return DONE;
      const first = anchors[0];
      const closes =
        anchors.length >= 2 &&
        first !== undefined &&
        Math.hypot(first.at[0] - pointer.x, first.at[1] - pointer.y) * pointer.zoom <= GRAB_PX;
      if (pointer.clicks > 1 && anchors.length >= 2) {
        finish(false);
        return null;
      }
      const at = closes ? first.at : place(pointer);
      const index = closes ? 0 : anchors.length;
      if (!closes) anchors = [...anchors, { id: freshId('a'), at }];
      const before = anchors[index];
      drawing.repaint();
      return {
        move: (p) => {
          if (Math.hypot(p.x - at[0], p.y - at[1]) * p.zoom < DRAG_PX) return;
          const [x, y] = p.shift ? snapAngle(at[0], at[1], p.x, p.y) : [p.x, p.y];
          const back: readonly [number, number] = [2 * at[0] - x, 2 * at[1] - y];
          anchors = anchors.map((anchor, i) =>
            i !== index
              ? anchor
              : closes
                ? { ...before, in: back }
                : { ...before, out: [x, y] as const, in: back, kind: 'symmetric' as const },
          );
          drawing.repaint();
        },
        end: () => {
          if (closes) finish(true);
        },
        cancel: clear,
      };
    },
    hover: (pointer) => {
      hover = place(pointer);
      drawing.repaint();
      return 'crosshair';
    },
    paint: ({ context: c, colours, toScreen }) => {
      if (anchors.length === 0) return;
      const { points } = contourOfRecord({ id: '', closed: false, anchors });
      c.strokeStyle = colours.ink;
      c.lineWidth = 1.5;
      c.beginPath();
      c.moveTo(...toScreen(points[0], points[1]));
      for (let i = 2; i + 5 < points.length; i += 6)
        c.bezierCurveTo(
          ...toScreen(points[i], points[i + 1]),
          ...toScreen(points[i + 2], points[i + 3]),
          ...toScreen(points[i + 4], points[i + 5]),
        );
      c.stroke();
      const last = anchors[anchors.length - 1];
      if (hover) {
        c.setLineDash([4, 4]);
        c.beginPath();
        c.moveTo(...toScreen(...last.at));
        const out = last.out ?? last.at;
        c.bezierCurveTo(...toScreen(...out), ...toScreen(...hover), ...toScreen(...hover));
        c.stroke();
        c.setLineDash([]);
      }
      for (const { at, in: into, out } of anchors) {
        const [x, y] = toScreen(...at);
        for (const handle of [into, out]) {
          if (!handle) continue;
          const [hx, hy] = toScreen(...handle);
          c.strokeStyle = colours.accent;
          c.lineWidth = 1;
          c.beginPath();
          c.moveTo(x, y);
          c.lineTo(hx, hy);
          c.stroke();
        }
        c.beginPath();
        c.rect(x - 3.5, y - 3.5, 7, 7);
        c.fillStyle = at === anchors[0].at ? colours.cobalt : colours.accent;
        c.fill();
      }
    },
    places: () =>
      anchors.map(({ at: [x, y] }, i) => ({ x, y, name: i === 0 ? 'First point: closes' : `Point ${i + 1}` })),
    confirm: () => anchors.length > 0 && finish(false),
    // What was drawn is kept, as an open line.
    leave: () => anchors.length > 0 && finish(false),
    remove: takeBack,
    undo: takeBack,
  };
}
