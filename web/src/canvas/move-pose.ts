import type { Placement, Pose, PoseInput } from '@core';
import type { Editor } from '../editor';
import { changePiece } from '../state';

/**
 * Moves a pose by dragging it: the gesture works on a copy that only the canvas shows, and becomes one undoable change when the pointer is
 * released. Escape leaves it. A pose moved by hand leaves its placement rule.
 */
export function movePose(editor: Editor, pose: Pose, input: PoseInput, event: globalThis.PointerEvent): void {
  const { zoom } = editor.viewport.view;
  const start = pose.placement;
  let moved: Placement = start;
  const controller = new AbortController();
  const end = (kept: boolean): void => {
    controller.abort();
    editor.preview(null);
    if (!kept || moved === start) return;
    editor.store.dispatch(
      changePiece(`Move ${pose.name} by hand`, (draft) => void (draft.poses[pose.id].placement = { ...moved })),
    );
  };
  const options = { signal: controller.signal };
  window.addEventListener(
    'pointermove',
    (move) => {
      let dx = (move.clientX - event.clientX) / zoom;
      let dy = (move.clientY - event.clientY) / zoom;
      // ⇧ keeps to one axis.
      if (move.shiftKey && Math.abs(dx) > Math.abs(dy)) dy = 0;
      else if (move.shiftKey) dx = 0;
      moved = { ...start, x: start.x + dx, y: start.y + dy, rule: null };
      editor.preview({ ...input, placement: moved });
    },
    options,
  );
  window.addEventListener('pointerup', () => end(true), options);
  window.addEventListener('pointercancel', () => end(false), options);
  window.addEventListener(
    'keydown',
    (key) => {
      if (key.key !== 'Escape') return;
      key.stopPropagation();
      end(false);
    },
    { ...options, capture: true },
  );
}
