import { outlineBox, outlineOfPart, railTimeline } from '@core';
import type { Editor } from '../editor';
import { selectedPose } from '../state';

/** Lays the frame around the selected pose, while the play position stands on it. Called per paint; writes attributes only. */
export function placeOverlay(overlay: SVGSVGElement, editor: Editor): void {
  const frame = overlay.querySelector('[data-key="frame"]');
  const { document, session } = editor.store.getState();
  const piece = document.piece;
  const found = piece && selectedPose(piece, session.selection);
  const stop = piece && found && railTimeline(piece, found.figure).stops[found.stop];
  const now = editor.clock.seconds;
  if (
    !frame ||
    !piece ||
    !found ||
    !stop ||
    editor.clock.playing ||
    now < stop.start - 1e-6 ||
    now > stop.start + stop.hold + 1e-6
  ) {
    frame?.setAttribute('visibility', 'hidden');
    return;
  }
  const box = outlineBox({
    contours: found.pose.parts.flatMap((id) => outlineOfPart(piece.parts[id]).contours),
    fillRule: 'nonzero',
  });
  showFrame(frame, editor, box, found.pose.placement);
}

export function showFrame(
  frame: Element,
  editor: Editor,
  box: { minX: number; minY: number; maxX: number; maxY: number },
  placement: { x: number; y: number; scale: number },
): void {
  const { x, y, zoom } = editor.viewport.view;
  const k = placement.scale * zoom;
  frame.setAttribute('visibility', 'visible');
  frame.setAttribute('x', String(x + placement.x * zoom + box.minX * k - 4));
  frame.setAttribute('y', String(y + placement.y * zoom + box.minY * k - 4));
  frame.setAttribute('width', String((box.maxX - box.minX) * k + 8));
  frame.setAttribute('height', String((box.maxY - box.minY) * k + 8));
}
