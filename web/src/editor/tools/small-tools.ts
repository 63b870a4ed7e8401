import { drawingActions } from '../../state';
import { cutTargets } from '../actions/outline-actions';
import { rememberColour, setPaint } from '../actions/paint-actions';
import { addText } from '../actions/text-actions';
import { snapAngle } from '../snap/snap';
import { DONE, DRAG_PX, isOutside, type Tool, type ToolContext } from './tool';

/** Puts a text down where it is pressed. */
export function createTextTool(drawing: ToolContext): Tool {
  return {
    down: (pointer) => {
      if (pointer.letsGo || isOutside(drawing, pointer)) return DONE;
      // What the text is to become is known while its tool is at hand.
      drawing.awaitLetters(addText(drawing.store, drawing.shapes, pointer.x, pointer.y, drawing.seconds()));
      drawing.store.dispatch(drawingActions.toolChosen('select'));
      return null;
    },
    hover: () => 'text',
  };
}

/** Cuts what is chosen along a dragged line; ⇧ keeps the line to steps of 45°. */
export function createCutTool(drawing: ToolContext): Tool {
  let line: readonly [number, number, number, number] | null = null;
  return {
    down: (pointer) => ({
      move: (p) => {
        const [x, y] = p.shift ? snapAngle(pointer.x, pointer.y, p.x, p.y) : [p.x, p.y];
        line = [pointer.x, pointer.y, x, y];
        drawing.repaint();
      },
      end: (p) => {
        const done = line;
        line = null;
        drawing.repaint();
        if (done && Math.hypot(done[2] - done[0], done[3] - done[1]) * p.zoom >= DRAG_PX)
          void cutTargets(drawing.store, drawing.shapes, drawing.seconds(), done);
      },
      cancel: () => {
        line = null;
        drawing.repaint();
      },
    }),
    hover: () => 'crosshair',
    paint: ({ context: c, colours, toScreen }) => {
      if (!line) return;
      const [x0, y0] = toScreen(line[0], line[1]);
      const [x1, y1] = toScreen(line[2], line[3]);
      c.strokeStyle = colours.accent;
      c.lineWidth = 1.5;
      c.setLineDash([8, 4]);
      c.beginPath();
      c.moveTo(x0, y0);
      c.lineTo(x1, y1);
      c.stroke();
      c.setLineDash([]);
    },
  };
}

/** Takes a colour from the picture for the fill or stroke of what is chosen; Alt for the other of the two. */
export function createColourTool(drawing: ToolContext): Tool {
  return {
    down: (pointer) => {
      const colour = drawing.pickColour(pointer.x, pointer.y);
      const { paints } = drawing.store.getState().drawing;
      const which = pointer.alt ? (paints === 'fill' ? 'stroke' : 'fill') : paints;
      if (colour) {
        rememberColour(colour);
        setPaint(drawing.store, drawing.seconds(), which, colour);
      }
      return null;
    },
    hover: () => 'crosshair',
  };
}
