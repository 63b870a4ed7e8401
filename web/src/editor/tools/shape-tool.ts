import { adjustableContours, type ShapeSource, shapeInBox } from '@core';
import { drawingActions, type Selection, sessionActions } from '../../state';
import { addDrawnPart, drawnShape } from '../actions/draw-actions';
import { DRAG_PX, isOutside, type PointerInput, type Tool, type ToolContext } from './tool';

/** The side of a shape that is put down by a click, as a share of the canvas's shorter side. */
const CLICK_SHARE = 0.4;

/** Drags out an adjustable shape; ⇧ keeps its sides equal, Alt draws from the middle. A click puts one down in a sensible size. */
export function createShapeTool(drawing: ToolContext): Tool {
  const { store } = drawing;
  let source: ShapeSource | null = null;
  /** What was chosen because it was made here: a click beside it lets it go. */
  let justMade: { readonly selection: Selection | null; readonly kind: string } | null = null;

  /** Is a click meant for nothing but to let go, or beside the canvas? */
  const meansNothing = (pointer: PointerInput): boolean => {
    if (pointer.letsGo) return true;
    const [made, { session, drawing: now }] = [justMade, store.getState()];
    justMade = null;
    if (!pointer.byKeys && made?.selection && made.selection === session.selection && made.kind === now.shapeKind) {
      store.dispatch(sessionActions.selected(null));
      store.dispatch(drawingActions.changed({ drawn: null }));
      return true;
    }
    return isOutside(drawing, pointer);
  };

  const shapeBetween = (
    start: readonly [number, number],
    end: readonly [number, number],
    p: PointerInput,
  ): ShapeSource => {
    const kind = store.getState().drawing.shapeKind;
    let [dx, dy] = [end[0] - start[0], end[1] - start[1]];
    if (p.shift && kind !== 'line') {
      const side = Math.max(Math.abs(dx), Math.abs(dy));
      [dx, dy] = [side * (dx < 0 ? -1 : 1), side * (dy < 0 ? -1 : 1)];
    }
    if (p.shift && kind === 'line') {
      const angle = (Math.round(Math.atan2(dy, dx) / (Math.PI / 4)) * Math.PI) / 4;
      const length = Math.hypot(dx, dy);
      [dx, dy] = [length * Math.cos(angle), length * Math.sin(angle)];
    }
    const [x0, y0] = p.alt ? [start[0] - dx, start[1] - dy] : start;
    // Where it begins seeds a blob: two of them are not alike.
    const seed = Math.abs(Math.round(start[0] * 7 + start[1] * 13)) % 1000;
    return shapeInBox(kind, x0, y0, start[0] + dx, start[1] + dy, seed);
  };

  return {
    down: (pointer) => {
      const field = drawing.snapField(new Set());
      const from = field.point(pointer.x, pointer.y, pointer.zoom);
      return {
        move: (p) => {
          const to = field.point(p.x, p.y, p.zoom);
          drawing.hint(to.hints);
          if (Math.hypot(p.x - pointer.x, p.y - pointer.y) * p.zoom >= DRAG_PX)
            source = shapeBetween([from.x, from.y], [to.x, to.y], p);
          drawing.repaint();
        },
        end: (p) => {
          drawing.hint([]);
          if (!source && meansNothing(pointer)) {
            drawing.repaint();
            return;
          }
          const { piece } = store.getState().document;
          const side = piece ? CLICK_SHARE * Math.min(piece.canvas.width, piece.canvas.height) : 200;
          const done =
            source ??
            shapeBetween([from.x - side / 2, from.y - side / 2], [from.x + side / 2, from.y + side / 2], {
              ...p,
              alt: false,
            });
          source = null;
          if (adjustableContours(done).length > 0) {
            addDrawnPart(store, drawnShape(done), drawing.seconds());
            if (!store.getState().drawing.keepTool) store.dispatch(drawingActions.toolChosen('select'));
            const { session, drawing: now } = store.getState();
            justMade = { selection: session.selection, kind: now.shapeKind };
          }
          drawing.repaint();
        },
        cancel: () => {
          source = null;
          drawing.hint([]);
          drawing.repaint();
        },
      };
    },
    hover: () => 'crosshair',
    paint: ({ context: c, colours, toScreen }) => {
      if (!source) return;
      c.strokeStyle = colours.accent;
      c.lineWidth = 1.5;
      c.beginPath();
      for (const { points: p, closed } of adjustableContours(source)) {
        c.moveTo(...toScreen(p[0], p[1]));
        for (let i = 2; i + 5 < p.length; i += 6)
          c.bezierCurveTo(
            ...toScreen(p[i], p[i + 1]),
            ...toScreen(p[i + 2], p[i + 3]),
            ...toScreen(p[i + 4], p[i + 5]),
          );
        if (closed) c.closePath();
      }
      c.globalAlpha = 0.12;
      c.fillStyle = colours.accent;
      if (source.kind !== 'line' && source.kind !== 'arc') c.fill();
      c.globalAlpha = 1;
      c.stroke();
    },
  };
}
