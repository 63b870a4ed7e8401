import { benchActions } from '../../state';
import { cutTargets } from '../actions/outline-actions';
import { setPaint } from '../actions/paint-actions';
import { addText } from '../actions/text-actions';
import { snapAngle } from '../snap/snap';
import { DRAG_PX, type Tool, type ToolBench } from './tool';

/** Puts a text down where it is pressed. */
export function createTextTool(bench: ToolBench): Tool {
  return {
    down: (pointer) => {
      bench.store.dispatch(benchActions.toolChosen('select'));
      void addText(bench.store, bench.shapes, pointer.x, pointer.y, bench.seconds());
      return null;
    },
    hover: () => 'text',
  };
}

/** Cuts what is chosen along a dragged line; ⇧ keeps the line to steps of 45°. */
export function createCutTool(bench: ToolBench): Tool {
  let line: readonly [number, number, number, number] | null = null;
  return {
    down: (pointer) => ({
      move: (p) => {
        const [x, y] = p.shift ? snapAngle(pointer.x, pointer.y, p.x, p.y) : [p.x, p.y];
        line = [pointer.x, pointer.y, x, y];
        bench.repaint();
      },
      end: (p) => {
        const done = line;
        line = null;
        bench.repaint();
        if (done && Math.hypot(done[2] - done[0], done[3] - done[1]) * p.zoom >= DRAG_PX)
          void cutTargets(bench.store, bench.shapes, bench.seconds(), done);
      },
      cancel: () => {
        line = null;
        bench.repaint();
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
export function createColourTool(bench: ToolBench): Tool {
  return {
    down: (pointer) => {
      const colour = bench.pickColour(pointer.x, pointer.y);
      const { paints } = bench.store.getState().bench;
      const which = pointer.alt ? (paints === 'fill' ? 'stroke' : 'fill') : paints;
      if (colour) setPaint(bench.store, bench.seconds(), which, colour);
      return null;
    },
    hover: () => 'crosshair',
  };
}
