import { type FramePart, IDENTITY, type Matrix, mapPoint, motionMatrix, outlineOfPart } from '@core';
import type { Editor } from '../editor';
import type { Pen, PenColours } from '../tools/tool';
import { paintAids, paintRulers } from './paint-aids';

/** Paints everything that lies over the picture: aids, the outlines of what is chosen, the tool. `density` is device px for each CSS px. */
export function paintOverlay(
  context: CanvasRenderingContext2D,
  editor: Editor,
  colours: PenColours,
  density: number,
): void {
  const { view } = editor.viewport;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, context.canvas.width, context.canvas.height);
  const { document, drawing } = editor.store.getState();
  if (!document.piece || !editor.drawing) return;
  context.setTransform(density, 0, 0, density, 0, 0);
  const pen: Pen = {
    context,
    colours,
    zoom: view.zoom,
    toScreen: (x, y) => [view.x + x * view.zoom, view.y + y * view.zoom],
  };
  paintAids(pen, document.piece);
  if (!editor.clock.playing && editor.drawing.atPose) {
    paintChosen(pen, editor);
    editor.drawing.paint(pen);
  }
  if (drawing.rulers) paintRulers(pen, context.canvas.width / density, context.canvas.height / density);
}

/** The outlines of what is worked on, as a gesture has them or as they are. */
function paintChosen(pen: Pen, editor: Editor): void {
  const { context: c, colours } = pen;
  const { targets } = editor.drawing.look();
  c.strokeStyle = colours.accent;
  c.lineWidth = 1.2;
  c.beginPath();
  for (const target of targets) {
    const live = editor.stage.overridden(target.figure.id);
    const motion = live?.motion ? motionMatrix(live.motion) : IDENTITY;
    target.parts.forEach((part, i) => {
      if (!target.targets.includes(part)) return;
      if (live?.parts[i]) traceInBetween(pen, live.parts[i], motion);
      else
        for (const { points: p, closed } of outlineOfPart(part).contours)
          trace(pen, p, closed, (x, y) => mapPoint(target.matrix, x, y));
    });
  }
  c.stroke();
}

function traceInBetween(pen: Pen, part: FramePart, motion: Matrix): void {
  for (const { at, segments, closed } of part.contours)
    trace(pen, part.points.subarray(at, at + 6 * segments + 2), closed, (x, y) => mapPoint(motion, x, y));
}

function trace(
  { context: c, toScreen }: Pen,
  p: Float64Array,
  closed: boolean,
  map: (x: number, y: number) => [number, number],
): void {
  c.moveTo(...toScreen(...map(p[0], p[1])));
  for (let i = 2; i + 5 < p.length; i += 6)
    c.bezierCurveTo(
      ...toScreen(...map(p[i], p[i + 1])),
      ...toScreen(...map(p[i + 2], p[i + 3])),
      ...toScreen(...map(p[i + 4], p[i + 5])),
    );
  if (closed) c.closePath();
}
