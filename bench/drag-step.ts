import {
  AS_DRAWN,
  addFigure,
  emptyPiece,
  insertPoses,
  newPose,
  type Piece,
  type PieceDraft,
  recordOfContour,
} from '../core/src/index';
import { paintOverlay } from '../web/src/editor';
import { LiveContour, LivePose } from '../web/src/editor/scene/live-pose';
import { drawingActions } from '../web/src/state';
import { Driver } from '../web/src/testing/driver';

/** A piece with one closed outline of `count` smooth points round a circle, in canvas px. */
function roundPiece(count: number): Piece {
  const points = new Float64Array(6 * count + 2);
  const at = (i: number, k = 0): [number, number] => {
    const angle = ((i + k) / count) * 2 * Math.PI;
    const r = 250 + 20 * Math.sin(9 * angle);
    return [320 + r * Math.cos(angle), 320 + r * Math.sin(angle)];
  };
  points.set(at(0));
  for (let i = 0; i < count; i++) points.set([...at(i, 1 / 3), ...at(i, 2 / 3), ...at(i + 1)], 6 * i + 2);
  points.set(at(0), points.length - 2);
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const part = {
    id: 'part',
    name: 'Part',
    contours: [recordOfContour({ points, closed: true }, newId)],
    fillRule: 'nonzero' as const,
    fill: '#204060',
    stroke: null,
  };
  const draft = structuredClone(emptyPiece('p', 'P')) as PieceDraft;
  addFigure(draft, 'f', 'F');
  insertPoses(draft, 'f', [{ pose: { ...newPose('q', 'Q', ['part']), placement: AS_DRAWN }, parts: [part] }], newId);
  return draft as Piece;
}

/** A 2D context that takes everything and does nothing: script time is measured, not the rasteriser. */
function idleContext(): CanvasRenderingContext2D {
  const take = (): void => {};
  const names =
    'setTransform clearRect fillRect strokeRect save restore translate rotate scale beginPath rect clip moveTo lineTo bezierCurveTo arc closePath fill stroke fillText setLineDash';
  return {
    canvas: { width: 1200, height: 900 },
    ...Object.fromEntries(names.split(' ').map((name) => [name, take])),
  } as unknown as CanvasRenderingContext2D;
}

/** Path2D is the browser's. */
class IdlePath {
  moveTo(): void {}
  lineTo(): void {}
  arc(): void {}
  closePath(): void {}
}

const COLOURS = { accent: '#c23f23', ink: '#000000', paper: '#ffffff', line: '#999999', cobalt: '#2147b5' };
const OFFSET = 28;

/**
 * Script time of one step of dragging a point, ms (median), of an outline with `count` points, as the page does it: the gesture, the picture
 * and everything that lies over it. Beside it the gesture without painting, and what building the pose anew would take.
 */
export function dragStep(
  count: number,
  median: (work: () => void) => number,
): { step: number; gesture: number; rebuilt: number } {
  Object.assign(globalThis, { Path2D: IdlePath });
  const piece = roundPiece(count);
  const driver = new Driver(piece).select();
  driver.store.dispatch(drawingActions.toolChosen('points'));
  const { editor } = driver;
  const [x, y] = driver.points()[0];
  const plain = { shift: false, alt: true, clicks: 1 };
  editor.drawing.down(x + OFFSET, y + OFFSET, { ...plain, alt: false });
  const context = idleContext();
  let k = 0;
  const move = (): void => {
    k++;
    editor.drawing.move(x + OFFSET + 20 * Math.sin(k), y + OFFSET + 20 * Math.cos(k), plain);
  };
  const step = median(() => {
    move();
    editor.stage.paint(context, editor.clock.seconds, editor.viewport.view, 1);
    paintOverlay(context, editor, COLOURS, 1);
  });
  const gesture = median(move);
  editor.drawing.move(x + OFFSET + 30, y + OFFSET + 40, plain);
  editor.drawing.up(x + OFFSET + 30, y + OFFSET + 40, plain);
  const moved = driver.points()[0];
  if (Math.hypot(moved[0] - x - 30, moved[1] - y - 40) > 1e-6)
    throw new Error('The dragged point is not where it was let go.');
  const part = piece.parts.part;
  const rebuilt = median(() => {
    const live = new LivePose(AS_DRAWN, [{ ...part, contours: [...part.contours] }]);
    new LiveContour(part.id, part.contours[0], [1, 0, 0, 1, 0, 0], live.parts[0].points, 0);
  });
  return { step, gesture, rebuilt };
}
